// PointerArea.tsx — the part of the sheet that is seen, which hears what points and lines do not.
import type { SVGProps } from 'react';

interface PointerAreaProps extends SVGProps<SVGRectElement> {
  frame: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

export function PointerArea({ frame, ...heard }: PointerAreaProps) {
  return <rect {...frame} fill="transparent" {...heard} />;
}
