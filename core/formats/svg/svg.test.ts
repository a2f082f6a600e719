// SVG semantics, clause by clause. Numbers are those of the specifications named beside them.
import { describe, expect, it } from 'vitest';
import type { Drawing, Shape, Stroke } from '../../drawing.ts';
import { movedShape } from '../../outline/cover.ts';
import { boundsOf, regionsArea } from '../../outline/measure.ts';
import { regionsOf } from '../../outline/regions.ts';
import { flatten } from '../../path/flatten.ts';
import type { Path } from '../../path/types.ts';
import { meanColour, parseColour } from './paint.ts';
import { readSvg } from './read.ts';
import { fitViewBox, parseTransform, parseViewBox } from './transform.ts';
import { writeSvg } from './write.ts';

const svg = (body: string, attributes = 'viewBox="0 0 100 100"'): Drawing =>
  readSvg(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`,
  );

const only = (body: string, attributes?: string): Shape => {
  const { shapes } = svg(body, attributes);
  expect(shapes).toHaveLength(1);
  return shapes[0]!;
};
const box = (shape: Shape) => {
  const { minX, minY, maxX, maxY } = boundsOf(flatten(shape.path, 0.001))!;
  return [minX, minY, maxX, maxY].map((v) => Math.round(v * 1e4) / 1e4);
};
const area = ({ path, fillRule }: Shape) => regionsArea(regionsOf(flatten(path, 0.001), fillRule));
const colourOf = (body: string) => only(body).colour;
const RECT = '<rect width="10" height="10"';

describe('basic shapes (SVG 2 ch. 10)', () => {
  it('draws rectangles with radii, clamped to half the sides', () => {
    expect(area(only('<rect x="1" y="2" width="30" height="20"/>'))).toBeCloseTo(600, 3);
    // Four quarter ellipses replace the corners: area − (4 − π)·rx·ry.
    expect(area(only('<rect width="30" height="20" rx="4" ry="3"/>'))).toBeCloseTo(600 - (4 - Math.PI) * 12, 1);
    expect(area(only('<rect width="30" height="20" rx="4"/>'))).toBeCloseTo(600 - (4 - Math.PI) * 16, 1);
    expect(area(only('<rect width="30" height="20" rx="99" ry="99"/>'))).toBeCloseTo(Math.PI * 15 * 10, 0);
  });

  it('draws circles and ellipses', () => {
    expect(area(only('<circle cx="50" cy="50" r="20"/>'))).toBeCloseTo(Math.PI * 400, -0.5);
    expect(box(only('<ellipse cx="50" cy="40" rx="20" ry="10"/>'))).toEqual([30, 30, 70, 50]);
  });

  it('closes polygons and fills polylines as if closed', () => {
    expect(area(only('<polygon points="0,0 10,0 10,10"/>'))).toBeCloseTo(50, 4);
    expect(area(only('<polyline points="0 0,10 0 10 10"/>'))).toBeCloseTo(50, 4);
  });

  it('draws nothing for sizes of zero, and lines have nothing to fill', () => {
    expect(() => svg('<rect width="0" height="5"/><circle r="-1"/><line x2="9" y2="9"/><text>Hi</text>')).toThrow(
      /no filled shape and no stroke.*1 × text/,
    );
  });

  it('takes percentages of the viewBox (SVG 2 §8.9)', () => {
    expect(box(only('<rect x="10%" y="10%" width="50%" height="20%"/>', 'viewBox="0 0 200 100"'))).toEqual([
      20, 10, 120, 30,
    ]);
  });
});

describe('transforms (CSS Transforms 1)', () => {
  const move = (text: string, x: number, y: number) => {
    const [a, b, c, d, e, f] = parseTransform(text)!;
    return [a * x + c * y + e, b * x + d * y + f].map((v) => Math.round(v * 1e6) / 1e6 + 0);
  };
  it.each([
    ['translate(3)', [4, 1]],
    ['translate(3 4)', [4, 5]],
    ['scale(2)', [2, 2]],
    ['scale(2,-1)', [2, -1]],
    ['rotate(90)', [-1, 1]],
    ['rotate(90, 1, 0)', [0, 0]],
    ['skewX(45)', [2, 1]],
    ['skewY(45)', [1, 2]],
    ['matrix(1 2 3 4 5 6)', [9, 12]],
    ['translate(10,0) scale(2)', [12, 2]],
    ['translate(1-2)scale(.5.25)', [1.5, -1.75]],
    ['rotate(.25turn)', [-1, 1]],
  ])('%s', (text, expected) => expect(move(text, 1, 1)).toEqual(expected));

  it('is none for a list that cannot be read', () => {
    expect(parseTransform('scale(2')).toBeNull();
    expect(parseTransform('wobble(2)')).toBeNull();
    expect(svg(`${RECT} transform="wobble(2)"/>`).warnings[0]).toMatchObject({ code: 'transform' });
  });

  it('applies groups from the outside in', () => {
    const shape = only(`<g transform="translate(10 20)"><g transform="scale(2)">${RECT} x="1" y="1"/></g></g>`);
    expect(box(shape)).toEqual([12, 22, 32, 42]);
  });
});

describe('viewBox and physical size (SVG 2 §8.2, §8.12)', () => {
  it.each([
    ['xMidYMid meet', [50, 0, 150, 100]],
    ['xMinYMin meet', [0, 0, 100, 100]],
    ['xMaxYMax meet', [100, 0, 200, 100]],
    ['xMidYMid slice', [0, -50, 200, 150]],
    ['xMinYMin slice', [0, 0, 200, 200]],
    ['none', [0, 0, 200, 100]],
  ])('fits with %s', (align, expected) => {
    const shape = only(
      '<rect width="10" height="10"/>',
      `width="200" height="100" viewBox="0 0 10 10" preserveAspectRatio="${align}"`,
    );
    expect(box(shape)).toEqual(expected);
  });

  it('knows the real size where a unit says it', () => {
    expect(
      svg(`${RECT}/>`, 'width="50mm" height="50mm" viewBox="0 0 100 100"').mmPerUnit! * 50 * (96 / 25.4),
    ).toBeCloseTo(50, 9);
    expect(svg(`${RECT}/>`, 'width="2in" viewBox="0 0 100 100"').sheet.width).toBe(192);
    expect(svg(`${RECT}/>`, 'width="200" height="200"').mmPerUnit).toBeNull();
    expect(svg(`${RECT}/>`).mmPerUnit).toBeNull();
  });

  it('reads viewBox with any separators and refuses nonsense', () => {
    expect(parseViewBox('0,0 10-5')).toBeNull();
    expect(parseViewBox('-5 -5,10 20')).toEqual({ x: -5, y: -5, width: 10, height: 20 });
    expect(fitViewBox({ x: -5, y: 0, width: 10, height: 10 }, { x: 0, y: 0, width: 20, height: 20 })).toEqual([
      2, 0, 0, 2, 10, 0,
    ]);
  });

  it('nests viewports', () => {
    const shape = only(
      '<svg x="10" y="10" width="20" height="20" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>',
    );
    expect(box(shape)).toEqual([10, 10, 30, 30]);
  });
});

describe('styling', () => {
  it('cascades: attribute < rule by specificity < style < important (CSS Cascade 4 §6)', () => {
    const sheet = '<style>rect{fill:#000002}.a{fill:#000003}#i{fill:#000004}</style>';
    expect(colourOf(`${sheet}${RECT} fill="#000001"/>`)).toBe('#000002');
    expect(colourOf(`${sheet}${RECT} class="b a"/>`)).toBe('#000003');
    expect(colourOf(`${sheet}${RECT} class="a" id="i"/>`)).toBe('#000004');
    expect(colourOf(`${sheet}${RECT} id="i" style="fill:#000005"/>`)).toBe('#000005');
    expect(colourOf(`<style>.a{fill:#000006!important}</style>${RECT} class="a" style="fill:#000005"/>`)).toBe(
      '#000006',
    );
    expect(colourOf(`<style>.a{fill:#000007}.a{fill:#000008}</style>${RECT} class="a"/>`)).toBe('#000008');
  });

  it('understands descendants, children, lists and CDATA', () => {
    const sheet = '<style><![CDATA[g .a, g > circle {fill: rgb(1 2 3)} svg > .a {fill: lime}]]></style>';
    expect(colourOf(`${sheet}<g><g>${RECT} class="a"/></g></g>`)).toBe('#010203');
    expect(colourOf(`${sheet}${RECT} class="a"/>`)).toBe('#00ff00');
  });

  it('applies rules of media that are screens, and no others', () => {
    const media =
      '<style>@media screen{.a{fill:#000001}} @media print{.a{fill:#000002}} @media (min-width: 9px){.a{fill:red}}</style>';
    expect(colourOf(`${media}${RECT} class="a"/>`)).toBe('#000001');
  });

  it('names rules it does not understand', () => {
    const { warnings } = svg(`<style>rect:hover{fill:red}</style>${RECT}/>`);
    expect(warnings[0]!.message).toContain('rect:hover');
  });

  it('inherits through groups, and currentColor from color', () => {
    expect(colourOf(`<g fill="teal">${RECT}/></g>`)).toBe('#008080');
    expect(colourOf(`<g color="teal"><g fill="currentColor">${RECT}/></g></g>`)).toBe('#008080');
    expect(colourOf(`<g fill="teal">${RECT} fill="inherit"/></g>`)).toBe('#008080');
    expect(colourOf(`<g fill="teal">${RECT} fill="initial"/></g>`)).toBe('#000000');
  });

  it('reads fill-rule, display, visibility and opacity', () => {
    const rings = '<path d="M0 0h10v10h-10zM2 2h6v6h-6z"';
    expect(area(only(`${rings}/>`))).toBeCloseTo(100, 3);
    expect(area(only(`${rings} fill-rule="evenodd"/>`))).toBeCloseTo(64, 3);
    expect(svg(`${RECT}/>${RECT} display="none"/><g display="none">${RECT}/></g>`).shapes).toHaveLength(1);
    expect(svg(`${RECT}/><g visibility="hidden">${RECT}/>${RECT} visibility="visible"/></g>`).shapes).toHaveLength(2);
    expect(only(`<g opacity=".5">${RECT} fill-opacity="50%" fill="#ff000080"/></g>`).opacity).toBeCloseTo(0.125, 2);
    expect(svg(`${RECT}/>${RECT} opacity="0"/>${RECT} fill="none"/>${RECT} fill="transparent"/>`).shapes).toHaveLength(
      1,
    );
  });
});

