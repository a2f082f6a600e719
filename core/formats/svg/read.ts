// read.ts — an SVG document to filled shapes and strokes in one coordinate system. Semantics follow SVG 2; what cannot be honoured
// is named in `leftOut`, never dropped in silence. No scripts, no external references, no entity expansion.
import { GeometryError, type Warning } from '../../base/errors.ts';
import { lengthToMm, lengthToPx, parseLength } from '../../base/units.ts';
import { type Box, type Drawing, type LeftOut, type Shape, type Stroke, scaledStroke } from '../../drawing.ts';
import { multiply, transformPath, translation } from '../../path/matrix.ts';
import { IDENTITY, type Matrix, type Path } from '../../path/types.ts';
import { Stylesheet, visit } from './css.ts';
import { SVG_LIMITS } from './facts.ts';
import { type Colour, meanColour, parseColour, type Stop } from './paint.ts';
import { SHAPE_NAMES, shapePath, type Viewport } from './shapes.ts';
import { fitViewBox, parseTransform, parseViewBox } from './transform.ts';
import { parseXml, type XmlElement } from './xml.ts';

/** Elements that hold shapes and are walked; `defs`-like ones are reached by reference only. */
const CONTAINERS: ReadonlySet<string> = new Set(['svg', 'g', 'a', 'switch', 'use', 'symbol']);
const SILENT: ReadonlySet<string> = new Set([
  ...['defs', 'style', 'title', 'desc', 'metadata', 'linearGradient', 'radialGradient', 'pattern', 'symbol', 'script'],
  ...['clipPath', 'mask', 'filter', 'marker', 'view', 'cursor', 'namedview', 'font', 'color-profile'],
]);
const PICTURED: Readonly<Record<string, string>> = { text: 'text', image: 'image', foreignObject: 'embedded page' };
const EFFECTS: readonly (readonly [property: string, what: string])[] = [
  ['clip-path', 'clip path (shape kept whole)'],
  ['mask', 'mask (shape kept whole)'],
  ['filter', 'filter'],
];

/**
 * Reads an SVG document.
 * @param text the document; bytes are decoded by the caller
 * @throws {GeometryError} 'bad-file' not an SVG or broken XML · 'too-large' · 'nothing-to-build' no filled or stroked shape in it
 */
export function readSvg(text: string): Drawing {
  if (text.length > SVG_LIMITS.bytes) {
    const mb = (n: number) => Math.round(n / 2 ** 20);
    const limit = mb(SVG_LIMITS.bytes);
    throw new GeometryError(
      'too-large',
      `The file holds ${mb(text.length)} MB of drawing; ${limit} MB is the most. Simplify it first.`,
    );
  }
  if (text.trim() === '') throw new GeometryError('bad-file', 'The file is empty.');
  if (!/^\s*(\uFEFF)?\s*</.test(text)) {
    throw new GeometryError('bad-file', 'This is not an SVG file: it does not begin with “<”.');
  }
  return new SvgReader(text).drawing();
}

interface Inherited {
  readonly fill: string;
  readonly fillRule: string;
  readonly fillOpacity: string;
  readonly stroke: string;
  readonly strokeOpacity: string;
  readonly strokeWidth: string;
  readonly strokeLinejoin: string;
  readonly strokeLinecap: string;
  readonly strokeMiterlimit: string;
  readonly strokeDasharray: string;
  readonly strokeDashoffset: string;
  readonly paintOrder: string;
  readonly color: string;
  readonly visibility: string;
}

