// IconButton.tsx — a button that shows an icon and says its name.
import type { LucideIcon } from 'lucide-react';
import type { ButtonHTMLAttributes } from 'react';
import { tip } from './Tips.tsx';

export interface IconButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  icon: LucideIcon;
  label: string;
  /** Keys that do the same, as people write them. */
  keys?: string | undefined;
  /** For buttons that stay down. */
  pressed?: boolean;
}

export function IconButton({ icon: Icon, label, keys, pressed, className = '', ...rest }: IconButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={pressed}
      {...tip(label, keys)}
      className={`inline-flex size-8 items-center justify-center rounded-edge hover:bg-wash ${pressed ? 'bg-wash text-tide' : ''} ${className}`}
      {...rest}
    >
      <Icon size={17} strokeWidth={1.75} aria-hidden />
    </button>
  );
}