describe('colours (CSS Color 4, values from its text and examples)', () => {
  it.each([
    ['red', '#ff0000', 1],
    ['RebeccaPurple', '#663399', 1],
    ['#0f8', '#00ff88', 1],
    ['#0f8c', '#00ff88', 0.8],
    ['rgb(51, 170, 51)', '#33aa33', 1],
    ['rgb(20% 66.667% 20% / 50%)', '#33aa33', 0.5],
    ['rgba(51,170,51,.4)', '#33aa33', 0.4],
    ['hsl(120deg 100% 25%)', '#008000', 1],
    ['hsla(0, 100%, 50%, 25%)', '#ff0000', 0.25],
    ['hwb(150 20% 10%)', '#33e68c', 1],
    ['oklch(0.62796 0.25768 29.234)', '#ff0000', 1],
    ['lab(46.2775 -47.5621 48.5837)', '#008000', 1],
    ['color(srgb 1 0.5 0)', '#ff8000', 1],
  ])('%s', (text, hex, alpha) => {
    expect(parseColour(text)!.hex).toBe(hex);
    expect(parseColour(text)!.alpha).toBeCloseTo(alpha, 2);
  });

  it('is not a colour, said and painted black', () => {
    expect(parseColour('blurple')).toBeNull();
    const drawing = svg(`${RECT} fill="blurple"/>`);
    expect(drawing.shapes[0]!.colour).toBe('#000000');
    expect(drawing.warnings[0]!.message).toContain('“blurple” is not a colour');
  });

  it('flattens gradients to their mean and patterns to their first fill, with a warning', () => {
    const gradient =
      '<linearGradient id="g"><stop stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient>';
    const drawing = svg(
      `<defs>${gradient}<radialGradient id="h" href="#g"/></defs>${RECT} fill="url(#g)"/>${RECT} fill="url('#h')"/>`,
    );
    expect(drawing.shapes.map(({ colour }) => colour)).toEqual(['#808080', '#808080']);
    expect(drawing.warnings.map(({ code }) => code)).toEqual(['gradient', 'gradient']);
    expect(colourOf(`<pattern id="p"><circle r="1" fill="teal"/></pattern>${RECT} fill="url(#p)"/>`)).toBe('#008080');
    expect(colourOf(`${RECT} fill="url(#none) olive"/>`)).toBe('#808000');
    const even = (offset: number, hex: string) => ({ offset, colour: { hex, alpha: 1 } });
    expect(meanColour([even(0.75, '#000000'), even(0.75, '#ffffff')]).hex).toBe('#404040');
  });
});

