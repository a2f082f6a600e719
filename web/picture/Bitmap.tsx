// Bitmap.tsx — pixels from the worker on a canvas, placed and sized by its owner.
import { type CSSProperties, useEffect, useRef } from 'react';

export function Bitmap({ bitmap, style, label }: { bitmap: ImageBitmap; style: CSSProperties; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const target = canvas.current!;
    target.width = bitmap.width;
    target.height = bitmap.height;
    target.getContext('2d')!.drawImage(bitmap, 0, 0);
  }, [bitmap]);
  return <canvas ref={canvas} className="pointer-events-none absolute" style={style} role="img" aria-label={label} />;
}
