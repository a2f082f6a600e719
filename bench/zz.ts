import sharp from 'sharp';
import { lookAt } from '../core/trace/look.ts';
import { startFor } from '../core/trace/start.ts';
import { DAMAGES, drawingsIn, reopened, SIZE } from './damages.ts';

const all = drawingsIn('bench/sets/node_modules');
const counts = new Map<string, number>();
let n = 0;
for (let i = 0; i < all.length; i += 40) {
  const bytes = await sharp(Buffer.from(all[i]!.svg), { density: 600 })
    .resize(SIZE, SIZE, { fit: 'contain', background: '#fff' })
    .flatten({ background: '#fff' })
    .png()
    .toBuffer()
    .catch(() => null);
  if (!bytes) continue;
  n++;
  const picture = await reopened(bytes);
  for (const kind of ['png', 'jpeg70', 'noise']) {
    const p = await DAMAGES[kind]!(picture);
    const s = startFor(p);
    const key = kind + ' ' + s.trace.mode + ' ' + s.prepare.map((x) => x.action.do);
    counts.set(key, (counts.get(key) ?? 0) + 1);
    if (s.prepare.length) {
      const l = lookAt(p);
      console.log(all[i]!.name, key, l.flat.toFixed(2), l.shading.toFixed(2), l.colours.length);
    }
  }
}
console.log(n, counts);