describe('use, defs, symbol, switch (SVG 2 ch. 5)', () => {
  it('places what is used, with styles from the use', () => {
    const drawing = svg(
      `<defs>${RECT} id="r"/></defs><use href="#r" x="20" fill="teal"/><use xlink:href="#r" y="5" transform="scale(2)"/>`,
    );
    expect(drawing.shapes.map(box)).toEqual([
      [20, 0, 30, 10],
      [0, 10, 20, 30],
    ]);
    expect(drawing.shapes.map(({ colour }) => colour)).toEqual(['#008080', '#000000']);
    expect(new Set(drawing.shapes.map(({ id }) => id)).size).toBe(2);
  });

  it('fits symbols into the size of their use', () => {
    const shape = only(
      `<symbol id="s" viewBox="0 0 10 10">${RECT}/></symbol><use href="#s" x="10" width="40" height="40"/>`,
    );
    expect(box(shape)).toEqual([10, 0, 50, 40]);
  });

  it('refuses a use inside itself, named in what was left out', () => {
    const { leftOut, shapes } = svg(`${RECT}/><g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>`);
    expect(shapes).toHaveLength(1);
    expect(leftOut.map(({ what }) => what)).toEqual(['use that contains itself']);
  });

  it('stops a cascade of uses that would grow without end', () => {
    let body = `<g id="u0">${RECT}/></g>`;
    for (let k = 1; k < 30; k++) body += `<g id="u${k}"><use href="#u${k - 1}"/><use href="#u${k - 1}"/></g>`;
    expect(() => svg(body)).toThrow(/repeats parts more than/);
  });

  it('shows the first child of a switch that it can', () => {
    expect(svg(`<switch><foreignObject/>${RECT}/><circle r="5"/></switch>`).shapes).toHaveLength(1);
  });
});