const INITIAL: Inherited = {
  fill: 'black',
  fillRule: 'nonzero',
  fillOpacity: '1',
  stroke: 'none',
  strokeOpacity: '1',
  strokeWidth: '1',
  strokeLinejoin: 'miter',
  strokeLinecap: 'butt',
  strokeMiterlimit: '4',
  strokeDasharray: 'none',
  strokeDashoffset: '0',
  paintOrder: 'normal',
  color: 'black',
  visibility: 'visible',
};
const INHERITED_NAMES: readonly (readonly [keyof Inherited, string])[] = [
  ['fill', 'fill'],
  ['fillRule', 'fill-rule'],
  ['fillOpacity', 'fill-opacity'],
  ['stroke', 'stroke'],
  ['strokeOpacity', 'stroke-opacity'],
  ['strokeWidth', 'stroke-width'],
  ['strokeLinejoin', 'stroke-linejoin'],
  ['strokeLinecap', 'stroke-linecap'],
  ['strokeMiterlimit', 'stroke-miterlimit'],
  ['strokeDasharray', 'stroke-dasharray'],
  ['strokeDashoffset', 'stroke-dashoffset'],
  ['paintOrder', 'paint-order'],
  ['color', 'color'],
  ['visibility', 'visibility'],
];

/** What an element receives from above. */
interface Place {
  readonly matrix: Matrix;
  readonly style: Inherited;
  readonly opacity: number;
  readonly viewport: Viewport;
  readonly key: string;
  readonly group: string;
  /** Titles or ids of the groups above that have one, the outermost first. */
  readonly within: readonly string[];
  /** `use` elements that are open above, to refuse a loop. */
  readonly uses: readonly XmlElement[];
}

const titleOf = (element: XmlElement) => element.children.find((child) => child.name === 'title')?.text.trim();

function inGroup(element: XmlElement, place: Place): Place {
  const { id } = element.attributes;
  const name = titleOf(element) || id;
  return { ...place, group: id ?? place.group, within: name ? [...place.within, name] : place.within };
}

class SvgReader {
  private readonly root: XmlElement;
  private readonly byId = new Map<string, XmlElement>();
  private readonly sheetRules: Stylesheet;
  private readonly shapes: Shape[] = [];
  private readonly taken = new Set<string>();
  private readonly leftOut = new Map<string, { count: number; where: string }>();
  private readonly warnings: Warning[] = [];
  private segments = 0;
  private instances = 0;

  constructor(text: string) {
    this.root = parseXml(text, this.warnings);
    if (this.root.name !== 'svg') {
      throw new GeometryError(
        'bad-file',
        `This is not an SVG file: its outermost element is <${this.root.name}>, not <svg>.`,
      );
    }
    visit(this.root, (element) => {
      const id = element.attributes.id;
      if (id && !this.byId.has(id)) this.byId.set(id, element);
    });
    this.sheetRules = new Stylesheet(this.root, this.warnings);
  }

  drawing(): Drawing {
    const { width, height, viewBox, mmPerUnit } = this.rootSize();
    const sheet: Box = { x: 0, y: 0, width, height };
    const fitted = viewBox ? fitViewBox(viewBox, sheet, this.root.attributes.preserveAspectRatio) : IDENTITY;
    const declared = this.sheetRules.declared(this.root);
    const place: Place = {
      matrix: multiply(fitted, parseTransform(declared.get('transform') ?? '') ?? IDENTITY),
      style: this.inherit(INITIAL, declared),
      opacity: numberOr(declared.get('opacity'), 1),
      viewport: viewBox ?? sheet,
      key: '',
      group: '',
      within: [],
      uses: [],
    };
    if (declared.get('display') !== 'none') this.children(this.root, place);
    const leftOut = [...this.leftOut].map(([what, entry]) => ({ what, ...entry }));
    if (this.shapes.length === 0) throw this.nothing(leftOut);
    return { shapes: this.shapes, sheet, mmPerUnit, leftOut, warnings: this.warnings };
  }

