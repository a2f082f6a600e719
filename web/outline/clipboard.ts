// clipboard.ts — chosen shapes on their way to another place, source, project or program: as a drawing that others read too, with
// what this one needs to take them up again.
import { type EditActionOf, MM_PER_UNIT, parsePath, printPath, transformPath } from '../../core/index.ts';
import { act, BESIDE_SHARE, DIGITS, inHand, outline, useOutline } from '../store/outline.ts';
import { areaOf } from './choosing.ts';
import { middleOf } from './placing.ts';

type Drawn = EditActionOf<'draw'>['shapes'][number];

/** Marks a drawing that holds shapes of ours. */
const MARK = 'outline-stack-shapes';

interface Taken {
  /** Where it comes from: a source. */
  readonly source: string;
  /** Millimetres in one of its user units. */
  readonly mm: number;
  /** In user units of the source, y down, from back to front. */
  readonly shapes: readonly Drawn[];
  readonly middle: readonly [x: number, y: number];
}

/** The chosen shapes as the text of an SVG; null where none are. */
export function copiedText(): string | null {
  const current = inHand();
  const { view, chosen } = useOutline.getState();
  if (!current || !view || chosen.length === 0) return null;
  const { project, source } = current;
  const wanted = new Set(chosen);
  const those = view.shapes.filter(({ id }) => wanted.has(id));
  const area = areaOf(those);
  if (!area) return null;
  const { minX: x, minY: y } = area;
  const [width, height] = [area.maxX - x, area.maxY - y];
  const middle = middleOf(area);
  const taken: Taken = {
    source: source.id,
    mm: source.scale * MM_PER_UNIT[project.unit],
    shapes: those.map(({ id, name, d, fillRule, colour, stroke }) => ({
      id,
      name,
      d,
      fillRule,
      colour,
      stroke: stroke ? { ...stroke, dashes: [...stroke.dashes] } : null,
    })),
    middle: [middle.x, middle.y],
  };
  const paths = taken.shapes.map(({ d, fillRule, colour, stroke }) =>
    stroke
      ? `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${stroke.width}" stroke-linecap="${stroke.cap}"/>`
      : `<path d="${d}" fill="${colour}" fill-rule="${fillRule}"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width * taken.mm}mm" height="${height * taken.mm}mm"><metadata id="${MARK}">${escaped(JSON.stringify(taken))}</metadata>${paths.join('')}</svg>`;
}

/** Takes shapes of ours up from what was pasted. @returns whether there were any */
export function pasteShapes(text: string): boolean {
  const held = new RegExp(`<metadata id="${MARK}">([^<]*)</metadata>`).exec(text)?.[1];
  const current = inHand();
  const { view } = useOutline.getState();
  if (!held || !current || !view) return false;
  const { source: from, mm, shapes, middle } = JSON.parse(unescaped(held)) as Taken;
  const { project, source } = current;
  const { width, height } = view.sheet;
  const scale = mm / (source.scale * MM_PER_UNIT[project.unit]);
  const isHere = from === source.id;
  // What is pasted where it came from lies beside it.
  const beside = BESIDE_SHARE * Math.max(width, height);
  const [x, y] = isHere ? [middle[0] + beside, middle[1] + beside] : [width / 2, height / 2];
  const stamp = Date.now().toString(36);
  const drawn = shapes.map(
    (shape, i): Drawn => ({
      ...shape,
      id: `pasted-${stamp}-${i + 1}`,
      d: printPath(
        transformPath(parsePath(shape.d).path, [scale, 0, 0, scale, x - scale * middle[0], y - scale * middle[1]]),
        DIGITS,
      ),
      stroke: shape.stroke && { ...shape.stroke, width: scale * shape.stroke.width },
    }),
  );
  void act({ do: 'draw', shapes: drawn }).then(() => outline.choose(drawn.map(({ id }) => id)));
  return true;
}

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
const unescaped = (text: string) => text.replaceAll('&lt;', '<').replaceAll('&amp;', '&');
