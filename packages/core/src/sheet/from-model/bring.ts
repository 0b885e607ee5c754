/**
 * The model’s own dimensions on a sheet: those of its sketches and steps, in the views in which they are seen true.
 * A size is taken at edges that are drawn, and only where it comes to the very value of the dimension.
 */
import type { Design } from '../../document/schema.ts';
import type { Sheet, SheetSize, SheetSpot } from '../../document/sheet.ts';
import type { EvaluationHooks, PartEvaluator } from '../../evaluation/evaluate.ts';
import type { Known } from '../../evaluation/known.ts';
import { newId } from '../../ids/ids.ts';
import type { DimensionEntry } from '../../ledger/entries.ts';
import { Ledger } from '../../ledger/ledger.ts';
import type { Body } from '../../names/body.ts';
import type { StepOutcome } from '../../part/outcome.ts';
import { isDimension, type DimensionConstraint, type SketchGeometry } from '../../sketch/schema.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import type { Step } from '../../steps/schema.ts';
import { alikeRoundings, alikeRounds } from '../audit/candidates.ts';
import { auditSheet } from '../audit/audit.ts';
import { conesAlike } from '../audit/rims.ts';
import { edgeOfSpot, foundSpot, roundingSeen, roundOf } from '../audit/said.ts';
import { Shape, type RoundFreedom } from '../audit/shape.ts';
import { rememberedCurves, type CurvesOf, type DrawnView } from '../drawn-view.ts';
import { readLimits } from '../limits.ts';
import { frameOfLook } from '../looks.ts';
import { measureSize, type SizeState } from '../measured.ts';
import { sheetGeometry } from '../sheet-geometry.ts';
import { asShown, SheetFailure } from '../subject.ts';
import { isJudged } from '../view-kinds.ts';
import { sizesOfDimension } from './sketch-sizes.ts';
import { kindOfRound } from '../seen-through.ts';
import { madeBy, seenOnly, type StraightView } from './spots.ts';
import { anglesOfStep, sizesOfLength } from './step-sizes.ts';

export interface Brought {
  readonly sizes: readonly (readonly [id: string, size: SheetSize])[];
  /** How many dimensions the sheet says already. */
  readonly known: number;
  /** Dimensions that no view shows, by their names in the ledger. */
  readonly missed: readonly string[];
}

const SAME = 1e-6;

/** @throws SheetFailure where there is no part to bring sizes of; KernelError; Superseded */
export async function bringSizes(
  asked: Design,
  id: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  drawn: Known<DrawnView>,
  hooks: EvaluationHooks = {},
): Promise<Brought> {
  const geometry = await sheetGeometry(asked, id, evaluator, kernel, drawn, hooks);
  const sheet = asked.sheets![id]!;
  const { design } = asShown(asked, sheet);
  if (!('part' in sheet.of)) throw new SheetFailure('Sizes are brought from the recipe of a part; this sheet shows an assembly.'); // prettier-ignore
  const ledger = Ledger.of(design);
  const { bodies, steps } = await evaluator.evaluate(design, ledger, sheet.of.part, hooks);
  const curvesOf = rememberedCurves(kernel);
  const views = sheet.viewOrder.flatMap((view): StraightView[] => {
    const own = geometry.views.get(view);
    return own && isJudged(sheet.views[view]!) ? [{ id: view, frame: own.frame, view: own }] : [];
  });
  // What is seen is dimensioned rather than what is hidden.
  const looked = [...views.map((v) => ({ ...v, view: seenOnly(v.view) })), ...views];
  const of: Bringing = {
    design,
    bodies,
    looked,
    curvesOf,
    shape: new Shape(bodies, frameOfLook(sheet.front, 'front')),
  };
  const states = new Map(geometry.sizes);
  const fresh = new Map<string, SheetSize>();
  const taken = new Set(Object.values(sheet.sizes).map(keyOf));
  const missed: string[] = [];
  let known = 0;
  const part = design.parts[sheet.of.part]!;
  const outcomes = new Map(steps.map((s) => [s.id, s]));
  for (const entry of ledger.entries) {
    const { owner } = entry;
    if (!('step' in owner) || owner.part !== sheet.of.part || entry.measured || (entry.kind !== 'length' && entry.kind !== 'angle')) continue; // prettier-ignore
    const [step, outcome] = [part.steps[owner.step]!, outcomes.get(owner.step)];
    const value = ledger.valueOfEntry(entry);
    if (outcome?.status !== 'ok' || !value.ok || Math.abs(value.quantity.value) < SAME) continue;
    const size = sizeOf(entry, step, outcome, Math.abs(value.quantity.value), of);
    if (!size) missed.push(entry.path.slice(1).join('.'));
    else if (taken.has(keyOf(size))) known++;
    else {
      taken.add(keyOf(size));
      const key = newId('z');
      fresh.set(key, size);
      states.set(key, stateOf(size, of));
    }
  }
  const twice = dropTwice(design, sheet, bodies, geometry.views, states, fresh);
  return { sizes: [...fresh], known: known + twice, missed };
}