  private rootSize() {
    const { attributes } = this.root;
    const viewBox = parseViewBox(attributes.viewBox);
    const side = (name: 'width' | 'height', fromBox: number | undefined) => {
      const length = parseLength(attributes[name] ?? '');
      // Sizes relative to a page that is not there fall back to the viewBox.
      const usable = length && length.value > 0 && !['%', 'em', 'ex', 'rem', 'vw', 'vh'].includes(length.unit);
      return usable ? { px: lengthToPx(length, 0), mm: lengthToMm(length) } : { px: fromBox, mm: null };
    };
    const w = side('width', viewBox?.width);
    const h = side('height', viewBox?.height);
    const ratio = viewBox ? viewBox.width / viewBox.height : 1;
    let width = w.px ?? (h.px === undefined ? 300 : h.px * ratio);
    let height = h.px ?? (w.px === undefined ? 150 : w.px / ratio);
    // One given side decides the other through the viewBox's ratio, so that nothing is letterboxed by accident.
    if (viewBox && attributes.width !== undefined && attributes.height === undefined && w.px) height = width / ratio;
    if (viewBox && attributes.height !== undefined && attributes.width === undefined && h.px) width = height * ratio;
    const mm = w.mm !== null ? w.mm / width : h.mm !== null ? h.mm / height : null;
    return { width, height, viewBox, mmPerUnit: mm };
  }

  private children(element: XmlElement, place: Place): void {
    const counts = new Map<string, number>();
    for (const child of element.children) {
      const index = (counts.get(child.name) ?? 0) + 1;
      counts.set(child.name, index);
      const id = child.attributes.id;
      // An id names one element, but each use of it is a shape of its own.
      const key = id && place.uses.length === 0 ? `#${id}` : `${place.key}/${id ?? `${child.name}${index}`}`;
      const shown = this.element(child, { ...place, key });
      // Of a switch only the first child that can be shown is.
      if (element.name === 'switch' && shown) return;
    }
  }

  /** Returns whether the element could be shown at all. */
  private element(element: XmlElement, place: Place): boolean {
    const { name } = element;
    if (SILENT.has(name) || name.includes(':')) return false;
    const pictured = PICTURED[name];
    if (pictured) {
      this.leaveOut(pictured, place.key);
      return name !== 'foreignObject';
    }
    if (!CONTAINERS.has(name) && !SHAPE_NAMES.has(name)) {
      this.leaveOut(`<${name}>`, place.key);
      return false;
    }
    const declared = this.sheetRules.declared(element);
    if (declared.get('display') === 'none') return true;
    const own = parseTransform(declared.get('transform') ?? '');
    if (!own)
      this.warnings.push({
        code: 'transform',
        message: `${place.key}: its transform could not be read and was ignored.`,
      });
    const inner: Place = {
      ...place,
      matrix: own ? multiply(place.matrix, own) : place.matrix,
      style: this.inherit(place.style, declared),
      opacity: place.opacity * clamp01(numberOr(declared.get('opacity'), 1)),
    };
    for (const [property, what] of EFFECTS) {
      const value = declared.get(property);
      if (value && value !== 'none') this.leaveOut(what, place.key);
    }
    if (SHAPE_NAMES.has(name)) this.shape(element, declared, inner);
    else if (name === 'use') this.use(element, declared, inner);
    else if (name === 'svg') this.children(element, this.nested(declared, inner, inner.viewport));
    else this.children(element, name === 'g' ? inGroup(element, inner) : inner);
    return true;
  }

  private inherit(above: Inherited, declared: ReadonlyMap<string, string>): Inherited {
    const result: { -readonly [K in keyof Inherited]: string } = { ...above };
    for (const [field, property] of INHERITED_NAMES) {
      const value = declared.get(property);
      if (value === undefined || value === 'inherit' || value === 'unset') continue;
      result[field] = value === 'initial' ? INITIAL[field] : value;
    }
    if (result.color.toLowerCase() === 'currentcolor') result.color = above.color;
    return result;
  }

