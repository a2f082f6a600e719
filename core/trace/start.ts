// start.ts — how one begins with a picture: steps that prepare it and settings of the trace that suit what it is like.
import type { Warning } from '../base/errors.ts';
import { labDistance, labOf } from '../picture/colour.ts';
import { componentsOf } from '../picture/components.ts';
import { greyOf, histogramOf, isTransparent } from '../picture/grey.ts';
import { applyAction, type Step, type StepAction, unprepared } from '../picture/prepare.ts';
import { inkMap } from '../picture/steps/ink-map.ts';
import { otsu } from '../picture/steps/threshold.ts';
import type { Picture, Prepared } from '../picture/types.ts';
import { CRISP, type Look, lookAt, lookCloser, sizeFor } from './look.ts';
import { rgbOfShade } from './planes.ts';
import { TRACE_DEFAULTS, type TraceSettings } from './settings.ts';

export interface Start {
  /** What the picture is like as it came. */
  readonly look: Look;
  readonly prepare: Step[];
  /** What those steps leave of it. */
  readonly prepared: Prepared;
  readonly trace: TraceSettings;
  /** What was switched on by itself, and why. */
  readonly warnings: readonly Warning[];
}

/** Colours this near to the line between black and white are greys (OKLab). */
const GREYISH = 0.045;

/** Greys that part into two classes this well are a scan of ink on paper. */
const TWO_TONES = 0.85;

/** Divided out, the light leaves this many times as much that is flat for each colour. */
const FLATTER = 1.5;

export function startFor(picture: Picture): Start {
  const steps: Step[] = [];
  const warnings: Warning[] = [];
  let prepared: Prepared = unprepared(picture);
  const add = (action: StepAction, message: string) => {
    prepared = applyAction(prepared, action);
    steps.push({ id: `start-${action.do}`, on: true, action });
    warnings.push({ code: `start-${action.do}`, message });
  };
  const size = sizeFor(picture);
  if (size.factor < 1) {
    const { factor, edge } = size;
    const sides = [picture.width, picture.height].map((side) => Math.round(side * factor).toLocaleString('en'));
    const isSharp = factor >= CRISP / (edge ?? CRISP) - 0.01;
    const why = isSharp ? 'which its soft edges allow' : 'which takes seconds and not minutes';
    const message = `It is traced at ${sides.join(' × ')} px, ${why}; switch the step Resample off to trace every pixel.`;
    add({ do: 'resample', factor }, message);
  }
  const look = lookCloser(prepared.picture, size);
  let after = look;
  if (look.shading < 1) {
    const action: StepAction = { do: 'light', by: 'surface', window: windowFor(prepared.picture) };
    const lit = lookAt(applyAction(prepared, action).picture);
    // Light was what made it uneven when more of it is flat without it, in fewer colours.
    if (lit.flat * look.colours.length > FLATTER * look.flat * lit.colours.length) {
      const message = `Its light falls off to ${Math.round(100 * look.shading)} %: the step “Even out the light” divides that out.`;
      add(action, message);
      after = lit;
    }
  }
  const trace = settingsFor(prepared.picture, after);
  if (trace.mode === 'ink' && trace.ink === 'dark') {
    const speck = speckSize(prepared);
    if (speck !== null) {
      const message = `Specks of up to ${speck} px² are painted over by the step Despeckle.`;
      add({ do: 'specks', ink: speck, holes: speck }, message);
    }
  }
  const detail = detailFor(prepared.picture, after);
  return { look, prepare: steps, prepared, trace: { ...trace, detail: detail * prepared.frame.scale ** 2 }, warnings };
}

/** A window for shadows: wider than most strokes. */
export const windowFor = ({ width, height }: Pick<Picture, 'width' | 'height'>): number =>
  Math.max(16, Math.round(Math.max(width, height) / 12));

const labsOf = ({ colours }: Look) => colours.map((shade) => labOf(...rgbOfShade(shade)));

const isGrey = (look: Look): boolean => labsOf(look).every(([l, a, b]) => labDistance([l, a, b], [l, 0, 0]) < GREYISH);

/** Ink for two tones, tones for more greys than that, colours for the rest. */
export function settingsFor(picture: Picture, look = lookAt(picture)): TraceSettings {
  const isClear = isTransparent(picture);
  if (isClear && look.colours.length === 1) return { ...TRACE_DEFAULTS, ink: 'opaque' };
  if (!isGrey(look)) return { ...TRACE_DEFAULTS, mode: 'colours' };
  if (look.colours.length + Number(isClear) <= 2) return TRACE_DEFAULTS;
  const { separation } = otsu(histogramOf(greyOf(picture)));
  return { ...TRACE_DEFAULTS, mode: separation >= TWO_TONES ? 'ink' : 'tones' };
}

/** In pictures of more pixels than this, what grain leaves is small beside what is drawn: pieces of so many pixels for its variance. */
const [MANY_PIXELS, BY_VARIANCE] = [1_000_000, 1.5];

/** The smallest piece that is kept, square pixels of the prepared picture. */
function detailFor({ width, height }: Picture, { noise }: Look): number {
  const { detail } = TRACE_DEFAULTS;
  return width * height > MANY_PIXELS ? Math.max(detail, Math.round(BY_VARIANCE * noise ** 2)) : detail;
}

/** Fewer specks than this are drawn. */
const SPECKLED = 40;
/** Sizes of specks that are looked for, px², each the double of the one before. */
const SPECKS = [4, 8, 16, 32, 64] as const;
/** Beyond the size of specks hardly any part is as large again: so many at the most for each speck. */
const GAP = 0.04;

/** The size up to which parts of a scan are dirt, px²; null for a clean one. */
function speckSize(prepared: Prepared): number | null {
  const { width, height } = prepared.picture;
  const { areas } = componentsOf(inkMap(prepared), width, height, (label) => label === 1);
  const count = (from: number, to: number) => areas.reduce((n, area) => n + Number(area > from && area <= to), 0);
  const found = SPECKS.find((size) => {
    const small = count(0, size);
    return small >= SPECKLED && count(size, 2 * size) <= GAP * small;
  });
  return found ?? null;
}
