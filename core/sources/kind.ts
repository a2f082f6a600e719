// kind.ts — what a kind of source is: something brought in, from its bytes to the shapes or meshes that layers are made of. Each has
// a folder here, with its data and a line in index.ts, and its opener and a line in openers.ts. Page, server, command line and demo
// all read, bring in and evaluate through these alone; documents know the data, and need no reader.
import { z } from 'zod';
import type { Warning } from '../base/errors.ts';
import { unitsPer } from '../base/quantities.ts';
import type { Unit } from '../base/units.ts';
import type { Drawing, LeftOut } from '../drawing.ts';
import { EditSchema } from '../edits/schema.ts';
import type { Part } from '../formats/part.ts';
import type { LetterFont } from '../lettering/font.ts';
import type { FontChoice } from '../lettering/settings.ts';
import type { Material } from '../materials/schema.ts';
import type { Region } from '../outline/types.ts';
import type { Picture } from '../picture/types.ts';

export const SOURCE_LIMITS = { prepareSteps: 40, pieces: 20_000, edits: 2000 } as const;

const id = z.string().min(1).max(200);

/** What every source has. */
export const SOURCE_BASE = {
  id,
  name: z.string().trim().min(1).max(120),
  /** Project units in one user unit of the source: a pixel of a picture as it came. */
  scale: unitsPer(1e-9, 1e9),
  /** The place in the source that lies on the middle of the sheet, in user units, y down. */
  origin: z.tuple([z.number(), z.number()]),
  /** What is done to its shapes, in order. */
  edits: z.array(EditSchema).max(SOURCE_LIMITS.edits),
};

/** SHA-256 of the bytes, hex. */

/** Where a source lies on the sheet. */
export interface Placement {
  readonly scale: number;
  readonly origin: [x: number, y: number];
}

/** How bytes are had: over HTTP, from the database or from files. What decodes them differs from platform to platform. */
export interface SourceReader {
  /** @param name of the source, for what is said where there are none */
  bytes(asset: string, name: string): Promise<Uint8Array>;
  picture(asset: string, name: string): Promise<OpenedPicture>;
  /** In the order in which they are asked for a letter. */
  fonts(choice: FontChoice): Promise<readonly LetterFont[]>;
}

export interface OpenedPicture {
  readonly picture: Picture;
  /** Pixels an inch, where the file says so. */
  readonly dpi: number | null;
}

/** Results on the way from bytes to shapes, kept by the content of what they depend on. */
export interface Stages {
  has(stage: string, key: string): boolean;
  get<T>(stage: string, key: string, make: () => T): T;
}

/** @param share done, 0 … 1; may throw to stop */
export type Report = (share: number) => void;

/** A file before it is a source. */
export interface NewFile {
  readonly id: string;
  readonly name: string;
  readonly asset: string;
  /** Its first bytes, which tell what it is. */
  readonly head: Uint8Array;
}

export interface ArriveOptions {
  readonly unit: Unit;
  readonly tolerance: number;
  /** Longest side of what is built, in project units; undefined: the drawing's own physical size, else `fallbackSize`. */
  readonly size?: number | undefined;
  /** Used for a drawing without physical size; undefined leaves one user unit as one project unit. */
  readonly fallbackSize?: number | undefined;
  /** Where the source lies already; overrides every size. */
  readonly placement?: Placement | undefined;
  readonly depth?: number | undefined;
  /** Whether shapes of a drawing's named groups stay in them; else only their colours part them. */
  readonly keepsGroups?: boolean | undefined;
  /** Whether a reach that suits each layer is looked for. */
  readonly wantsReach?: boolean | undefined;
}

/** What a layer is to be, before it is one. */
export interface Proposal {
  readonly name: string;
  /** Names of the groups it is to be in, the outermost first. */
  readonly groups?: readonly string[];
  readonly members: readonly string[];
  readonly shown: boolean;
  readonly ground: boolean;
  readonly base: number;
  readonly depth: number;
  /** One that suits it; 0 for no edge. */
  readonly reach: number;
  readonly material: Material;
}

export interface Arrangement {
  readonly placement: Placement;
  readonly proposals: readonly Proposal[];
  /** What each of them covers of the sheet, where that was found on the way. */
  readonly outlines?: readonly (readonly Region[])[];
  readonly warnings: readonly Warning[];
  /** Longest side of what is built, in project units. */
  readonly size: number;
}

export interface Arrived<S> extends Omit<Arrangement, 'placement'> {
  readonly source: S;
  readonly leftOut: readonly LeftOut[];
}

/**
 * @typeParam S the source: data of the document
 * @typeParam O what of it says what is to be opened
 */
export interface SourceKind<S extends O & { readonly kind: string }, O> {
  readonly kind: S['kind'];
  readonly schema: z.ZodType<S>;
  /** What its layers are built as at first. */
  readonly build: 'slab' | 'part';
  /** Largest file, what such files are called, and what to do with a larger one; null for kinds that are no files. */
  readonly file: {
    readonly limit: (head: Uint8Array) => number;
    readonly plural: string;
    readonly advice: string;
    /** By how a file begins. */
    readonly sniff: (head: Uint8Array) => boolean;
    readonly open: (file: NewFile) => O;
  } | null;
  /** Hashes of the bytes it is made from. */
  assets(origin: O): readonly string[];
  /** Equal keys, equal contents; '' where there is nothing to open. */
  contentKey(origin: O): string;
  /** Equal keys, equal drawings before any edit. */
  drawingKey(source: S): string;
}

/**
 * @typeParam S the source: data of the document
 * @typeParam O what of it says what is to be opened
 * @typeParam C what the bytes hold
 */
export interface Opener<S extends O & { readonly kind: string }, O, C> {
  readonly kind: S['kind'];
  /** @throws {GeometryError} for bytes that cannot be read */
  open(origin: O, reader: SourceReader, report?: Report): Promise<C>;
  /** Its shapes as they came, before any edit. */
  drawing(source: S, content: () => C, stages: Stages, report?: Report): Drawing;
  /** Whether the drawing can be made without the content. */
  isDrawn(source: S, stages: Stages): boolean;
  /** Meshes by the names that layers know them by; none for kinds that have outlines. */
  parts(content: C): readonly Part[];
  /**
   * Settings that suit what was opened, and layers that could be made of it.
   * @throws {GeometryError} 'nothing-to-build'
   */
  arrive(
    origin: O & { id: string; name: string },
    content: C,
    stages: Stages,
    options: ArriveOptions,
    report?: Report,
  ): Arrived<S>;
}
