// index.ts — the only entry for server, web and cli.
export { type Arrangement, type ArrangeOptions, arrange } from './document/arrange.ts';
export { applyCommand, type Command, CommandSchema, type LayerChange } from './document/commands.ts';
export {
  Evaluator,
  type LayerBuild,
  type LayerOutlines,
  type Overlap,
  type SourceText,
  specOf,
} from './document/evaluate.ts';
export { type History, record, redo, startHistory, undo } from './document/history.ts';
export { readProject } from './document/migrate.ts';
export { membersOf, placedPaths } from './document/outlines.ts';
export {
  type Edge,
  EdgeSchema,
  emptyProject,
  type Layer,
  LIMITS,
  type Project,
  ProjectSchema,
  type Recipe,
  RecipeSchema,
  type Source,
} from './document/schema.ts';
export { type ErrorCode, GeometryError, type Warning } from './errors.ts';
export {
  EXPORT_FORMATS,
  type ExportFile,
  type ExportFormat,
  type ReadBack,
  type ReadBackRow,
  readBack,
  writeExport,
} from './io/export.ts';
export { writeGlb } from './io/glb.ts';
export { writeObj } from './io/obj.ts';
export { fileNames, type Material, type Part } from './io/part.ts';
export { writeStl } from './io/stl.ts';
export { type Drawing, type LeftOut, readSvg, type Shape, SVG_LIMITS } from './io/svg/read.ts';
export { decodeXml } from './io/text.ts';
export { type ShadedMesh, shade } from './mesh/normals.ts';
export { isSound, type MeshCounts, type Point3, type Proof, type ProofOptions, proofOf } from './mesh/proof.ts';
export { faceCount, type Mesh, SIDES, type Side } from './mesh/types.ts';
export { regionsArea, ringsOf } from './outline/measure.ts';
export type { Region } from './outline/types.ts';
export { narrowest, type Width } from './outline/width.ts';
export { printPath } from './path/print.ts';
export type { Path } from './path/types.ts';
export * from './protocol/http.ts';
export type { EdgePath } from './solid/lid.ts';
export { PROFILES, type Profile, profileRows } from './solid/profile.ts';
export { MM_PER_UNIT, UNITS, type Unit } from './units.ts';
