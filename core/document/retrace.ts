// retrace.ts — a picture traced again with other settings or from a better scan: layers and their recipes stay with the pieces they
// were made for.
import type { Warning } from '../base/errors.ts';
import { labDistance, labOf, rgbOfHex } from '../picture/colour.ts';
import type { PictureSource } from '../sources/picture/picture.ts';
import { type Named, named, type PieceMark } from '../sources/picture/pieces.ts';
import type { Traced } from '../trace/trace.ts';
import { arrangeLayers, type LayerWishes } from './arrive.ts';
import type { Layer, Project } from './schema.ts';

export interface Retraced {
  readonly source: PictureSource;
  /** Those that changed and those that are new. */
  readonly layers: readonly Layer[];
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
  const fit = named(traced.drawing, before.pieces, ratio);
  const own = project.layers.filter((layer) => layer.source === source.id);
  const held = new Set(own.flatMap((layer) => layer.members));
  const placed: PictureSource = {
    ...source,
    scale: source.scale * ratio,
    origin: [source.origin[0] / ratio, source.origin[1] / ratio],
    // What is lost is still known, so that it is found again when a later trace has it.
    pieces: [
      ...fit.pieces,
      ...before.pieces.filter(({ id }) => fit.lost.includes(id) && held.has(id)).map(scaledBy(1 / ratio)),
    ],
  };
  const layers = regrouped(own, before, fit);
  const homeless = homelessPieces(layers, fit);
  return {
    source: placed,
    layers: [...layers.filter((layer, i) => layer !== own[i]), ...newLayers(homeless, fit, source.id, options)],
    warnings: traced.drawing.warnings,
  };
}

const scaledBy =
  (factor: number) =>
  ({ area, box, ...mark }: PieceMark): PieceMark => ({
    ...mark,
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
