// pictures.mjs — six pictures as people bring them in, drawn and then spoilt: what the Source station makes of them is shown in
// the README.
import sharp from 'sharp';

const drawn = (width, height, body) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${body}</svg>`,
  );

const BADGE = drawn(
  420,
  420,
  `<rect width="420" height="420" fill="#fff"/><circle cx="210" cy="210" r="190" fill="#16324a"/>
   <circle cx="210" cy="210" r="172" fill="#f3e9d2"/><circle cx="210" cy="210" r="160" fill="#2f6f7a"/>
   <path d="M70 250L160 120L215 200L255 150L350 250Z" fill="#f3e9d2"/>
   <path d="M70 250L160 120L180 150L150 180L130 170Z" fill="#c9593f"/><circle cx="290" cy="110" r="28" fill="#f2b63c"/>
   <path d="M52 262q40 -22 80 0t80 0t80 0t76 0L350 290Q300 360 210 368Q120 360 70 290Z" fill="#16324a"/>
   <g fill="none" stroke="#f3e9d2" stroke-width="9"><path d="M80 296q33 -18 65 0t65 0t65 0t65 0"/>
   <path d="M110 326q25 -14 50 0t50 0t50 0t50 0"/></g>`,
);

/** A word of strokes on a framed plate: no font is needed to draw it. */
const PLATE = drawn(
  640,
  300,
  `<rect width="640" height="300" fill="#fff"/><rect x="20" y="20" width="600" height="260" rx="34" fill="#20344a"/>
   <rect x="38" y="38" width="564" height="224" rx="20" fill="none" stroke="#f2c14e" stroke-width="7"/>
   <g fill="none" stroke="#f2c14e" stroke-width="24"><path d="M180 92H110V150H176V206H102"/>
   <path d="M214 218L258 88L302 218M230 174H286"/><path d="M342 84V206H416"/><path d="M436 92H546M491 92V218"/></g>`,
);

/** A bird in lines of three pixels. */
const OUTLINES = drawn(
  480,
  480,
  `<rect width="480" height="480" fill="#fff"/><g stroke="#1d1d26" stroke-width="3" stroke-linejoin="round">
   <path d="M120 360Q110 220 210 180Q250 60 330 110Q360 150 320 170Q380 300 300 360Z" fill="#e7d7a8"/>
   <path d="M210 180Q260 210 320 170" fill="none"/><path d="M330 110L410 130L332 140Z" fill="#e58a3c"/>
   <circle cx="300" cy="120" r="12" fill="#fff"/><circle cx="302" cy="121" r="5" fill="#1d1d26"/>
   <path d="M150 280Q200 240 270 270Q290 330 220 345Q160 340 150 280Z" fill="#7fb2b0"/>
   <g fill="none"><path d="M170 300Q210 280 255 296M180 318Q215 302 245 314"/>
   <path d="M200 360L196 430L170 430M250 360L256 430L282 430" stroke-width="5"/></g></g>`,
);

const DUSK = drawn(
  300,
  300,
  `<defs><linearGradient id="g" x2="0" y2="1"><stop stop-color="#f4d58a"/><stop offset="1" stop-color="#e2905a"/></linearGradient></defs>
   <rect width="300" height="300" fill="#fbf7ee"/><circle cx="150" cy="140" r="110" fill="url(#g)"/>
   <path d="M30 200Q90 150 150 195T270 190L260 240Q150 290 40 240Z" fill="#265a6b"/>
   <path d="M150 60l12 36h38l-31 22 12 36-31-22-31 22 12-36-31-22h38z" fill="#fbf7ee"/>`,
);

const SHADOW = drawn(
  700,
  460,
  `<rect width="700" height="460" fill="#eef1f4"/><rect x="170" y="70" width="360" height="320" rx="40" opacity=".35"/>`,
);
const CARD = drawn(
  700,
  460,
  `<rect x="165" y="60" width="360" height="320" rx="40" fill="#2c7a6b"/><path d="M235 290L345 120L455 290Z" fill="#f6f2e7"/>
   <rect x="315" y="220" width="60" height="70" fill="#2c7a6b"/><circle cx="345" cy="185" r="18" fill="#e0653f"/>
   <rect x="215" y="290" width="260" height="26" rx="13" fill="#12323a"/>`,
);

const [SIGN_WIDTH, SIGN_HEIGHT] = [1600, 1100];
const SIGN = drawn(
  SIGN_WIDTH,
  SIGN_HEIGHT,
  `<rect width="1600" height="1100" fill="#cfc8b8"/><rect x="180" y="140" width="1240" height="820" rx="60" fill="#f1ead8"/>
   <rect x="220" y="180" width="1160" height="740" rx="40" fill="#a63a2b"/>
   <path d="M420 760L640 380L760 560L860 440L1160 760Z" fill="#f1ead8"/><circle cx="1040" cy="360" r="90" fill="#e9b44c"/>
   <rect x="420" y="800" width="740" height="50" fill="#f1ead8"/>`,
);

/** Out of focus, in light that falls off to one side, with grain. */
async function photographed(drawing) {
  const seen = await sharp(drawing).blur(2).removeAlpha().raw().toBuffer();
  // The same grain every time: a linear congruential generator (Numerical Recipes).
  let state = 5;
  const chance = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  for (let i = 0; i < seen.length; i += 3) {
    const [x, y] = [(i / 3) % SIGN_WIDTH, Math.floor(i / 3 / SIGN_WIDTH)];
    const light = 1.02 - (0.4 * x) / SIGN_WIDTH - (0.12 * y) / SIGN_HEIGHT;
    const grain = 9 * (chance() + chance() + chance() - 1.5);
    for (let c = 0; c < 3; c++) seen[i + c] = Math.max(0, Math.min(255, seen[i + c] * light + grain));
  }
  return sharp(seen, { raw: { width: SIGN_WIDTH, height: SIGN_HEIGHT, channels: 3 } });
}

/** Files by their names. */
export async function spoiltPictures() {
  const shadow = await sharp(SHADOW).blur(14).toBuffer();
  return {
    'badge.jpg': await sharp(BADGE).jpeg({ quality: 70 }).toBuffer(),
    'plate.jpg': await sharp(PLATE).jpeg({ quality: 85 }).toBuffer(),
    'outlines.png': await sharp(OUTLINES).png().toBuffer(),
    'dusk.gif': await sharp(DUSK).gif({ colours: 16, dither: 1 }).toBuffer(),
    'screenshot.png': await sharp(shadow)
      .composite([{ input: CARD }])
      .png()
      .toBuffer(),
    'sign.jpg': await (await photographed(SIGN)).jpeg({ quality: 82 }).toBuffer(),
  };
}
