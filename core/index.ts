// index.ts — the only entry for server, web and cli.

export { BAKE_DEFAULTS, BAKE_SIZES, type BakeWishes } from './bake/wishes.ts';
export { calculate } from './base/arithmetic.ts';
export { bytesOf } from './base/bytes.ts';
export { type ErrorCode, GeometryError, type Warning } from './base/errors.ts';
export { kindNamed } from './base/kinds.ts';
export { uniqueName } from './base/names.ts';
export { toleranceFor } from './base/tolerance.ts';
export { feetAndInches, MM_PER_UNIT, UNITS, type Unit } from './base/units.ts';
export {
  BUILD_KINDS,
  type Build,
  type BuildChange,
  type BuildKindName,
  buildKind,
  heightOf,
} from './builds/index.ts';
export type { BuildKind, Elevation, ElevationRim } from './builds/kind.ts';
export { estimateFaces, type Measured } from './builds/slab/estimate.ts';
export {
  type DrawnProfile,
  type Edge,
  EdgeSchema,
  type EdgeShape,
  type FrontShape,
  riseOf,
  type Slab,
} from './builds/slab/schema.ts';
export { NO_EDGE, profileOf, specOf } from './builds/slab/slab.ts';
export { checkOutlines } from './check/check.ts';
export { MOST_OVERLAPS } from './check/fills.ts';
export { FINDING_KINDS, type Finding, type FindingKind } from './check/finding.ts';
export { type Arrival, arrangeLayers, type LayerWishes } from './document/arrive.ts';
export { closingOf, isLeftOpen } from './document/closing.ts';
export type { LayerChange } from './document/commands/change-layers.ts';
export { applyCommand, COMMAND_KINDS, type Command, CommandSchema } from './document/commands/index.ts';
export type { Paint } from './document/commands/paint.ts';
export { type Delta, deltaOf, withDelta } from './document/delta.ts';
export { changeEdits, type EditedSource, layersOfMarks, moveMembers } from './document/editing.ts';
export {
  isProjectFile,
  PROJECT_FILE,
  PROJECT_FILE_LIMITS,
  type ProjectFile,
  readProjectFile,
  writeProjectFile,
} from './document/file.ts';
export {
  type Branch,
  branchesOf,
  type Group,
  groupsAbove,
  layersIn,
} from './document/groups.ts';
export { type History, record, redo, startHistory, undo } from './document/history.ts';
export { readProject } from './document/migrate.ts';
export {
  type Copies,
  MIDDLES,
  type Middle,
  MOST_COPIES,
  type Placement,
  rigidOf,
  UNPLACED,
} from './document/placement.ts';
export { changeOf, RECIPE_PARTS, type RecipePart, recipeOf } from './document/recipes.ts';
export { type Resolved, resolve } from './document/resolve.ts';
export { type Retraced, retrace } from './document/retrace.ts';
export { differsFromRule, gaveOf, ruledValue, ruleFor, withRuled } from './document/ruled.ts';
export { RULED, type Rule, type Ruled } from './document/rules.ts';
export {
  assetsOf,
  emptyProject,
  FINISH_DEFAULTS,
  type Layer,
  LIMITS,
  type Project,
  ProjectSchema,
  picturesOn,
  type Recipe,
  RecipeSchema,
} from './document/schema.ts';
export { SORTINGS, type Sorting, sortIntoLayers } from './document/sorting.ts';
export { commandOf, startValues, VARIED, type Variation, type Varied, variant } from './document/vary.ts';
export {
  CAPS,
  type Drawing,
  JOINS,
  type LeftOut,
  roundStroke,
  type Shape,
  type Stroke,
  whereWords,
} from './drawing.ts';
export { applyEdit, type Edited, type EditOutcome, shapesOf } from './edits/apply.ts';
export { type Edit, type EditAction, type EditActionOf, ORDERS, type Order } from './edits/schema.ts';
export { partAreas, smallPartLimit } from './edits/split.ts';
export {
  buffersOfMade,
  Evaluator,
  type LayerBuild,
  type LayerMesh,
  type LayerOutlines,
  type MadeLayer,
  makeLayer,
  NotOpen,
  type PendingLayer,
} from './evaluate/evaluator.ts';
export { checkBake, type Exported, type ExportWishes, exportProject, partsToWrite } from './evaluate/export.ts';
export { drawingKey } from './evaluate/keys.ts';
export type { Overlap } from './evaluate/overlaps.ts';
export { overlapPlace, partedBases } from './evaluate/parting.ts';
export { type Piercing, piercingsOf } from './evaluate/piercings.ts';
export type { Middles } from './evaluate/places.ts';
export { renewed, subjectsOf } from './evaluate/subjects.ts';
export { DXF_LIMITS } from './formats/dxf/tags.ts';
export {
  FORMAT_IDS,
  FORMATS,
  type FormatId,
  factsOf,
  MESH_FORMATS,
  type MeshFormatId,
  OUTLINE_FORMATS,
  type OutlineFormatId,
  sniffMesh,
  sniffOutlines,
  vectorLimit,
} from './formats/facts.ts';
export {
  CURVES,
  type Curves,
  type Fact,
  type Format,
  type MeshFormat,
  type OutlineFormat,
  type OutlineGroup,
  type WrittenFile,
} from './formats/format.ts';
export { formatOf, outlineFormat } from './formats/index.ts';
export { MESH_LIMITS, readMeshes } from './formats/meshes.ts';
export { fileNames, type Part } from './formats/part.ts';
export { type ExportFile, fileName, type ReadBack, type ReadBackRow, writeOutlines } from './formats/read-back.ts';
export { SVG_LIMITS } from './formats/svg/facts.ts';
export { readSvg } from './formats/svg/read.ts';
export { groupsByLook, type SvgGroup, writeSvg } from './formats/svg/write.ts';
export { decodeVector, readVector } from './formats/vector.ts';
export {
  type Axis,
  about,
  anglesOf,
  isMirroring,
  MIRROR,
  moved,
  type Point,
  product,
  type Rigid,
  STAY,
  shift,
  turnAbout,
  undone,
  withoutShift,
} from './geometry/rigid.ts';
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
export { ballPicture } from './materials/ball.ts';
export {
  isAlike,
  LIBRARY,
  madeOf,
  type NamedMaterial,
  PALETTES,
  swapped,
  withoutShine,
} from './materials/library.ts';
export {
  MATERIAL_DEFAULTS,
  type Material,
  MaterialSchema,
  type PictureOn,
  SIDES_MADE,
  type SideMaterials,
  type WholeMaterial,
  wholeOf,
} from './materials/schema.ts';
export { materialsOf } from './materials/sides.ts';
export type { EdgePlace, MarkKind } from './mesh/marks.ts';
export { BLENDS, SHADING, type ShadedMesh, type Shading, shade } from './mesh/normals.ts';
export { boxOfPoints } from './mesh/place.ts';
export {
  type Bin,
  countOf,
  FAULT_WORDS,
  FAULTS,
  type Fault,
  type FoundFault,
  isSound,
  type MeshCounts,
  type Point3,
  type Proof,
  type ProofOptions,
  proofOf,
  SLIVER_DEG,
} from './mesh/proof.ts';
export { TIDY_STEPS, type Tidied, type TidyChange, type TidySettings, type TidyStep, tidy } from './mesh/tidy/tidy.ts';
export { type Totals, totalsOf } from './mesh/totals.ts';
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
export type { Place, Width } from './outline/width.ts';
export {
  draggedBox,
  ellipseIn,
  lineToContinue,
  rectanglePath,
  type Span,
  withCorner,
  withPull,
} from './path/figures.ts';
export { multiply, rotation, scaling, transformPath, translation } from './path/matrix.ts';
export { parsePath } from './path/parse.ts';
export {
  alignPoints,
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
  weldPoints,
} from './path/points.ts';
export { printPath } from './path/print.ts';
export type { Matrix, Path } from './path/types.ts';
export { lightnessOfHex } from './picture/colour.ts';
export {
  type DecodedPicture,
  type Decoders,
  decodePicture,
  enlargement,
  lowResolution,
  PICTURE_FORMATS,
  type PictureFormat,
  sniffPicture,
} from './picture/decode.ts';
export { drawnArea } from './picture/drawn.ts';
export { greyOf, histogramOf, INKS, type Ink } from './picture/grey.ts';
export { prepare, type Step, type StepAction, unprepared } from './picture/prepare.ts';
export { otsu } from './picture/steps/threshold.ts';
export { PICTURE_LIMITS, type Picture, type Prepared } from './picture/types.ts';
export { middleLine, openingOutline, pieceOf, type WallPiece, wallOutline } from './plan/bands.ts';
export { moveNode, nearestOnWalls, type OnWall, wallsAlong } from './plan/edit.ts';
export type { WallLimits } from './plan/find.ts';
export { OPENING_KINDS, type Opening, type OpeningKind, type Swing, type Wall } from './plan/schema.ts';
export { type Plan, planOf } from './plan/shapes.ts';
export { doorLines, glassLine, USUAL_SWING } from './plan/swing.ts';
export * from './protocol/http.ts';
export { RULE_KINDS, type RuleBy, type RuleKindName, ruleKind } from './rules/index.ts';
export type { Subject } from './rules/kind.ts';
export { CORNERS } from './solid/edge/corners.ts';
export { DOMES } from './solid/form.ts';
export { FACE_MESHES } from './solid/front/front.ts';
export type { EdgePath } from './solid/lid.ts';
export {
  MOST_CURVE_POINTS,
  PROFILES,
  type Profile,
  type ProfileCurve,
  profileRows,
  profileWord,
} from './solid/profile.ts';
export { BEYOND, CAPPED, type SlabEdge, WAYS } from './solid/slab.ts';
export { fileKind, SOURCE_KINDS, type Source, sourceKind } from './sources/index.ts';
export type { SourceReader } from './sources/kind.ts';
export { type LetteringSource, textName } from './sources/lettering/lettering.ts';
export type { MeshSource } from './sources/mesh/mesh.ts';
export type { PictureSource } from './sources/picture/picture.ts';
export type { PieceMark } from './sources/picture/pieces.ts';
export { membersOf, placedShapes } from './sources/placing.ts';
export { type Difference, differenceOf } from './trace/difference.ts';
export { LAYERINGS, type Layering } from './trace/flats.ts';
export { adviceFor, type Look } from './trace/look.ts';
export { TRACE_DEFAULTS, TRACE_MODES, type TraceSettings, UNDERLAY } from './trace/settings.ts';
export { type Start, settingsFor, startFor, windowFor } from './trace/start.ts';
export { type Traced, trace } from './trace/trace.ts';
export {
  type BuildView,
  BuildViews,
  type Failure,
  type LayerView,
  type Overlays,
  type PlacedView,
  type SourceView,
} from './views/build.ts';
export { buffersOfDrawn, type DrawnMesh } from './views/meshes.ts';
export {
  type Face,
  facesOfLines,
  type OutlineShape,
  type OutlineView,
  outlineShape,
  type Preview,
  previewOf,
} from './views/outlines.ts';
export {
  edgesAt,
  faceAt,
  joinsOf,
  type Marked,
  markedOn,
  type PickedEdges,
  type PickedFace,
} from './views/picks.ts';
export { type FlatShape, type SheetView, sheetView, type ViewBox } from './views/sheet.ts';