describe('strokes (SVG 2 §13.5)', () => {
  it('are shapes of their own, above the fill of their element', () => {
    const { shapes } = svg(`${RECT} id="r" fill="red" stroke="blue" stroke-width="2"/>`);
    expect(shapes.map(({ id, colour, stroke }) => [id, colour, stroke?.width])).toEqual([
      ['#r', '#ff0000', undefined],
      ['#r|stroke', '#0000ff', 2],
    ]);
    const under = svg(`${RECT} fill="red" stroke="blue" paint-order="stroke"/>`).shapes;
    expect(under.map(({ colour }) => colour)).toEqual(['#0000ff', '#ff0000']);
  });

  it('start as 1 wide, mitred up to 4 widths, with butt caps', () => {
    const { stroke } = only('<line x2="9" y2="9" stroke="red"/>');
    expect(stroke).toEqual({ width: 1, join: 'mitre', cap: 'butt', mitreLimit: 4, dashes: [], dashOffset: 0 });
  });

  it('take their style from attributes, groups and style sheets, and grow with the transform', () => {
    const shape = only(
      `<style>.w{stroke-width:3}</style><g stroke="#0a0" stroke-linejoin="round" stroke-dasharray="4 2" transform="scale(2)">
      <path class="w" fill="none" d="M0 0h9" stroke-linecap="square" stroke-dashoffset="1"/></g>`,
    );
    expect(shape.colour).toBe('#00aa00');
    expect(shape.stroke).toEqual({
      width: 6,
      join: 'round',
      cap: 'square',
      mitreLimit: 4,
      dashes: [8, 4],
      dashOffset: 2,
    });
  });

  it('keep their width where they do not scale, and say so where they are stretched', () => {
    const fixed = only(
      '<path fill="none" stroke="red" d="M0 0h9" transform="scale(3)" vector-effect="non-scaling-stroke"/>',
    );
    expect(fixed.stroke!.width).toBe(1);
    const { shapes, warnings } = svg('<path fill="none" stroke="red" d="M0 0h9" transform="scale(4 1)"/>');
    expect(shapes[0]!.stroke!.width).toBe(2);
    expect(warnings.map(({ code }) => code)).toEqual(['stroke']);
  });

  it('are measured in percentages of the viewport’s diagonal', () => {
    expect(only('<line x2="9" stroke="red" stroke-width="10%"/>').stroke!.width).toBeCloseTo(10, 10);
  });
});

