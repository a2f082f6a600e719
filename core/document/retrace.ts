// retrace.ts — a picture traced again with other settings or from a better scan: layers and their recipes stay with the pieces they
// were made for.
import type { Warning } from '../base/errors.ts';
import { boundsOf, longestSide } from '../outline/measure.ts';
import type { Bounds } from '../outline/types.ts';
import { labDistance, labOf, rgbOfHex } from '../picture/colour.ts';
import type { PictureSource } from '../sources/picture/picture.ts';
import { type Named, named, type PieceMark } from '../sources/picture/pieces.ts';
import { UNDERLAY } from '../trace/settings.ts';
import type { Traced } from '../trace/trace.ts';
import { arrangeLayers, type LayerWishes } from './arrive.ts';
import type { Layer, Project } from './schema.ts';

export interface Retraced {
  readonly source: PictureSource;
  /** Those that changed and those that are new. */
  readonly layers: readonly Layer[];
  /** Ids of those that nothing is left of. */
  readonly gone: readonly string[];
  readonly warnings: readonly Warning[];
}

/** New pieces join a layer of their source whose colour is this near. */
const SAME_COLOUR = 0.09;

/**
 * @param source with its new settings or file, and the pieces as they were known
 * @param traced what that gives
 * @param options for layers that have to be made
 */
export function retrace(project: Project, source: PictureSource, traced: Traced, options: LayerWishes): Retraced {
  const before = project.sources.find((known) => known.id === source.id) as PictureSource;
  // A scan of another size lies where the old one lay.
  const ratio = Math.max(before.width, before.height) / Math.max(source.width, source.height);
  const own = project.layers.filter((layer) => layer.source === source.id);
  const lies = {
    ...source,
    scale: source.scale * ratio,
    origin: [source.origin[0] / ratio, source.origin[1] / ratio] as [number, number],
  };
  if (source.trace.mode === UNDERLAY) return underlay(lies, before, own);
  const fit = named(traced.drawing, before.pieces, ratio);
  const held = new Set(own.flatMap((layer) => layer.members));
  const placed: PictureSource = {
    ...lies,
    pieces: [
      ...fit.pieces,
      ...before.pieces.filter(({ id }) => fit.lost.includes(id) && held.has(id)).map(goneAt(1 / ratio)),
    ],
  };
  const layers = regrouped(own, before, fit);
  const homeless = homelessPieces(layers, fit);
  const all = [...layers, ...newLayers(homeless, fit, source.id, options)];
  return {
    source: { ...placed, ...promisedPlacement(before, own, placed, all, options) },
    layers: all.filter((layer, i) => layer !== own[i]),
    gone: [],
    warnings: traced.drawing.warnings,
  };
}

/** A picture that is not traced any more: its pieces go, and the layers that hold nothing else. */
function underlay(source: PictureSource, { pieces }: PictureSource, own: readonly Layer[]): Retraced {
  const traced = new Set(pieces.map(({ id }) => id));
  const without = (ids: readonly string[]) => ids.filter((id) => !traced.has(id));
  const isLeft = ({ members }: Layer) => members.some((id) => !traced.has(id));
  return {
    source: { ...source, pieces: [] },
    layers: own
      .filter(isLeft)
      .map((layer) => ({ ...layer, members: without(layer.members), skipped: without(layer.skipped) })),
    gone: own.filter((layer) => !isLeft(layer)).map(({ id }) => id),
    warnings: [],
  };
}

/** Boxes of pieces are kept in thousandths of pixels. */
const BOX_STEP = 0.001;

/**
 * What is built still has the size that it was given when it was brought in, and lies in the middle: a speck that goes would
 * leave the mark beside it smaller than was promised. One that has another size by now, is cut otherwise or edited stays put.
 */
