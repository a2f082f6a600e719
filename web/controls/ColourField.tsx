// ColourField.tsx — a colour in a sentence.
interface ColourFieldProps {
  label: string;
  /** `#rrggbb` */
  value: string;
  onChange: (value: string) => void;
}

export function ColourField({ label, value, onChange }: ColourFieldProps) {
  return (
    <input
      type="color"
      aria-label={label}
      className="h-6 w-8 border border-rule align-middle"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