describe('a drawing written and read again', () => {
  it('is the same to a millionth, with names, strokes, opacity and size', () => {
    const body = `<path id="a" fill="#123456" fill-rule="evenodd" fill-opacity="0.5" d="M0.1234567 2C3 4 5.55555 6.66666 7 1.0000004Z"/>
      <path id="b" fill="none" stroke="#abcdef" stroke-width="1.25" stroke-linejoin="round" stroke-dasharray="3 1.5" stroke-dashoffset="0.5" d="M1 1L9 9"/>`;
    const drawing = svg(body, 'width="50mm" height="50mm" viewBox="0 0 100 100"');
    const groups = [{ name: 'First & last', shapes: drawing.shapes }];
    const again = readSvg(writeSvg({ ...drawing, groups }));
    expect(again.mmPerUnit).toBeCloseTo(drawing.mmPerUnit!, 9);
    const scale = drawing.sheet.width / again.sheet.width;
    for (const [i, shape] of drawing.shapes.entries()) {
      const { path, colour, opacity, fillRule, stroke } = movedShape(again.shapes[i]!, [scale, 0, 0, scale, 0, 0]);
      expect([colour, opacity]).toEqual([shape.colour, shape.opacity]);
      const sizes = ({ width, dashes, dashOffset }: Stroke) => [width, ...dashes, dashOffset];
      for (const [k, v] of (shape.stroke ? sizes(shape.stroke) : []).entries()) {
        expect(sizes(stroke!)[k]).toBeCloseTo(v, 6);
      }
      expect([stroke?.cap, stroke?.join]).toEqual([shape.stroke?.cap, shape.stroke?.join]);
      if (!stroke) expect(fillRule).toBe(shape.fillRule);
      const numbers = (p: Path) => p.flatMap((s) => s.slice(1) as number[]);
      for (const [k, v] of numbers(shape.path).entries()) expect(numbers(path)[k]).toBeCloseTo(v, 6);
    }
    expect(again.shapes[0]!.group).toBe('First-&-last');
  });
});