  /** The place inside a nested `svg` or an instanced `symbol`. */
  private nested(declared: ReadonlyMap<string, string>, place: Place, size: Viewport): Place {
    const read = (key: string, percentOf: number, otherwise: number) => {
      const length = parseLength(declared.get(key) ?? '');
      return length ? lengthToPx(length, percentOf) : otherwise;
    };
    const viewport: Box = {
      x: read('x', place.viewport.width, 0),
      y: read('y', place.viewport.height, 0),
      width: read('width', place.viewport.width, size.width),
      height: read('height', place.viewport.height, size.height),
    };
    const viewBox = parseViewBox(declared.get('viewBox'));
    const map = viewBox
      ? fitViewBox(viewBox, viewport, declared.get('preserveAspectRatio'))
      : translation(viewport.x, viewport.y);
    return { ...place, matrix: multiply(place.matrix, map), viewport: viewBox ?? viewport };
  }

  private use(element: XmlElement, declared: ReadonlyMap<string, string>, place: Place): void {
    const target = this.target(declared, place.key);
    if (!target) return;
    if (place.uses.includes(element) || isAncestor(target, element)) {
      this.leaveOut('use that contains itself', place.key);
      return;
    }
    if (++this.instances > SVG_LIMITS.instances) {
      throw new GeometryError(
        'too-large',
        `${place.key}: the drawing repeats parts more than ${SVG_LIMITS.instances} times through <use>.`,
      );
    }
    const length = (key: 'x' | 'y', percentOf: number) => {
      const parsed = parseLength(declared.get(key) ?? '');
      return parsed ? lengthToPx(parsed, percentOf) : 0;
    };
    const shift = translation(length('x', place.viewport.width), length('y', place.viewport.height));
    const key = `${place.key}>${target.attributes.id}`;
    const inner: Place = { ...place, matrix: multiply(place.matrix, shift), key, uses: [...place.uses, element] };
    if (target.name !== 'symbol') {
      this.element(target, inner);
      return;
    }
    const symbol = this.sheetRules.declared(target);
    // A symbol takes its size from the use that shows it.
    for (const side of ['width', 'height']) {
      const value = element.attributes[side];
      if (value !== undefined) symbol.set(side, value);
    }
    const style = this.inherit(inner.style, symbol);
    this.children(target, this.nested(symbol, { ...inner, style }, place.viewport));
  }