interface Bringing {
  readonly design: Design;
  readonly bodies: readonly Body[];
  readonly looked: readonly StraightView[];
  readonly curvesOf: CurvesOf;
  readonly shape: Shape;
}

const keyOf = ({ kind, view, of }: SheetSize): string => [kind, view, ...of.map((spot) => JSON.stringify(spot)).sort()].join('|'); // prettier-ignore

/** The first that comes to the value of the dimension; null where none does. */
function sizeOf(
  entry: DimensionEntry,
  step: Step,
  outcome: StepOutcome,
  value: number,
  of: Bringing,
): SheetSize | null {
  const key = entry.ref.slice(outcome.id.length + 1);
  const { looked, bodies } = of;
  const constraint = step.kind === 'sketch' ? (step as Step & SketchGeometry).constraints[key] : undefined;
  const own = constraint && isDimension(constraint) ? constraint : null;
  for (const view of looked) {
    const offered = own
      ? sizesOfSketch(own, outcome, view)
      : step.kind === 'hole'
        ? holesOf(outcome.id, view, bodies)
        : step.kind === 'chamfer' && step.way !== 'angled'
          ? chamfersOf(outcome.id, view, bodies)
          : entry.kind === 'angle'
            ? anglesOfStep(outcome.id, view, bodies)
            : sizesOfLength(value, outcome.id, view, bodies);
    const found = offered.find((size) => comesTo(value, size, of));
    if (found) return finished(found, own, of);
  }
  return null;
}

const sizesOfSketch = (c: DimensionConstraint, { sketch }: StepOutcome, view: StraightView): SheetSize[] =>
  sketch ? sizesOfDimension(c, sketch.solution.geometry, sketch.frame, view) : [];

/** All numbers of a hole stand in its call-out. */
const holesOf = (step: string, { id, view }: StraightView, bodies: readonly Body[]): SheetSize[] =>
  view.spots.filter((s) => s.what === 'round' && s.piece.kind === 'circle' && madeBy(s, step, bodies)).map((s) => ({ kind: 'hole', view: id, of: [s.spot] })); // prettier-ignore

/** Both distances of a chamfer stand in its call-out, where it is seen from the side. */
const chamfersOf = (step: string, { id, view }: StraightView, bodies: readonly Body[]): SheetSize[] =>
  view.spots.filter((s) => (s.what === 'side' || s.slanted) && madeBy(s, step, bodies)).map((s) => ({ kind: 'chamfer', view: id, of: [s.spot] })); // prettier-ignore

function stateOf(size: SheetSize, { looked, bodies, curvesOf }: Bringing): SizeState {
  return measureSize(size, looked.find((l) => l.id === size.view)!.frame, bodies, curvesOf);
}

