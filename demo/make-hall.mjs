// make-hall.mjs — `node demo/make-hall.mjs` draws the visitors' hall twice, the same every time: hall.dxf, line work in
// millimetres, and hall.jpg, a scan of a printed plan with dimensions, furniture and names of rooms.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';

/** Middle lines and thickness, in millimetres, y down. */
const WALLS = [
  [180, 180, 14220, 180, 360],
  [14220, 180, 14220, 8820, 360],
  [14220, 8820, 180, 8820, 360],
  [180, 8820, 180, 180, 360],
  [4800, 180, 4800, 8820, 240],
  [180, 4500, 4800, 4500, 120],
  [10800, 180, 10800, 5400, 120],
  [10800, 5400, 14220, 5400, 120],
];
/** Number of the wall, distance of the middle from its start, width. */
const DOORS = [
  [2, 6600, 1800],
  [4, 6300, 1000],
  [5, 3500, 900],
  [6, 3000, 900],
];
const WINDOWS = [
  [0, 2300, 1500],
  [0, 7600, 2400],
  [0, 12300, 1500],
  [1, 7000, 1500],
  [3, 2100, 1200],
  [3, 6500, 1200],
];
const BOXES = [
  [700, 5300, 700, 2400],
  [11600, 900, 1800, 800],
  [5700, 700, 600, 1800],
  [9500, 700, 600, 1800],
  [11700, 6300, 1600, 620],
  [1000, 900, 620, 2400],
];
const CIRCLES = [
  [7800, 4300, 900],
  [7800, 4300, 320],
  [6200, 6900, 190],
  [6900, 7200, 190],
  [8700, 7200, 190],
  [9400, 6900, 190],
  [1900, 6100, 180],
  [1900, 6900, 180],
];
const NAMES = [
  ['HALL', 7800, 2100],
  ['SHOP', 2700, 7700],
  ['STORE', 3100, 1500],
  ['DARKROOM', 12500, 3300],
];
const OVERALL = [
  ['14.40 m', 7200, 9900],
  ['9.00 m', -900, 4500],
];

const place = (wall, s) => {
  const [x0, y0, x1, y1] = WALLS[wall];
  const length = Math.hypot(x1 - x0, y1 - y0);
  return [x0 + ((x1 - x0) * s) / length, y0 + ((y1 - y0) * s) / length];
};
/** What walls cover, and openings with a little to spare, as left, top, right, bottom. */
const solid = WALLS.map(([x0, y0, x1, y1, t]) => [
  Math.min(x0, x1) - (y0 === y1 ? (t === 360 ? 180 : 0) : t / 2),
  Math.min(y0, y1) - (x0 === x1 ? (t === 360 ? 180 : 0) : t / 2),
  Math.max(x0, x1) + (y0 === y1 ? (t === 360 ? 180 : 0) : t / 2),
  Math.max(y0, y1) + (x0 === x1 ? (t === 360 ? 180 : 0) : t / 2),
]);
const openings = [...DOORS, ...WINDOWS].map(([wall, at, width]) => {
  const [a, b] = [place(wall, at - width / 2), place(wall, at + width / 2)];
  const half = WALLS[wall][4] / 2;
  const isAcross = a[1] === b[1];
  return [
    Math.min(a[0], b[0]) - (isAcross ? 0 : half),
    Math.min(a[1], b[1]) - (isAcross ? half : 0),
    Math.max(a[0], b[0]) + (isAcross ? 0 : half),
    Math.max(a[1], b[1]) + (isAcross ? half : 0),
  ];
});

/** The boundary of the walls as lines, each run of them one line. */
function boundary() {
  const all = [...solid, ...openings];
  const sorted = (k) => [...new Set(all.flatMap((box) => [box[k], box[k + 2]]))].sort((a, b) => a - b);
  const [xs, ys] = [sorted(0), sorted(1)];
  const isIn = (boxes, x, y) => boxes.some(([l, t, r, b]) => x > l && x < r && y > t && y < b);
  const isWall = (i, j) => {
    const [x, y] = [(xs[i] + xs[i + 1]) / 2, (ys[j] + ys[j + 1]) / 2];
    return isIn(solid, x, y) && !isIn(openings, x, y);
  };
  const lines = [];
  const runs = (us, vs, isEdge, line) => {
    for (let i = 0; i < us.length; i++) {
      let from = null;
      for (let j = 0; j < vs.length; j++) {
        const isOn = j + 1 < vs.length && isEdge(i, j);
        if (isOn && from === null) from = vs[j];
        if (!isOn && from !== null) {
          lines.push(line(us[i], from, vs[j]));
          from = null;
        }
      }
    }
  };
  runs(
    xs,
    ys,
    (i, j) => isWall(i - 1, j) !== isWall(i, j),
    (x, y0, y1) => [x, y0, x, y1],
  );
  runs(
    ys,
    xs,
    (j, i) => isWall(i, j - 1) !== isWall(i, j),
    (y, x0, x1) => [x0, y, x1, y],
  );
  return lines;
}