  private target(declared: ReadonlyMap<string, string>, where: string): XmlElement | null {
    const href = (declared.get('href') ?? declared.get('xlink:href') ?? '').trim();
    const found = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!found) this.leaveOut(href.startsWith('#') ? `use of a missing part ${href}` : 'external reference', where);
    return found ?? null;
  }

  private shape(element: XmlElement, declared: ReadonlyMap<string, string>, place: Place): void {
    const { style } = place;
    if (style.visibility !== 'visible') return;
    // A line has no inside.
    const fill = element.name === 'line' ? null : this.paint(style.fill, style, place.key);
    const pen = this.pen(declared, place);
    const fillOpacity = fill ? fill.alpha * clamp01(numberOr(style.fillOpacity, 1)) * place.opacity : 0;
    const strokeOpacity = pen ? pen.colour.alpha * clamp01(numberOr(style.strokeOpacity, 1)) * place.opacity : 0;
    if (!(fillOpacity > 0) && !(strokeOpacity > 0)) return;
    const { path, error } = shapePath(element.name, declared, place.viewport);
    if (error) {
      const rest = path.length > 0 ? 'the part before it is kept' : 'nothing of it is kept';
      const message = `${place.key}: its path data stops being readable at character ${error.offset + 1} (${error.message}); ${rest}.`;
      this.warnings.push({ code: 'path-data', message });
    }
    this.segments += path.length;
    if (this.segments > SVG_LIMITS.segments) {
      throw new GeometryError(
        'too-large',
        `The drawing has more than ${SVG_LIMITS.segments} path pieces; simplify it first.`,
      );
    }
    const placed = transformPath(path, place.matrix);
    if (!withinRange(placed)) {
      const message = `${place.key}: it has coordinates beyond ±${SVG_LIMITS.coordinate} and was left out.`;
      this.warnings.push({ code: 'out-of-range', message });
      return;
    }
    if (placed.length < 2) return;
    const name = titleOf(element) || element.attributes.id || element.name;
    const within = place.within.length > 0 ? { within: place.within } : {};
    const shape = { name, group: place.group, ...within, path: placed };
    const id = this.unique(place.key);
    const painted: Shape[] = [];
    if (fill && fillOpacity > 0) {
      const fillRule = style.fillRule === 'evenodd' ? 'evenodd' : 'nonzero';
      painted.push({ ...shape, id, fillRule, colour: fill.hex, opacity: fillOpacity });
    }
    if (pen && strokeOpacity > 0) {
      const own = { id: painted.length > 0 ? this.unique(`${id}|stroke`) : id, colour: pen.colour.hex };
      painted.push({ ...shape, ...own, fillRule: 'nonzero', opacity: strokeOpacity, stroke: pen.stroke });
    }
    const isUnder = /stroke.*fill/.test(style.paintOrder) || /^\s*stroke\s*$/.test(style.paintOrder);
    this.shapes.push(...(isUnder ? painted.reverse() : painted));
  }

  /** What an element is stroked with, in user units of the outermost viewport; null for nothing. */
  private pen(declared: ReadonlyMap<string, string>, { style, matrix, viewport, key }: Place) {
    // Percentages are of the viewport's diagonal (SVG 2 §13.5.2).
    const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
    const length = (text: string, otherwise: number) => {
      const parsed = parseLength(text);
      return parsed ? lengthToPx(parsed, diagonal) : otherwise;
    };
    const width = length(style.strokeWidth, 1);
    const colour = width > 0 ? this.paint(style.stroke, style, key) : null;
    if (!colour) return null;
    const [a, b, c, d] = matrix;
    const scale = Math.sqrt(Math.abs(a * d - b * c));
    const isEven =
      Math.abs(a * c + b * d) + Math.abs(a * a + b * b - c * c - d * d) < 1e-6 * (a * a + b * b + c * c + d * d);
    const isFixed = declared.get('vector-effect') === 'non-scaling-stroke';
    if (!isEven && !isFixed) {
      const message = `${key}: it is stretched more one way than the other; its stroke is taken as evenly wide.`;
      this.warnings.push({ code: 'stroke', message });
    }
    for (const marker of ['marker-start', 'marker-mid', 'marker-end']) {
      if ((declared.get(marker) ?? 'none') !== 'none') this.leaveOut('marker', key);
    }
    const dashes = style.strokeDasharray.split(/[\s,]+/).map((dash) => length(dash, 0));
    const stroke: Stroke = {
      width,
      join: style.strokeLinejoin === 'round' ? 'round' : style.strokeLinejoin === 'bevel' ? 'bevel' : 'mitre',
      cap: style.strokeLinecap === 'round' ? 'round' : style.strokeLinecap === 'square' ? 'square' : 'butt',
      mitreLimit: Math.max(1, numberOr(style.strokeMiterlimit, 4)),
      dashes: dashes.some((dash) => dash > 0) && dashes.every((dash) => dash >= 0) ? dashes : [],
      dashOffset: length(style.strokeDashoffset, 0),
    };
    return { colour, stroke: isFixed ? stroke : scaledStroke(stroke, scale) };
  }

  private unique(key: string): string {
    let id = key;
    for (let n = 2; this.taken.has(id); n++) id = `${key}~${n}`;
    this.taken.add(id);
    return id;
  }

  /** The flat colour of a paint value, or null for none. */
  private paint(value: string, style: Inherited, where: string): Colour | null {
    const text = value.trim();
    if (text === 'none' || text === 'transparent') return null;
    if (text.toLowerCase() === 'currentcolor') return parseColour(style.color) ?? { hex: '#000000', alpha: 1 };
    const url = /^url\(\s*["']?([^"')]*)["']?\s*\)\s*(.*)$/.exec(text);
    if (url) return this.server(url[1]!, url[2]!, style, where);
    const colour = parseColour(text);
    if (colour) return colour;
    this.warnings.push({ code: 'colour', message: `${where}: “${text}” is not a colour; black is used.` });
    return { hex: '#000000', alpha: 1 };
  }

  private server(href: string, fallback: string, style: Inherited, where: string): Colour | null {
    const element = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    const kind = element?.name ?? '';
    if (element && /Gradient$/.test(kind)) {
      const colour = meanColour(this.stops(element, style));
      this.warnings.push({ code: 'gradient', message: `${where}: its gradient became the flat colour ${colour.hex}.` });
      return colour;
    }
    if (element && kind === 'pattern') {
      const colour = this.firstFill(element, style) ?? { hex: '#808080', alpha: 1 };
      this.warnings.push({ code: 'pattern', message: `${where}: its pattern became the flat colour ${colour.hex}.` });
      return colour;
    }
    if (fallback) return this.paint(fallback, style, where);
    this.warnings.push({
      code: 'colour',
      message: `${where}: its paint ${href} is not in the file; it is not filled.`,
    });
    return null;
  }

  private stops(gradient: XmlElement, style: Inherited, hops = 0): Stop[] {
    const own = gradient.children.filter((child) => child.name === 'stop');
    if (own.length === 0 && hops < 16) {
      const href = gradient.attributes.href ?? gradient.attributes['xlink:href'] ?? '';
      const next = this.byId.get(href.replace(/^#/, ''));
      return next ? this.stops(next, style, hops + 1) : [];
    }
    return own.map((stop) => {
      const declared = this.sheetRules.declared(stop);
      const named = declared.get('stop-color') ?? 'black';
      const colour = parseColour(named === 'currentColor' ? style.color : named) ?? { hex: '#000000', alpha: 1 };
      const offset = parseLength(declared.get('offset') ?? '0');
      return {
        offset: offset ? clamp01(lengthToPx(offset, 1)) : 0,
        colour: { hex: colour.hex, alpha: colour.alpha * clamp01(numberOr(declared.get('stop-opacity'), 1)) },
      };
    });
  }

  private firstFill(element: XmlElement, style: Inherited): Colour | null {
    for (const child of element.children) {
      const fill = this.sheetRules.declared(child).get('fill') ?? (SHAPE_NAMES.has(child.name) ? style.color : 'none');
      const colour = parseColour(fill) ?? this.firstFill(child, style);
      if (colour) return colour;
    }
    return null;
  }

  private leaveOut(what: string, where: string): void {
    const entry = this.leftOut.get(what);
    if (entry) entry.count++;
    else this.leftOut.set(what, { count: 1, where });
  }

  private nothing(leftOut: readonly LeftOut[]): GeometryError {
    const reasons = [
      ...leftOut.map(({ what, count }) => `${count} × ${what}`),
      ...this.warnings
        .filter(({ code }) => code === 'path-data' || code === 'out-of-range')
        .map(({ message }) => message),
    ];
    const why = reasons.length > 0 ? ` It holds: ${reasons.slice(0, 4).join('; ')}` : '';
    const stop = why.endsWith('.') || why === '' ? '' : '.';
    return new GeometryError(
      'nothing-to-build',
      `The drawing has no filled shape and no stroke to build from.${why}${stop}`,
    );
  }
}

function isAncestor(candidate: XmlElement, element: XmlElement): boolean {
  for (let above: XmlElement | null = element; above; above = above.parent) if (above === candidate) return true;
  return false;
}

/** A number or a percentage; `otherwise` when it is neither. */
function numberOr(text: string | undefined, otherwise: number): number {
  const length = parseLength(text ?? '');
  if (!length) return otherwise;
  return length.unit === '%' ? length.value / 100 : length.value;
}

const clamp01 = (v: number) => Math.min(1, Math.max(0, v));

function withinRange(path: Path): boolean {
  return path.every((segment) => {
    for (let i = 1; i < segment.length; i++) {
      if (!(Math.abs(segment[i] as number) <= SVG_LIMITS.coordinate)) return false;
    }
    return true;
  });
}
