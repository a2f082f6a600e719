// make-crest.mjs — `node demo/make-crest.mjs` draws crest.jpg: the crest as a soft, slightly dirty grey scan, the same
// every time.
import { writeFileSync } from 'node:fs';
import sharp from 'sharp';

const [WIDTH, HEIGHT] = [900, 1000];

/** The crest itself: a heron before a crescent over water, in one ink. */
const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">
  <rect width="100%" height="100%" fill="#fff"/>
  <g transform="rotate(1.6 450 500)" fill="#000">
    <path d="M696.3 193.2A370 370 0 1 0 799.7 434.2A300 300 0 1 1 696.3 193.2Z"/>
    <path transform="translate(102 -14) scale(4.2)" fill-rule="evenodd" d="M55 58.5L82 50.5C86 44.5 95 44 99.5 49.5C105 57 101 66
      96.5 72.5C92.5 79 95 83.5 103 85.5C120 89 136 99 148 120L131.5 117.5C127 123.5 122 127 117 128.5L119 158L126 162.5H117.3
      L113 129.5L108.5 130L109.5 158L114.2 162.5H100.5L105.5 158L104 129C96 127 89 119 86.5 109C84.5 98.5 85 90 88.5 81.5
      C92 73.5 94 66 92 60.5C91 58 88 57.3 85 58.2ZM91.5 49.6A1.7 1.7 0 1 0 91.5 53A1.7 1.7 0 1 0 91.5 49.6Z"/>
    <path d="M150 836C200 806 250 806 300 836S400 866 450 836S550 806 600 836S700 866 750 836V860C700 890 650 890 600 860
      S500 830 450 860S350 890 300 860S200 830 150 860Z"/>
    <path d="M214 906C254 884 294 884 334 906S414 928 454 906S534 884 574 906S654 928 686 910V930C654 950 614 950 574 928
      S494 906 454 928S374 950 334 928S254 906 214 928Z"/>
    <path d="M600 250L608 280L638 288L608 296L600 326L592 296L562 288L592 280ZM676 330L681 347L698 352L681 357L676 374L671 357
      L654 352L671 347Z"/>
  </g>
</svg>`;

let state = 20261124;
/** Even numbers 0 … 1 (Numerical Recipes, §7.1). */
const random = () => {
  state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
  return state / 2 ** 32;
};

const ink = await sharp(Buffer.from(DRAWING)).greyscale().blur(1.3).raw().toBuffer();
const scan = Buffer.alloc(WIDTH * HEIGHT);
for (let y = 0; y < HEIGHT; y++) {
  for (let x = 0; x < WIDTH; x++) {
    // Paper that darkens towards one corner, ink that is not quite black, and the grain of the scanner.
    const paper = 236 - 16 * ((x / WIDTH) ** 2 + (y / HEIGHT) ** 2) + 4 * Math.sin(x / 61 + y / 97);
    const dark = 44 + 6 * Math.sin(x / 37 - y / 53);
    const share = ink[y * WIDTH + x] / 255;
    scan[y * WIDTH + x] = Math.min(255, Math.max(0, dark + share * (paper - dark) + 7 * (random() + random() - 1)));
  }
}
// Dust on the glass, and pinholes in the ink.
for (let n = 0; n < 46; n++) {
  const [cx, cy, r] = [random() * WIDTH, random() * HEIGHT, 0.9 + 1.5 * random()];
  const tone = random() < 0.7 ? 90 + 60 * random() : 240;
  for (let y = Math.max(0, Math.floor(cy - r)); y <= Math.min(HEIGHT - 1, cy + r); y++) {
    for (let x = Math.max(0, Math.floor(cx - r)); x <= Math.min(WIDTH - 1, cx + r); x++) {
      if (Math.hypot(x - cx, y - cy) <= r) scan[y * WIDTH + x] = tone;
    }
  }
}
const jpeg = await sharp(scan, { raw: { width: WIDTH, height: HEIGHT, channels: 1 } })
  .withMetadata({ density: 300 })
  .jpeg({ quality: 82 })
  .toBuffer();
writeFileSync(new URL('crest.jpg', import.meta.url), jpeg);