function comesTo(value: number, size: SheetSize, of: Bringing): boolean {
  const { measured } = stateOf(size, of);
  if (measured?.is === 'chamfer') return measured.true && [measured.told.along, measured.told.aside].some((mm) => Math.abs(mm - value) < SAME * Math.max(1, value)); // prettier-ignore
  if (!measured || !('value' in measured) || !measured.true) return false;
  if (size.kind === 'hole') return true;
  const same = (other: number) => Math.abs(measured.value - other) < SAME * Math.max(1, value);
  // A diameter says a radius, and the other way round.
  return same(value) || (measured.is === 'diameter' && same(2 * value)) || (measured.is === 'radius' && same(value / 2)); // prettier-ignore
}

/** With the tolerance of the dimension, and the count of rounds alike. */
function finished(size: SheetSize, own: DimensionConstraint | null, of: Bringing): SheetSize {
  const { design, bodies, shape, looked } = of;
  const { view } = looked.find((l) => l.id === size.view)!;
  const limits = own?.tolerance ? readLimits(own.tolerance, size, design.units) : null;
  const found = size.kind === 'diameter' || size.kind === 'radius' ? foundSpot(size.of[0]!, bodies, view) : null;
  const round = found ? roundOf(shape, found) : null;
  const alike = round ? alikeRounds(shape, round) : [];
  const bevelled = size.kind === 'chamfer' ? foundSpot(size.of[0]!, bodies, view) : null;
  const rounding = found && size.kind === 'radius' ? roundingSeen(shape, found, view.frame) : null;
  const many = bevelled ? conesAlike(shape, bevelled).length : rounding ? alikeRoundings(shape, rounding).length : alike.length; // prettier-ignore
  const spot = alike.length > 1 ? upperRight(alike, size, of) : null;
  return {
    ...size,
    ...(limits && limits !== 'none' ? { limits } : {}),
    ...(spot ? { of: [spot] } : {}),
    ...(many > 1 ? { text: `${many}× <>` } : {}),
  };
}

/** Of rounds alike the one farthest up and right in the view, where words of rounds stand. */
function upperRight(
  alike: readonly RoundFreedom[],
  { view, kind }: SheetSize,
  { looked, bodies, shape }: Bringing,
): SheetSpot | null {
  // prettier-ignore
  const spots = looked.find((l) => l.id === view)!.view.spots.filter((s) => {
    const found = s.what === 'round' ? edgeOfSpot(s, bodies, looked.find((l) => l.id === view)!.frame) : null;
    const own = found ? roundOf(shape, found) : null;
    return own && alike.includes(own) && kindOfRound(s.piece) === kind;
  });
  const at = ({ piece }: (typeof spots)[number]) => piece.points[0]![0] + piece.points[0]![1];
  return spots.sort((a, b) => at(b) - at(a))[0]?.spot ?? null;
}

/** Takes out of the fresh sizes what the sheet says without them. @returns how many */
function dropTwice(
  design: Design,
  sheet: Sheet,
  bodies: readonly Body[],
  views: ReadonlyMap<string, DrawnView>,
  states: ReadonlyMap<string, SizeState>,
  fresh: Map<string, SheetSize>,
): number {
  const before = fresh.size;
  for (;;) {
    const tried: Sheet = { ...sheet, sizes: { ...sheet.sizes, ...Object.fromEntries(fresh) } };
    const twice = auditSheet(design, tried, bodies, views, states).findings.filter((f) => f.kind === 'twice').map((f) => f.sizes); // prettier-ignore
    const follow = twice.flatMap(([first]) => (first !== undefined && fresh.has(first) ? [first] : []));
    // What stood there stays; a fresh one from which it would follow goes.
    const behind = twice.flatMap(([, ...others]) => others.filter((other) => fresh.has(other))).slice(0, 1);
    const drop = follow.length > 0 ? follow : behind;
    if (drop.length === 0) return before - fresh.size;
    for (const key of drop) fresh.delete(key);
  }
}
