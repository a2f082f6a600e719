// index.ts — the only entry for server, web and cli.

export { type ErrorCode, GeometryError, type Warning } from './base/errors.ts';
export { feetAndInches, MM_PER_UNIT, parseMeasure, UNITS, type Unit } from './base/units.ts';
export { checkOutlines } from './check/check.ts';
export { MOST_OVERLAPS } from './check/fills.ts';
export { FINDING_KINDS, type Finding, type FindingKind } from './check/finding.ts';
export { type Arrangement, type ArrangeOptions, arrange, toleranceFor } from './document/arrange.ts';
export { arrangeMeshes } from './document/arrange-meshes.ts';
export { applyCommand, type Command, CommandSchema, type LayerChange } from './document/commands.ts';
export { changeEdits, type EditedSource, layersOfMarks, moveMembers } from './document/editing.ts';
export {
  drawingKey,
  Evaluator,
  type LayerBuild,
  type LayerMesh,
  type LayerOutlines,
  type MadeLayer,
  makeLayer,
  NO_DATA,
  type Overlap,
  type PendingLayer,
  profileOf,
  type SourceData,
  specOf,
} from './document/evaluate.ts';
export { type History, record, redo, startHistory, undo } from './document/history.ts';
export { readProject } from './document/migrate.ts';
export { membersOf, placedShapes } from './document/outlines.ts';
export { type PlacedPicture, placePicture, type Retraced, retrace, type UnplacedPicture } from './document/retrace.ts';
export {
  assetsOf,
  type DrawnProfile,
  type Edge,
  EdgeSchema,
  type EdgeShape,
  emptyProject,
  type Layer,
  type LetteringSource,
  LIMITS,
  MESH_DEFAULTS,
  type MeshSource,
  type PictureSource,
  type PieceMark,
  type Project,
  ProjectSchema,
  type Recipe,
  RecipeSchema,
  type Source,
} from './document/schema.ts';
export { SORTINGS, type Sorting, sortIntoLayers } from './document/sorting.ts';
export { CAPS, type Drawing, JOINS, type LeftOut, roundStroke, type Shape, type Stroke } from './drawing.ts';
export { applyEdit, type Edited, type Outcome, shapesOf } from './edits/apply.ts';
export type { Action as EditAction, ActionOf as EditActionOf, Edit } from './edits/schema.ts';
export { partAreas, smallPartLimit } from './edits/split.ts';
export { DXF_LIMITS, isDxf } from './formats/dxf/tags.ts';
export { type DxfDocument, type DxfGroup, writeDxf } from './formats/dxf/write.ts';
export {
  EXPORT_FORMATS,
  type ExportFile,
  type ExportFormat,
  type ReadBack,
  type ReadBackRow,
  readBack,
  writeExport,
} from './formats/export.ts';
export { writeGlb } from './formats/glb/glb.ts';
export { MESH_FORMATS, MESH_LIMITS, type MeshFormat, readMeshes, sniffMesh } from './formats/meshes.ts';
export { writeObj } from './formats/obj/obj.ts';
export {
  OUTLINE_FORMATS,
  type OutlineFormat,
  type OutlineGroup,
  readBackOutlines,
  writeOutlines,
} from './formats/outlines.ts';
export { fileNames, type Material, type Part } from './formats/part.ts';
export { writeStl } from './formats/stl/stl.ts';
export { readSvg, SVG_LIMITS } from './formats/svg/read.ts';
export { decodeXml } from './formats/svg/text.ts';
export { groupsByLook, type SvgDocument, type SvgGroup, writeSvg } from './formats/svg/write.ts';
export { decodeVector, readVector, vectorLimit } from './formats/vector.ts';
export { circleLine, circleOf, type Round } from './lettering/along.ts';
export { FONT_BUNDLES, type FontBundle } from './lettering/bundle.ts';
export { FONT_LIMITS, type FontEngines, type LetterFont, openFont, openType, sniffFont } from './lettering/font.ts';
export { layLetters } from './lettering/layout.ts';
export {
  ALIGNMENTS,
  BUNDLED_FONTS,
  type BundledFont,
  type FontChoice,
  LETTERING_DEFAULTS,
  type Lettering,
  LetteringSchema,
} from './lettering/settings.ts';
export { BLENDS, SHADING, type ShadedMesh, type Shading, shade } from './mesh/normals.ts';
export { boxOfPoints } from './mesh/place.ts';
export {
  type Bin,
  countOf,
  FAULT_WORDS,
  FAULTS,
  type Fault,
  type Finding as ProofFinding,
  isSound,
  type MeshCounts,
  type Point3,
  type Proof,
  type ProofOptions,
  proofOf,
  SPLINTER_DEG,
} from './mesh/proof.ts';
export { TIDY_STEPS, type Tidied, type TidySettings, type TidyStep, tidy } from './mesh/tidy/tidy.ts';
export { faceCount, type Mesh, SIDES, type Side } from './mesh/types.ts';
export { layUvs, UV_LAYOUTS, type UvLayout } from './mesh/uv.ts';
export { connectedShapes } from './outline/connected.ts';
export { roughBounds } from './outline/corners.ts';
export { facesBetween, placeInside } from './outline/faces.ts';
export { boundsOf, meanThickness, regionsArea, ringsOf } from './outline/measure.ts';
export {
  heldTo,
  SnapField,
  type SnapKind,
  type SnapParts,
  type Snapped,
  type SnapQuery,
  type SnapWishes,
  snapParts,
} from './outline/snap.ts';
export type { Region } from './outline/types.ts';
export { narrowest, type Width } from './outline/width.ts';
export {
  draggedBox,
  ellipseIn,
  lineToContinue,
  rectanglePath,
  type Span,
  withCorner,
  withPull,
} from './path/figures.ts';
export { transformPath } from './path/matrix.ts';
export { parsePath } from './path/parse.ts';
export {
  changedAt,
  closeLine,
  insertPoint,
  isSmooth,
  linesOf,
  makeCorners,
  makeSmooth,
  moveHandle,
  movePoints,
  nearestOnLine,
  openAt,
  type PathLine,
  type PathPoint,
  pathOfLines,
  removePoints,
  restAt,
  type Spot,
  straighten,
} from './path/points.ts';
export { printPath } from './path/print.ts';
export type { Path } from './path/types.ts';
export {
  type DecodedPicture,
  type Decoders,
  decodePicture,
  lowResolution,
  PICTURE_FORMATS,
  type PictureFormat,
  sniffPicture,
} from './picture/decode.ts';
export { greyOf, histogramOf, INKS, type Ink } from './picture/grey.ts';
export { type Action, prepare, type Step, unprepared } from './picture/prepare.ts';
export { otsu } from './picture/steps/threshold.ts';
export { PICTURE_LIMITS, type Picture, type Prepared } from './picture/types.ts';
export { moveNode, nearestOnWalls, type OnWall, wallsAlong } from './plan/edit.ts';
export type { WallLimits } from './plan/find.ts';
export { middleLine, openingOutline, pieceOf, type WallPiece, wallOutline } from './plan/outline.ts';
export { OPENING_KINDS, type Opening, type OpeningKind, type Wall } from './plan/schema.ts';
export { type Plan, planOf } from './plan/shapes.ts';
export * from './protocol/http.ts';
export { CORNERS } from './solid/edge/corners.ts';
export { FACE_MESHES } from './solid/front/front.ts';
export type { EdgePath } from './solid/lid.ts';
export { MOST_CURVE_POINTS, PROFILES, type Profile, type ProfileCurve, profileRows } from './solid/profile.ts';
export { BEYOND, CAPPED, type SlabEdge, WAYS } from './solid/slab.ts';
export { type Difference, differenceOf } from './trace/difference.ts';
export { LAYERINGS, type Layering } from './trace/flats.ts';
export { startSettings, TRACE_DEFAULTS, TRACE_MODES, type TraceSettings } from './trace/settings.ts';
export { type Traced, trace } from './trace/trace.ts';
