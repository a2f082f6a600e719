// write.ts — a drawing as an SVG document: shapes by colour in groups, curves kept, the physical size where it is known.
import { printPath } from '../../path/print.ts';
import type { Drawing, Shape } from './read.ts';

/** @returns an SVG 2 document that `readSvg` reads back as the same shapes, strokes apart */
export function writeSvg({ shapes, sheet, mmPerUnit }: Drawing): string {
  const { x, y, width, height } = sheet;
  const number = (v: number) => String(Number(v.toFixed(4)));
  const physical =
    mmPerUnit === null ? '' : ` width="${number(width * mmPerUnit)}mm" height="${number(height * mmPerUnit)}mm"`;
  const viewBox = [x, y, width, height].map(number).join(' ');
  const lines = [`<svg xmlns="http://www.w3.org/2000/svg"${physical} viewBox="${viewBox}">`];
  for (const group of groupsOf(shapes)) {
    const [{ colour, strokeWidth }] = group as [Shape, ...Shape[]];
    const isStroke = strokeWidth !== undefined;
    lines.push(
      isStroke
        ? `  <g fill="none" stroke="${colour}" stroke-linecap="round" stroke-linejoin="round">`
        : `  <g fill="${colour}" fill-rule="evenodd">`,
    );
    for (const shape of group) {
      const width = shape.strokeWidth === undefined ? '' : ` stroke-width="${number(shape.strokeWidth)}"`;
      lines.push(`    <path d="${printPath(shape.path)}"${width}/>`);
    }
    lines.push('  </g>');
  }
  return `${[...lines, '</svg>'].join('\n')}\n`;
}

/** Neighbours in paint order that look alike. */
function groupsOf(shapes: readonly Shape[]): Shape[][] {
  const groups: Shape[][] = [];
  for (const shape of shapes) {
    const last = groups.at(-1)?.[0];
    const isAlike =
      last?.colour === shape.colour && (last.strokeWidth === undefined) === (shape.strokeWidth === undefined);
    if (isAlike) groups.at(-1)!.push(shape);
    else groups.push([shape]);
  }
  return groups;
}