describe('what is left out', () => {
  it('is named with its number and place', () => {
    const { leftOut } = svg(
      `${RECT}/><line x2="9" y2="9" stroke="red" marker-end="url(#m)"/><text id="t">Hi</text><image href="x.png"/><g filter="url(#f)" mask="url(#m)">${RECT} clip-path="url(#c)"/></g><use href="other.svg#x"/>`,
    );
    expect(Object.fromEntries(leftOut.map(({ what, count }) => [what, count]))).toEqual({
      marker: 1,
      text: 1,
      image: 1,
      filter: 1,
      'mask (shape kept whole)': 1,
      'clip path (shape kept whole)': 1,
      'external reference': 1,
    });
    expect(leftOut.find(({ what }) => what === 'text')!.where).toBe('#t');
  });

  it('keeps ids stable when something else is added', () => {
    const before = svg(`<g id="a">${RECT}/><circle r="5"/></g>`).shapes.map(({ id }) => id);
    const after = svg(`<circle r="9"/><g id="a">${RECT}/><circle r="5"/></g>`).shapes.map(({ id }) => id);
    expect(after).toEqual(expect.arrayContaining(before));
    expect(new Set(after).size).toBe(3);
  });
});

describe('bad and hostile files', () => {
  it.each([
    ['', /empty/],
    ['   \n', /empty/],
    ['GIF89a', /does not begin with/],
    ['{"a":1}', /does not begin with/],
    ['<html><body/></html>', /outermost element is <html>/],
    ['<svg><g></svg>', /line 1, column \d+.*unexpected close tag|line 1, column/],
    ['<svg', /well-formed/],
    ['<svg xmlns="http://www.w3.org/2000/svg"/>', /no filled shape/],
    ['<svg><path d="M0 0"/></svg>', /no filled shape/],
    ['<svg><path d="nonsense"/></svg>', /no filled shape.*stops being readable at character 1/],
  ])('%j fails with one clear sentence', (text, message) => expect(() => readSvg(text)).toThrow(message));

  it('leaves out shapes with NaN, infinite and enormous coordinates, and says which', () => {
    for (const d of ['M0 0L1e308 1e308L5 5Z', 'M0 0L1e999 0L5 5Z', 'M0 0h1e10v5z']) {
      const { shapes, warnings } = svg(`${RECT}/><path id="far" d="${d}"/>`);
      expect(shapes).toHaveLength(1);
      expect(warnings[0]!.message).toMatch(/^#far: .*left out/);
    }
    const { warnings } = svg(`${RECT}/><path id="nan" d="M0 0L5 5NaN 3z"/>`);
    expect(warnings[0]!.message).toMatch(/#nan.*stops being readable/);
    expect(svg(`${RECT}/>${RECT} transform="scale(1e300)"/>`).shapes).toHaveLength(1);
  });

  it('expands no entities', () => {
    let declarations = '<!ENTITY e0 "ha">';
    for (let k = 1; k < 30; k++) declarations += `<!ENTITY e${k} "&e${k - 1};&e${k - 1};">`;
    const { warnings } = readSvg(`<!DOCTYPE svg [${declarations}]><svg><title>&e29;</title>${RECT}/></svg>`);
    expect(warnings[0]).toMatchObject({ code: 'entities' });
  });

  it('runs no scripts and follows no references', () => {
    const { shapes } = svg(`<script>throw 1</script>${RECT} onload="x()"/>`);
    expect(shapes).toHaveLength(1);
  });

  it('gives up on 50 MB of path before reading it', () => {
    const started = performance.now();
    expect(() => svg(`<path d="M0 0${'L1 1'.repeat(13_000_000)}"/>`)).toThrow(/50 MB of drawing; 24 MB is the most/);
    expect(performance.now() - started).toBeLessThan(2000);
  });

  it('stops at a million path pieces, at deep nesting and at crowds of elements', () => {
    expect(() => svg(`<path d="M0 0${'h1'.repeat(1_000_001)}"/>`)).toThrow(/more than 1000000 path pieces/);
    expect(() => svg('<g>'.repeat(600))).toThrow(/nested deeper than 512/);
    expect(() => svg('<g/>'.repeat(250_001))).toThrow(/more than 250000 elements/);
  });
});
