// pictures.ts — pictures as bitmaps for the page: prepared, parted at a level, beside their outlines.
import * as Comlink from 'comlink';
import {
  adviceFor,
  differenceOf,
  drawnArea,
  greyOf,
  histogramOf,
  type Look,
  otsu,
  type Picture,
  type PictureOn,
  type PictureSource,
  type Prepared,
  type Project,
  UNDERLAY,
} from '../../../core/index.ts';
import { attempt, type Outcome } from '../outcome.ts';
import { reader } from './reader.ts';
import { evaluator, switchedOff } from './state.ts';

export interface PictureView {
  /** As large as it is shown. */
  readonly bitmap: ImageBitmap;
  /** Every pixel, where `bitmap` has fewer. */
  readonly fine: ImageBitmap | null;
  /** In pixels of the prepared picture. */
  readonly width: number;
  readonly height: number;
  readonly frame: Prepared['frame'];
  /** Where a threshold parts it; null shows it as it is. */
  readonly level: number | null;
  /** Pixels of each of 256 greys, dark first. */
  readonly histogram: Uint32Array;
  /** The level that fits the histogram. */
  readonly automatic: number;
}

export interface DifferenceView {
  readonly bitmap: ImageBitmap;
  readonly width: number;
  readonly height: number;
  readonly frame: PictureView['frame'];
  /** Pixels that the outlines miss, and that they add; and all that either takes as drawn. */
  readonly missing: number;
  readonly added: number;
  readonly drawn: number;
}

/** {@link Look}, to be said. */
export interface PictureLook extends Pick<Look, 'noise' | 'edge' | 'hasBlocks' | 'shading'> {
  readonly colours: number;
  readonly advice: string | null;
}

/** Longest side of a picture as it is drawn on the page. */
const SHOWN = 2048;

/** Colours of the difference view: what the outlines miss, and what they add. */
const MISSING = [196, 60, 36, 255] as const;
const ADDED = [24, 120, 150, 255] as const;

export const pictures = {
  /** A picture as it came, to lie on the side of a solid. */
  async sidePicture({ asset, name }: PictureOn): Promise<Outcome<{ readonly bitmap: ImageBitmap }>> {
    const outcome = await attempt(async () => {
      const { data, width, height } = await evaluator.openPicture({ asset, name }, reader);
      return { bitmap: await createImageBitmap(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height)) };
    });
    return outcome.ok ? Comlink.transfer(outcome, [outcome.value.bitmap]) : outcome;
  },

  /** A picture as the steps up to `upTo` leave it, or as it came, to be drawn. */
  async pictureView(source: PictureSource, upTo: number): Promise<Outcome<PictureView>> {
    const outcome = await attempt(async () => {
      await evaluator.openPicture(source, reader);
      const { picture, frame, level } = evaluator.prepared({ ...source, prepare: source.prepare.slice(0, upTo) });
      const pixels = level === null ? picture.data : twoTones(picture, level);
      const { width, height } = picture;
      const whole = new ImageData(pixels as Uint8ClampedArray<ArrayBuffer>, width, height);
      const share = Math.min(1, SHOWN / Math.max(width, height));
      // Drawing tens of millions of pixels would hold the page up.
      const smaller = { resizeWidth: Math.ceil(share * width), resizeHeight: Math.ceil(share * height) };
      const bitmap = await createImageBitmap(whole, share < 1 ? { ...smaller, resizeQuality: 'high' } : {});
      const fine = share < 1 ? await createImageBitmap(whole) : null;
      const histogram = histogramOf(greyOf(picture, source.trace.ink));
      return { bitmap, fine, width, height, frame, level, histogram, automatic: otsu(histogram).level };
    });
    if (!outcome.ok) return outcome;
    const { bitmap, fine } = outcome.value;
    return Comlink.transfer(outcome, fine ? [bitmap, fine] : [bitmap]);
  },

  /** What a picture is like as it came. */
  pictureLook(source: PictureSource): Promise<Outcome<PictureLook>> {
    return attempt(async () => {
      await evaluator.openPicture(source, reader);
      const look = evaluator.look(source);
      const { noise, edge, hasBlocks, colours, shading } = look;
      return { noise, edge, hasBlocks, colours: colours.length, shading, advice: adviceFor(look) };
    });
  },

  /** The box round what is drawn in the picture after its first steps, as shares of it; null where nothing is. */
  drawnArea(source: PictureSource, upTo: number): Promise<Outcome<ReturnType<typeof drawnArea>>> {
    return attempt(async () => {
      await evaluator.openPicture(source, reader);
      return drawnArea(evaluator.prepared({ ...source, prepare: source.prepare.slice(0, upTo) }).picture);
    });
  },

  /** Where the prepared picture and the pieces that are kept, or shapes drawn by hand alone, disagree. */
  async difference(
    project: Project,
    source: PictureSource,
    only: readonly string[] | null,
  ): Promise<Outcome<DifferenceView>> {
    const outcome = await attempt(async () => {
      await evaluator.openPicture(source, reader);
      const prepared = evaluator.prepared(source);
      const skipped = switchedOff(project, source);
      const wanted = only && new Set(only);
      const kept = evaluator.drawing(source).shapes.filter(({ id }) => wanted?.has(id) ?? !skipped.has(id));
      const { width, height, map, missing, added, drawn } = differenceOf(
        prepared,
        kept,
        source.trace,
        only !== null || source.trace.mode === UNDERLAY,
      );
      const pixels = new Uint8ClampedArray(4 * map.length);
      for (const [i, what] of map.entries()) if (what > 0) pixels.set(what === 1 ? MISSING : ADDED, 4 * i);
      const bitmap = await createImageBitmap(new ImageData(pixels, width, height));
      return { bitmap, width, height, frame: prepared.frame, missing, added, drawn };
    });
    return outcome.ok ? Comlink.transfer(outcome, [outcome.value.bitmap]) : outcome;
  },
};

/** Black for ink, white for paper, as the threshold parts them. */
function twoTones(picture: Picture, level: number): Uint8ClampedArray {
  const { values } = greyOf(picture);
  const pixels = new Uint8ClampedArray(picture.data.length).fill(255);
  for (let i = 0; i < values.length; i++) if (values[i]! < level) pixels.fill(0, 4 * i, 4 * i + 3);
  return pixels;
}