/** Leaf and swing of a door as a line and an arc: hinge, width, start and end in degrees counter-clockwise, y up. */
const swings = DOORS.flatMap(([wall, at, width]) => {
  const [x0, y0, x1, y1] = WALLS[wall];
  const leaves = width > 1500 ? [1, -1] : [1];
  return leaves.map((side) => {
    const reach = width / leaves.length;
    const [hx, hy] = place(wall, at - (side * width) / 2);
    const angle = (Math.atan2(-(y1 - y0), x1 - x0) * 180) / Math.PI + (side === 1 ? 0 : 180);
    return { x: hx, y: hy, reach, from: side === 1 ? angle - 90 : angle, open: side === 1 ? angle - 90 : angle + 90 };
  });
});
const glass = WINDOWS.flatMap(([wall, at, width]) => {
  const [a, b] = [place(wall, at - width / 2), place(wall, at + width / 2)];
  const half = WALLS[wall][4] / 2;
  const [nx, ny] = a[1] === b[1] ? [0, 1] : [1, 0];
  return [-half, 0, half].map((off) => [a[0] + nx * off, a[1] + ny * off, b[0] + nx * off, b[1] + ny * off]);
});
const boxLines = BOXES.flatMap(([x, y, w, h]) => [
  [x, y, x + w, y],
  [x + w, y, x + w, y + h],
  [x + w, y + h, x, y + h],
  [x, y + h, x, y],
]);
const leafEnd = ({ x, y, reach, open }) => {
  const a = (open * Math.PI) / 180;
  return [x + reach * Math.cos(a), y - reach * Math.sin(a)];
};

// --- the exchange file: release 12, y up ----------------------------------------------------------------------------

const tags = [];
const add = (...pairs) => {
  for (let i = 0; i < pairs.length; i += 2) tags.push(pairs[i], pairs[i + 1]);
};
const figure = (v) => String(Number(v.toFixed(4)));
const line = (layer, [x0, y0, x1, y1]) =>
  add(0, 'LINE', 8, layer, 10, figure(x0), 20, figure(9000 - y0), 11, figure(x1), 21, figure(9000 - y1));
