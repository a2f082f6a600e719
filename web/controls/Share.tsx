// Share.tsx — a share of the whole as part of a sentence, in hundredths.
import { Value, type ValueProps } from './Value.tsx';

/** @param props as of a number, but that value, least and most are shares from 0 to 1 */
export function Share({ value, min = 0, max = 1, step = 0.01, onChange, ...props }: ValueProps) {
  return (
    <Value
      {...props}
      value={hundredths(value)}
      unit="%"
      step={hundredths(step)}
      min={hundredths(min)}
      max={hundredths(max)}
      onChange={(v, gesture) => onChange(v / 100, gesture)}
    />
  );
}

/** To a tenth of one. */
const hundredths = (share: number) => Math.round(1000 * share) / 10;