function promisedPlacement(
  before: PictureSource,
  own: readonly Layer[],
  after: PictureSource,
  layers: readonly Layer[],
  { size, fallbackSize }: LayerWishes,
): Pick<PictureSource, 'scale' | 'origin'> {
  const { scale, origin } = after;
  const promised = size ?? fallbackSize;
  const stays = { scale, origin };
  if (promised === undefined || after.edits.length > 0 || cropsOf(before) !== cropsOf(after)) return stays;
  const [was, is] = [builtBox(before, own), builtBox(after, layers)];
  if (!was || !is) return stays;
  const isPromised = Math.abs(longestSide(was) * before.scale - promised) <= 4 * BOX_STEP * before.scale;
  if (!isPromised || Math.abs(longestSide(is) * scale - promised) <= 4 * BOX_STEP * scale) return stays;
  return {
    scale: promised / longestSide(is),
    origin: [(is.minX + is.maxX) / 2, (is.minY + is.maxY) / 2],
  };
}

const cropsOf = ({ prepare }: PictureSource): string =>
  JSON.stringify(prepare.flatMap(({ on, action }) => (on && action.do === 'crop' ? [action] : [])));

/** Round all pieces that are built. */
function builtBox({ pieces }: PictureSource, layers: readonly Layer[]): Bounds | null {
  const built = new Set(
    layers.flatMap(({ shown, members, skipped }) => (shown ? members.filter((id) => !skipped.includes(id)) : [])),
  );
  return boundsOf(pieces.flatMap(({ id, box, gone }) => (built.has(id) && !gone ? [Float64Array.from(box)] : [])));
}

const goneAt =
  (factor: number) =>
  ({ area, box, ...mark }: PieceMark): PieceMark => ({
    ...mark,
    gone: true,
    area: area * factor * factor,
    box: box.map((v) => v * factor) as PieceMark['box'],
  });

/** The layers with the pieces they hold now; what they have lost stays among their members, and is shown as stranded. */
function regrouped(own: readonly Layer[], before: PictureSource, { pieces }: Named): Layer[] {
  const colourBefore = new Map(before.pieces.map(({ id, colour }) => [id, colour]));
  const colourNow = new Map(pieces.map(({ id, colour }) => [id, colour]));
  const members = new Map(own.map((layer) => [layer.id, [...layer.members]]));
  const held = new Set(own.flatMap((layer) => layer.members));
  const home = (colour: string) => {
    let [best, least] = [null as Layer | null, SAME_COLOUR];
    for (const layer of own) {
      const shades = layer.members.flatMap((id) => colourNow.get(id) ?? colourBefore.get(id) ?? []);
      for (const shade of new Set(shades)) {
        const distance = labDistance(labOf(...rgbOfHex(shade)), labOf(...rgbOfHex(colour)));
        if (distance < least) [best, least] = [layer, distance];
      }
    }
    return best;
  };
  for (const { id, colour } of pieces) if (!held.has(id)) members.get(home(colour)?.id ?? '')?.push(id);
  return own.map((layer) => {
    const now = members.get(layer.id)!;
    const first = layer.members.find((id) => colourNow.has(id));
    const [was, is] = first ? [colourBefore.get(first), colourNow.get(first)!] : [undefined, layer.material.colour];
    // A colour that was taken over from the picture goes with it, one that was chosen stays.
    const colour = layer.material.colour === was ? is : layer.material.colour;
    if (now.length === layer.members.length && colour === layer.material.colour) return layer;
    return { ...layer, members: now, material: { ...layer.material, colour } };
  });
}

function homelessPieces(layers: readonly Layer[], { pieces }: Named): Set<string> {
  const held = new Set(layers.flatMap((layer) => layer.members));
  return new Set(pieces.flatMap(({ id }) => (held.has(id) ? [] : [id])));
}

function newLayers(homeless: ReadonlySet<string>, { drawing }: Named, sourceId: string, options: LayerWishes): Layer[] {
  if (homeless.size === 0) return [];
  return arrangeLayers(drawing, sourceId, options).layers.flatMap((layer) => {
    const members = layer.members.filter((id) => homeless.has(id));
    return members.length > 0 ? [{ ...layer, members }] : [];
  });
}
