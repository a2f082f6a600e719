// materials.ts — what layers and their sides are made of: put on, changed, kept by name from one project and one visit to the next.
import { create } from 'zustand';
import {
  type Layer,
  LIBRARY,
  type Material,
  MaterialSchema,
  MM_PER_UNIT,
  madeOf,
  type NamedMaterial,
  type Paint,
  sniffPicture,
  swapped,
  withoutShine,
} from '../../core/index.ts';
import { api } from '../requests/api.ts';
import { geometry } from '../worker/client.ts';
import { store, stored, withNamed, withoutNamed } from './kept.ts';
import { dispatch, useProject } from './project.ts';

/** Which side is spoken of; null for all that are made of nothing else. */
export type MadeSide = Paint['side'];

interface MaterialsState {
  /** Own ones, the newest first. */
  readonly kept: readonly NamedMaterial[];
  readonly failure: string | null;
}

const KEY = 'outline-stack.materials';

const named = (name: string, material: Material): NamedMaterial => ({ id: `own ${name}`, name, material });

const known = stored(KEY, ({ name, material }): NamedMaterial | null => {
  const read = MaterialSchema.safeParse(material);
  return read.success ? named(name as string, read.data) : null;
});

export const useMaterials = create<MaterialsState>(() => ({ kept: known, failure: null }));
const { setState: set, getState: get } = useMaterials;

function keep(kept: readonly NamedMaterial[]): void {
  const isStored = store(
    KEY,
    kept.map(({ name, material }) => ({ name, material })),
  );
  set({ kept, failure: isStored ? null : 'This browser keeps nothing more; forget other materials first.' });
}

/** What a side of a layer is made of. */
export const materialOf = ({ material, sideMaterials }: Layer, side: MadeSide): Material =>
  (side && sideMaterials?.[side]) || material;

const paint = (
  layers: readonly Layer[],
  side: MadeSide,
  to: (layer: Layer) => Material | null,
  gesture: string | null = null,
) =>
  dispatch({ do: 'paint', paints: layers.map((layer) => ({ layer: layer.id, side, material: to(layer) })) }, gesture);

export const materials = {
  keep: (name: string, material: Material) => keep(withNamed(get().kept, named(name, material))),
  forget: (name: string) => keep(withoutNamed(get().kept, name)),

  /** Some of what a side is made of; what is not named stays. */
  change(layers: readonly Layer[], side: MadeSide, part: Partial<Material>, gesture: string | null = null): void {
    paint(layers, side, (layer) => ({ ...materialOf(layer, side), ...part }), gesture);
  },

  /** A material of the library, or one that was kept. */
  put(layers: readonly Layer[], side: MadeSide, of: NamedMaterial): void {
    const unit = useProject.getState().history?.present.unit ?? 'mm';
    const mmPerUnit = LIBRARY.some((each) => each === of) ? MM_PER_UNIT[unit] : 1;
    paint(layers, side, (layer) => madeOf(of, materialOf(layer, side), mmPerUnit));
  },

  /** A picture laid on a side, in its own colours. What is no picture is said. */
  async show(layers: readonly Layer[], side: MadeSide, file: File): Promise<void> {
    set({ failure: null });
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      if (!sniffPicture(bytes))
        throw new Error(`“${file.name}” is no picture that can be read: take PNG, JPEG or WebP.`);
      const { hash: asset } = await api.uploadAsset(bytes);
      const picture = { asset, name: file.name.slice(0, 200) };
      // What is damaged is found here, and not by an export.
      const read = await geometry((worker) => worker.sidePicture(picture));
      if (!read.ok) throw new Error(`“${file.name}” was not laid on it. ${read.error.message}`);
      read.value.bitmap.close();
      materials.change(layers, side, { colour: '#ffffff', picture });
    } catch (error) {
      set({ failure: error instanceof Error ? error.message : String(error) });
    }
  },

  takeOff(layers: readonly Layer[], side: MadeSide): void {
    paint(layers, side, (layer) => {
      const { picture: _, ...rest } = materialOf(layer, side);
      return rest;
    });
  },

  /** A side as the layer is; all sides where none is named. */
  asTheLayer: (layers: readonly Layer[], side: MadeSide) => paint(layers, side, () => null),

  withoutShine(layers: readonly Layer[]): void {
    const sides = (layer: Layer): Paint[] =>
      Object.entries(layer.sideMaterials ?? {}).map(([side, material]) => ({
        layer: layer.id,
        side: side as Exclude<MadeSide, null>,
        material: withoutShine(material),
      }));
    const paints = layers.flatMap((layer) => [
      { layer: layer.id, side: null, material: withoutShine(layer.material) },
      ...sides(layer),
    ]);
    dispatch({ do: 'paint', paints });
  },

  /** @param lightness of each of the layers, 0 … 1 */
  swap(layers: readonly Layer[], palette: readonly string[], lightness: readonly number[]): void {
    const colours = swapped(palette, lightness);
    const paints = layers.map(({ id, material }, i) => ({
      layer: id,
      side: null,
      material: { ...material, colour: colours[i]! },
    }));
    dispatch({ do: 'paint', paints });
  },

  /** The colours that the shapes have in their source. */
  fromSource(layers: readonly Layer[], colourOf: (layer: Layer) => string | undefined): void {
    const paints = layers.flatMap((layer) => {
      const colour = colourOf(layer);
      return colour ? [{ layer: layer.id, side: null, material: { ...layer.material, colour } }] : [];
    });
    dispatch({ do: 'paint', paints });
  },
};
