/** The computing core of Helb: documents, dimensions, sketches, steps, parts. No interface code. */
export * from './units/units.ts';
export { ExpressionError, MAX_EXPRESSION_LENGTH } from './dimensions/lexer.ts';
export { parseExpression } from './dimensions/parser.ts';
export { RESERVED_NAMES, type Quantity } from './dimensions/evaluate.ts';
export { DimensionName, type Dimension } from './dimensions/schema.ts';
export * from './ledger/entries.ts';
export { Ledger, type Value } from './ledger/ledger.ts';
export { NameIndex, scopeOf, type Scope } from './ledger/names.ts';
export * from './document/ids.ts';
export * from './document/schema.ts';
export * from './document/change.ts';
export * from './document/history.ts';
export * from './document/file.ts';
export * from './document/commands/index.ts';
export * from './standards/materials.ts';
export * from './sketch/schema.ts';
export { sketchSize } from './sketch/settle.ts';
export { solvePositions, solveSketch, type SketchSolution } from './sketch/solve.ts';
export { clashReadings, type ClashMember } from './sketch/clash-readings.ts';
export { freedomsIn, movedBy, showingReach, type Freedom } from './sketch/freedom/freedoms.ts';
export { proposalSteps, settleAll, type Proposal, type SettlePlan } from './sketch/freedom/proposals.ts';
export { addBorrowed, cutLoose, followSource } from './sketch/borrow/borrow.ts';
export type { FlatPiece } from './sketch/borrow/project.ts';
export { borrowedPieces } from './steps/sketch/borrow.ts';
export { findEdge, refOfEdge } from './part/edge-names.ts';
export { SketchDrag } from './sketch/drag.ts';
export { SketchPen, type Anchor, type Inferred, type Place } from './sketch/draw/pen.ts';
export * from './sketch/draw/tool.ts';
export { departing } from './sketch/draw/lines.ts';
export { DRAW_TOOLS, TOOL_FAMILIES, toolNamed } from './sketch/draw/tools.ts';
export { countsOf, matchPatterns } from './sketch/pattern/members.ts';
export { memberId, memberOf } from './sketch/pattern/equations.ts';
export { chainOf } from './sketch/change/chain.ts';
export * from './sketch/change/copy.ts';
export { chamfer, fillet } from './sketch/change/corner.ts';
export { ChangeRefused } from './sketch/change/ends.ts';
export { offsetChain } from './sketch/change/offset.ts';
export { extend, split, trim } from './sketch/change/trim.ts';
export { removeFromSketch } from './sketch/edit/remove.ts';
export * from './sketch/edit/measure.ts';
export { constraintOf, readingsFor, type Reading } from './sketch/edit/readings.ts';
export * from './sketch/regions/primitives.ts';
export * from './sketch/regions/loop.ts';
export * from './sketch/regions/regions.ts';
export type { FaceRef } from './steps/slots.ts';
export { EXTRUDE_WAYS, BODY_RESULTS, type ExtrudeStep } from './steps/extrude/schema.ts';
export { DATUM_PLANES, type PlaneRef, type SketchStep } from './steps/sketch/schema.ts';
export { clashSentence, describeConstraint, describeConstraints } from './steps/sketch/evaluate.ts';
export { PLANE_LABELS } from './steps/sketch/sentence.ts';
export { sentenceOf } from './steps/sentence.ts';
export type { SentencePart, SlotKind } from './steps/sentence-parts.ts';
export { numberSlots, type NumberSlot } from './steps/numbers.ts';
export { type Step, type StepKind } from './steps/schema.ts';
export type { SketchOutcome } from './steps/context.ts';
export * from './solid/kernel.ts';
export { writeStl } from './exchange/stl.ts';
export { DxfRefused, readDxf, type DxfDrawing } from './exchange/dxf-read.ts';
export { mendGaps, takeIn } from './sketch/change/take-in.ts';
export { StepFailure, type Body } from './part/body.ts';
export { findFace, refOfFace, type FoundFace } from './part/face-names.ts';
export { DATUM_FRAMES, frameOfFace, toSpace } from './part/planes.ts';
export { hashText } from './part/hash.ts';
export * from './part/picture.ts';
export { pack, unpack } from './exchange/pack.ts';
export {
  PartEvaluator,
  Superseded,
  type EvaluationHooks,
  type PartOutcome,
  type StepOutcome,
} from './part/evaluate.ts';
export { inspectDesign, type Inspection } from './inspect/inspect.ts';
