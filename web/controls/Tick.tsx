// Tick.tsx — something that is on or off, with its words.
interface TickProps {
  label: string;
  isOn: boolean;
  onChange: (isOn: boolean) => void;
}

export function Tick({ label, isOn, onChange }: TickProps) {
  return (
    <label className="flex items-center gap-2 whitespace-nowrap">
      <input type="checkbox" className="accent-tide" checked={isOn} onChange={() => onChange(!isOn)} />
      {label}
    </label>
  );
}
