// checker.ts — the picture that shows where faces lie on pictures: squares with an arrow that points up in each.
import { CanvasTexture, RepeatWrapping, SRGBColorSpace } from 'three';

/** Side of a square where pictures are 1 wide: a sixteenth. */
export const CHECKER_SHARE = 1 / 16;

/** Pixels a square. */
const SIDE = 64;

const known = new Map<number, CanvasTexture>();

/** @param square side of a square, as long as the places on pictures are measured */
export function checkerFor(square: number): CanvasTexture {
  const made = known.get(square) ?? make(square);
  known.set(square, made);
  return made;
}

function make(square: number): CanvasTexture {
  const canvas = document.createElement('canvas');
  canvas.width = 2 * SIDE;
  canvas.height = 2 * SIDE;
  const pen = canvas.getContext('2d')!;
  for (const [x, y] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    const isDark = (x + y) % 2 === 1;
    pen.fillStyle = isDark ? '#5b6b78' : '#e8e4da';
    pen.fillRect(x * SIDE, y * SIDE, SIDE, SIDE);
    pen.fillStyle = isDark ? '#e8e4da' : '#5b6b78';
    pen.beginPath();
    pen.moveTo((x + 0.5) * SIDE, (y + 0.3) * SIDE);
    pen.lineTo((x + 0.62) * SIDE, (y + 0.66) * SIDE);
    pen.lineTo((x + 0.38) * SIDE, (y + 0.66) * SIDE);
    pen.fill();
  }
  const texture = new CanvasTexture(canvas);
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  texture.repeat.set(1 / (2 * square), 1 / (2 * square));
  texture.colorSpace = SRGBColorSpace;
  texture.anisotropy = 8;
  return texture;
}
