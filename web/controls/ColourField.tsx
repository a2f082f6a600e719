// ColourField.tsx — a colour in a sentence.
import { useEffect, useRef, useState } from 'react';
import { MIXED } from './shared.ts';

interface ColourFieldProps {
  label: string;
  /** `#rrggbb` */
  value: string;
  /** Whether it stands for several that differ. */
  isMixed?: boolean;
  /** @param gesture the same while one colour is being looked for; each pick that is taken is a change of its own */
  onChange: (value: string, gesture: string) => void;
}

export function ColourField({ label, value, isMixed = false, onChange }: ColourFieldProps) {
  const field = useRef<HTMLInputElement>(null);
  const [pick, setPick] = useState(() => performance.now());
  useEffect(() => {
    const input = field.current!;
    // React's `onChange` is the browser's `input`, which tells of every colour on the way; `change` tells of the one taken.
    const taken = () => setPick(performance.now());
    input.addEventListener('change', taken);
    return () => input.removeEventListener('change', taken);
  }, []);
  return (
    <>
      <input
        ref={field}
        type="color"
        aria-label={isMixed ? `${label}: ${MIXED}` : label}
        className="inline-block h-6 w-8 cursor-pointer border border-rule bg-transparent align-middle"
        value={value}
        onChange={(event) => onChange(event.target.value, `${label} ${pick}`)}
      />{' '}
      <span className="figure text-quiet">{isMixed ? MIXED : value}</span>
    </>
  );
}
