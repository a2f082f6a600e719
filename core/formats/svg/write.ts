// write.ts — a drawing as an SVG document: a group for each set of shapes that belong together, curves kept, the physical
// size where it is known.
import type { Drawing, Shape } from '../../drawing.ts';
import { printPath } from '../../path/print.ts';

export interface SvgGroup {
  /** Id and title of the group; '' for none. */
  readonly name: string;
  readonly shapes: readonly Shape[];
}

export interface SvgDocument extends Pick<Drawing, 'sheet' | 'mmPerUnit'> {
  readonly groups: readonly SvgGroup[];
}

/** Decimals of sizes and, unless fewer are asked for, of coordinates: the same geometry to 1e-7 of a user unit. */
const DIGITS = 7;

/**
 * @param digits decimals of a coordinate
 * @returns an SVG 2 document that `readSvg` reads back as the same shapes
 */
export function writeSvg({ groups, sheet, mmPerUnit }: SvgDocument, digits = DIGITS): string {
  const { x, y, width, height } = sheet;
  const physical =
    mmPerUnit === null ? '' : ` width="${number(width * mmPerUnit)}mm" height="${number(height * mmPerUnit)}mm"`;
  const viewBox = [x, y, width, height].map(number).join(' ');
  const lines = [`<svg xmlns="http://www.w3.org/2000/svg"${physical} viewBox="${viewBox}">`];
  const ids = new Set<string>();
  for (const { name, shapes } of groups) {
    lines.push(name ? `  <g id="${escaped(uniqueId(name, ids))}">` : '  <g>');
    if (name) lines.push(`    <title>${escaped(name)}</title>`);
    for (const shape of shapes) lines.push(`    <path${paint(shape)} d="${printPath(shape.path, digits)}"/>`);
    lines.push('  </g>');
  }
  return `${[...lines, '</svg>'].join('\n')}\n`;
}

/** Neighbours in paint order that look alike, each set a group without a name. */
export function groupsByLook(shapes: readonly Shape[]): SvgGroup[] {
  const groups: Shape[][] = [];
  for (const shape of shapes) {
    const last = groups.at(-1)?.[0];
    const isAlike = last?.colour === shape.colour && (last.stroke === undefined) === (shape.stroke === undefined);
    if (isAlike) groups.at(-1)!.push(shape);
    else groups.push([shape]);
  }
  return groups.map((group) => ({ name: '', shapes: group }));
}

function paint({ colour, opacity, fillRule, stroke }: Shape): string {
  const see = (name: string) => (opacity < 1 ? ` ${name}="${number(opacity)}"` : '');
  if (!stroke) return ` fill="${colour}"${see('fill-opacity')}${fillRule === 'evenodd' ? ' fill-rule="evenodd"' : ''}`;
  const { width, join, cap, mitreLimit, dashes, dashOffset } = stroke;
  return [
    ` fill="none" stroke="${colour}"${see('stroke-opacity')} stroke-width="${number(width)}"`,
    ` stroke-linecap="${cap}" stroke-linejoin="${join === 'mitre' ? 'miter' : join}"`,
    join === 'mitre' ? ` stroke-miterlimit="${number(mitreLimit)}"` : '',
    dashes.length > 0 ? ` stroke-dasharray="${dashes.map(number).join(' ')}"` : '',
    dashOffset === 0 ? '' : ` stroke-dashoffset="${number(dashOffset)}"`,
  ].join('');
}

const number = (v: number) => String(Number(v.toFixed(DIGITS)));

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

const escaped = (text: string) => text.replace(/[&<>"]/g, (character) => ENTITIES[character]!);

/** An id may not hold spaces (HTML's rule, which SVG 2 follows). */
function uniqueId(name: string, taken: Set<string>): string {
  const plain = name.trim().replace(/\s+/g, '-');
  let id = plain;
  for (let n = 2; taken.has(id); n++) id = `${plain}-${n}`;
  taken.add(id);
  return id;
}
