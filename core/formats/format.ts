// format.ts — what a file format is: how a file is told, read, written, and what it keeps of what went in. Each has a folder here
// and a line in facts.ts, from which menus and sniffing follow, and in index.ts, from which reading and writing do: what is shown in
// a menu needs no reader.
import type { Drawing, Shape } from '../drawing.ts';
import type { Part } from './part.ts';

/** What a format can keep besides the surfaces or lines themselves: what reading back compares. */
export const FACTS = ['parts', 'colours', 'strokes', 'pictures'] as const;
export type Fact = (typeof FACTS)[number];

/** One of the files that something is written as. */
export interface WrittenFile {
  readonly extension: string;
  /** In order; made as they are asked for, so that no file has to be held whole. */
  readonly chunks: Iterable<Uint8Array> | AsyncIterable<Uint8Array>;
}

interface FactsBase {
  readonly id: string;
  /** As people write it, and what it is good for in a few words. */
  readonly name: string;
  readonly about: string;
  /** Of the first file that is written. */
  readonly extension: string;
  readonly mime: string;
  readonly keeps: readonly Fact[];
  /** By how a file begins. @param head its first bytes */
  readonly sniff: (head: Uint8Array) => boolean;
}

export interface MeshWriteOptions {
  /** Of the files, without an ending, and of the scene in them. */
  readonly name: string;
  /** Metres in one unit of the meshes; 1 leaves lengths as they are. */
  readonly metresPerUnit: number;
  /** Those that materials name, by their assets. */
  readonly pictures?: Pictures | undefined;
}

/** Bytes of PNG files, by the assets that materials name them by. */
export type Pictures = ReadonlyMap<string, Uint8Array>;

export interface MeshFacts extends FactsBase {
  readonly of: 'meshes';
  /** Whether lengths in its files are metres, so that things can open at their real size. */
  readonly isMetric: boolean;
}

export interface MeshFormat extends MeshFacts {
  /** The parts of a file that is one file. @throws {GeometryError} 'bad-file' */
  readonly read: (bytes: Uint8Array) => Promise<Part[]>;
  readonly write: (parts: readonly Part[], options: MeshWriteOptions) => readonly WrittenFile[];
  /** What was written, read again; files by their extension. */
  readonly readWritten?: (files: Readonly<Record<string, Uint8Array>>) => Part[] | Promise<Part[]>;
  /** Part names as its files can hold them. */
  readonly partNames?: (names: readonly string[]) => string[];
}

/** One layer's outlines in project units, y down. */
export interface OutlineGroup {
  readonly name: string;
  /** `#rrggbb` */
  readonly colour: string;
  readonly shapes: readonly Shape[];
}

/** How curves are written: as they are, as circular arcs, or as lines, both within a tolerance. */
export const CURVES = ['splines', 'arcs', 'lines'] as const;
export type Curves = (typeof CURVES)[number];

export interface CurveWishes {
  readonly as: Curves;
  /** Largest distance from the curve, in project units, > 0. */
  readonly tolerance: number;
}

export interface OutlineDocument extends Pick<Drawing, 'sheet' | 'mmPerUnit'> {
  readonly groups: readonly OutlineGroup[];
  /** Of formats that leave a choice; as they are where nothing is said. */
  readonly curves?: CurveWishes | undefined;
}

export interface OutlineFacts extends FactsBase {
  readonly of: 'outlines';
  /** Whether curves may be written otherwise than they are. */
  readonly hasCurveChoice?: boolean;
  /** Bytes of a file at the most. */
  readonly limit: number;
}

export interface OutlineFormat extends OutlineFacts {
  /** @throws {GeometryError} 'bad-file' for bytes that are no text */
  readonly decode: (bytes: Uint8Array) => string;
  /** @param report is called with the share done, where it takes long; may throw to stop @throws {GeometryError} */
  readonly read: (text: string, report?: (share: number) => void) => Drawing;
  /** @returns text that `read` reads back as the same outlines */
  readonly write: (document: OutlineDocument) => string;
}

export type Format = MeshFormat | OutlineFormat;