add(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1009', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC');
const LAYERS = [
  ['WALLS', 7],
  ['DOORS', 30],
  ['WINDOWS', 140],
  ['FURNITURE', 8],
  ['NAMES', 3],
];
add(0, 'SECTION', 2, 'TABLES', 0, 'TABLE', 2, 'LAYER', 70, LAYERS.length);
for (const [name, colour] of LAYERS) add(0, 'LAYER', 2, name, 70, 0, 62, colour, 6, 'CONTINUOUS');
add(0, 'ENDTAB', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES');
for (const each of boundary()) line('WALLS', each);
for (const swing of swings) {
  line('DOORS', [swing.x, swing.y, ...leafEnd(swing)]);
  add(0, 'ARC', 8, 'DOORS', 10, figure(swing.x), 20, figure(9000 - swing.y), 40, swing.reach);
  add(50, figure((swing.from + 720) % 360), 51, figure((swing.from + 90 + 720) % 360));
}
for (const each of glass) line('WINDOWS', each);
for (const each of boxLines) line('FURNITURE', each);
for (const [x, y, r] of CIRCLES) add(0, 'CIRCLE', 8, 'FURNITURE', 10, x, 20, 9000 - y, 40, r);
for (const [name, x, y] of NAMES) add(0, 'TEXT', 8, 'NAMES', 10, x, 20, 9000 - y, 40, 300, 1, name);
add(0, 'ENDSEC', 0, 'EOF');
writeFileSync(new URL('hall.dxf', import.meta.url), `${tags.join('\n')}\n`);

// --- the scan: 10 mm to the pixel -----------------------------------------------------------------------------------

const SCALE = 0.1;
const [LEFT, TOP, WIDTH, HEIGHT] = [-1700, -700, 1720, 1180];
const root = fileURLToPath(new URL('..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'hall-'));
/** A word as outlines of a bundled font, its middle at a place. */
function word(text, size, x, y, turn = 0) {
  const file = join(folder, 'word.svg');
  execFileSync('node', ['cli/bin.js', 'letters', text, '--font', 'grotesque', '--size', String(size), '--out', file], {
    cwd: root,
  });
  const svg = readFileSync(file, 'utf8');
  const [l, t, w, h] = /viewBox="([^"]+)"/.exec(svg)[1].split(/\s+/).map(Number);
  const paths = [...svg.matchAll(/<path[^>]*\sd="([^"]+)"/g)].map(([, d]) => `<path d="${d}"/>`).join('');
  return `<g transform="translate(${x} ${y}) rotate(${turn}) translate(${-l - w / 2} ${-t - h / 2})" stroke="none" fill="#000">${paths}</g>`;
}
const stroke = ([x0, y0, x1, y1]) => `M${x0} ${y0}L${x1} ${y1}`;
const arcs = swings.map((swing) => {
  const { x, y, reach, from } = swing;
  const [a, b] = [from, from + 90].map((degrees) => (degrees * Math.PI) / 180);
  const at = (angle) => `${x + reach * Math.cos(angle)} ${y - reach * Math.sin(angle)}`;
  return `${stroke([x, y, ...leafEnd(swing)])}M${at(a)}A${reach} ${reach} 0 0 0 ${at(b)}`;
});
const dimension = (x0, y0, x1, y1) => {
  const [nx, ny] = y0 === y1 ? [0, 140] : [140, 0];
  return `${stroke([x0, y0, x1, y1])}${stroke([x0 - nx, y0 - ny, x0 + nx, y0 + ny])}${stroke([x1 - nx, y1 - ny, x1 + nx, y1 + ny])}`;
};
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="${LEFT} ${TOP} ${WIDTH / SCALE} ${HEIGHT / SCALE}">
  <rect x="${LEFT}" y="${TOP}" width="100%" height="100%" fill="#fff"/>
  <g transform="rotate(-0.7 7200 4500)" fill="none" stroke="#000" stroke-width="28">
    <g stroke="none" fill="#000">${solid.map(([l, t, r, b]) => `<rect x="${l}" y="${t}" width="${r - l}" height="${b - t}"/>`).join('')}</g>
    <g stroke="none" fill="#fff">${openings.map(([l, t, r, b]) => `<rect x="${l - 2}" y="${t - 2}" width="${r - l + 4}" height="${b - t + 4}"/>`).join('')}</g>
    <path d="${[...glass, ...boxLines].map(stroke).join('')}${arcs.join('')}"/>
    ${CIRCLES.map(([x, y, r]) => `<circle cx="${x}" cy="${y}" r="${r}"/>`).join('')}
    <path stroke-width="20" d="${dimension(0, 9500, 14400, 9500)}${dimension(-500, 0, -500, 9000)}"/>
    ${NAMES.map(([text, x, y]) => word(text, 420, x, y)).join('')}
    ${OVERALL.map(([text, x, y], i) => word(text, 420, x, y, i === 1 ? -90 : 0)).join('')}
  </g></svg>`;

let state = 20261125;
/** Even numbers 0 … 1 (Numerical Recipes, §7.1). */
const random = () => {
  state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
  return state / 2 ** 32;
};
const ink = await sharp(Buffer.from(drawing)).greyscale().blur(0.8).raw().toBuffer();
const scan = Buffer.alloc(WIDTH * HEIGHT);
for (let y = 0; y < HEIGHT; y++) {
  for (let x = 0; x < WIDTH; x++) {
    const paper = 232 - 14 * ((1 - x / WIDTH) ** 2 + (y / HEIGHT) ** 2) + 3 * Math.sin(x / 83 + y / 71);
    const dark = 52 + 5 * Math.sin(x / 41 - y / 57);
    const share = ink[y * WIDTH + x] / 255;
    scan[y * WIDTH + x] = Math.min(255, Math.max(0, dark + share * (paper - dark) + 8 * (random() + random() - 1)));
  }
}
const jpeg = await sharp(scan, { raw: { width: WIDTH, height: HEIGHT, channels: 1 } })
  .jpeg({ quality: 80 })
  .toBuffer();
writeFileSync(new URL('hall.jpg', import.meta.url), jpeg);
