// kind.ts — what a kind of build is: how the outlines or meshes of a layer become a body. Each has a folder here, with its settings
// and a line in index.ts, and its builder and a line in builders.ts. Documents and screens know the settings, the evaluation builds:
// what is shown in a list needs no geometry.
import type { z } from 'zod';
import type { Warning } from '../base/errors.ts';
import type { Mesh } from '../mesh/types.ts';
import type { Region } from '../outline/types.ts';
import type { Path } from '../path/types.ts';
import type { EdgePath } from '../solid/lid.ts';
import type { NamedProfile } from '../solid/profile.ts';

/** What a layer is built from, on the sheet, in project units. */
export interface BuildInput {
  /** Disjoint; none for layers of meshes. */
  readonly regions: readonly Region[];
  /** Longest side of the regions. */
  readonly extent: number;
  /** Meshes as their file has them, and where they lie on the sheet; none for layers of outlines. */
  readonly meshes: readonly Mesh[];
  readonly placement: Placed;
  /** Those that were drawn by hand. */
  readonly profiles: readonly NamedProfile[];
  /** Outlines of the layers that it needs, by their ids; those that are gone are missing. */
  readonly others: ReadonlyMap<string, readonly Region[]>;
}

/** Where a source lies: project units in one of its own, and the place of its own that lies in the middle of the sheet, y down. */
export interface Placed {
  readonly scale: number;
  readonly origin: readonly [x: number, y: number];
}

export interface Built {
  /** Standing on height 0; the layer's base is a translation. */
  readonly mesh: Mesh;
  readonly edgePath: EdgePath;
  /** Outlines whose edge had to be left to the rings. */
  readonly ringOutlines: number;
  readonly warnings: readonly Warning[];
}

/** How a body's ends are drawn from the side. */
export interface Elevation {
  readonly height: number;
  readonly front: ElevationRim | null;
  readonly back: ElevationRim | null;
  /** What stands higher than that, where something does: a plane that slants, a dome, steps. */
  readonly form: 'flat' | 'slanted' | 'crowned' | 'stepped';
}

/** From the wall to the flat of a side: how far in, in shares of the reach, and how far short of the side's plane. */
export interface ElevationRim {
  readonly way: 'in' | 'out';
  readonly reach: number;
  readonly rows: readonly (readonly [inset: number, short: number])[];
}

/** What is known of a layer when it is made. Lengths in project units. */
export interface StartWishes {
  readonly depth: number;
  /** A reach that suits it; 0 for no edge. */
  readonly reach: number;
  /** Longest side of all that came with it. */
  readonly size: number;
}

/** @typeParam S settings: data of the document */
export interface BuildKind<S extends { readonly kind: string }> {
  readonly kind: S['kind'];
  /** Its lengths are those that are declared by `base/quantities.ts`. */
  readonly schema: z.ZodType<S>;
  /** A change of some settings, each of which may be left out. */
  readonly change: z.ZodObject;
  /** Settings with such a change. */
  changed(settings: S, change: Readonly<Record<string, unknown>>): S;
  /** What of a source it is built from. */
  readonly from: 'outlines' | 'meshes';
  /** Names of what `mesh.sides` numbers: what materials can be given to. */
  readonly sides: readonly string[];
  start(wishes: StartWishes): S;
  /** Ids of other layers whose outlines it needs. */
  needs(settings: S): readonly string[];
  /** How high the body is from its base, and settings that make it so high. */
  heightOf(settings: S): number;
  withHeight(settings: S, height: number): S;
  /** How it is drawn in the stack. */
  elevation(settings: S, profiles: readonly NamedProfile[]): Elevation;
}

/**
 * @typeParam S settings: data of the document
 * @typeParam P the plan: typed arrays and plain data, which threads hand to each other
 */
export interface Builder<S extends { readonly kind: string }, P> {
  readonly kind: S['kind'];
  /** Equal keys, equal plans of the same input. */
  planKey(input: BuildInput, settings: S): string;
  /** The slow part. */
  plan(input: BuildInput, settings: S): P;
  /** What threads hand over with a plan. */
  buffersOf(plan: P): ArrayBufferLike[];
  /** Equal keys, equal bodies of the same plan. */
  raiseKey(settings: S): string;
  /** The fast part: what dragging a height runs again. */
  raise(plan: P, input: BuildInput, settings: S): Built;
  /** By how much curves turn from the edges of the plan, see `Flow.bends`; null where nothing follows curves. */
  bends(plan: P, curves: () => readonly Path[], tolerance: number): Float64Array | null;
  /** The finished mesh without the faces that the settings leave off. */
  opened(mesh: Mesh, settings: S): Mesh;
  /** Equal keys, the same faces left off. */
  openedKey(settings: S): string;
  /** What of a side lies flat in its plane: less than all of it where something takes the rest. */
  flat(side: 'front' | 'back', input: BuildInput, settings: S): readonly Region[];
}
