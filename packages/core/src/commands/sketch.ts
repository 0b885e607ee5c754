/** Edits inside a sketch. Every one leaves the sketch solved, or is refused whole. */
import { produce } from 'immer';
import { z } from 'zod';
import { declareCommand } from '../document/command.ts';
import { Touch, TouchClash, touchesBetween, writeTouches } from '../document/touches.ts';
import { faultOfTouched } from '../document/consistency.ts';
import { Id } from '../ids/ids.ts';
import { MAX_ENTITIES } from '../ids/limits.ts';
import { freeName } from './free-name.ts';
import { Ledger } from '../ledger/ledger.ts';
import { ChangeRefused } from '../sketch/change/ends.ts';
import { CountRefused, matchPatterns } from '../sketch/pattern/members.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import { positionsOrWhy } from '../sketch/solve.ts';
import { asSketch, type SketchStep } from '../steps/schema.ts';
import { clashSentence } from '../steps/sketch/clash-sentence.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { plain } from '../document/plain.ts';

const MOST_TOUCHES = 6 * MAX_ENTITIES;

function sketchStep(draft: Design, part: string, step: string): SketchStep {
  const found = asSketch(draft.parts[part]?.steps[step]);
  if (!found) throw new EditRefused('This sketch no longer exists.');
  return found;
}

/**
 * Change a sketch's points, curves and constraints, and solve it. Refused with
 * a sentence that names what disagrees when it solved before and would not after.
 */
export function editSketch(part: string, step: string, label: string, change: (sketch: SketchGeometry) => void): Edit {
  const on = (design: Design): Edit => changeSketchCommand({ part, step, label, touches: byHand(design, part, step, change) }); // prettier-ignore
  return { command: 'change-sketch', label, on, run: (draft) => on(plain(draft)).run(draft) };
}

/** What a change made by hand comes to, in paths within the sketch. */
function byHand(design: Design, part: string, step: string, change: (sketch: SketchGeometry) => void): Touch[] {
  const before = sketchStep(design, part, step);
  const home = ['parts', part, 'steps', step];
  try {
    const after = produce(before, (draft) => void change(draft));
    return touchesBetween(before, after, home).map((t) => ({ ...t, path: t.path.slice(home.length) }));
  } catch (error) {
    if (error instanceof ChangeRefused) throw new EditRefused(error.message);
    throw error;
  }
}

const changeSketchCommand = declareCommand({
  name: 'change-sketch',
  args: z.strictObject({ part: Id, step: Id, label: z.string().max(300), touches: z.array(Touch).max(MOST_TOUCHES) }),
  label: ({ label }) => label,
  run(draft, { part, step, touches }) {
    const before = plain(draft);
    // Its own copy: solving goes on to change what was drawn, and what was given may be held by others.
    const own = structuredClone(touches).map((t) => ({ ...t, path: ['parts', part, 'steps', step, ...t.path] }));
    // Where something was drawn anew only, there is nothing to say of a sketch that was deleted meanwhile.
    if (own.every((t) => t.loose) && !draft.parts[part]?.steps[step]) return;
    sketchStep(draft, part, step);
    try {
      writeTouches(draft, own, true);
    } catch (error) {
      if (!(error instanceof TouchClash)) throw error;
      throw new EditRefused('What this changes in the sketch was changed meanwhile.');
    }
    const fault = faultOfTouched(plain(draft), own);
    if (fault) throw new EditRefused(`This would leave the sketch unsound: ${fault}`);
    nameApart(sketchStep(draft, part, step), own);
    matchCounts(draft, part, step);
    const after = plain(draft);
    const ledger = Ledger.of(after);
    settleSketch(draft, after, ledger, part, step, () => solvedIn(before, part, step));
    if (sketchesDrive(ledger)) resolveSketches(draft, ledger, null);
  },
});

/** Two people may each have given a “width_2”. */
function nameApart({ constraints }: SketchGeometry, touches: readonly Touch[]): void {
  for (const { path, was } of touches) {
    const own = path[4] === 'constraints' && path.length === 6 && was === undefined ? constraints[path[5]!] : undefined;
    if (!own || !('name' in own) || own.name === undefined) continue;
    const others = Object.values(constraints).filter((c) => c !== own);
    if (others.some((c) => 'name' in c && c.name === own.name))
      own.name = freeName(own.name, others as { name?: string }[]).replaceAll(' ', '_');
  }
}

/** Solve anew the sketches in which a change was taken back or made again while others went on. */
export function settleTouched(draft: Design, before: Ledger, touches: readonly Touch[]): void {
  resolveSketches(draft, before, null);
  const touched = new Map(touches.flatMap(({ path: [first, part, third, step, field] }) => (first === 'parts' && third === 'steps' && field !== undefined ? [[step!, part!] as const] : []))); // prettier-ignore
  const design = plain(draft);
  const ledger = Ledger.of(design);
  for (const [step, part] of touched)
    if (asSketch(design.parts[part]?.steps[step])) settleSketch(draft, design, ledger, part, step, () => false);
}

/** Bring patterns' members in step with their counts. */
function matchCounts(draft: Design, part: string, step: string): void {
  const sketch = sketchStep(draft, part, step);
  if (!sketch.patterns) return;
  try {
    matchPatterns(sketch, numbersOf(Ledger.of(plain(draft)), step));
  } catch (error) {
    if (error instanceof CountRefused) throw new EditRefused(error.message);
    throw error;
  }
}

/** A sketch whose own number was edited must have members as asked for; others say for themselves what they cannot. */
function matchUnlessOther(draft: Design, part: string, step: string, own: string | null): void {
  try {
    matchCounts(draft, part, step);
  } catch (error) {
    if (step === own || !(error instanceof EditRefused)) throw error;
  }
}

/** Reads a sketch's dimensions. @throws EditRefused when one has no value */
function numbersOf(ledger: Ledger, step: string): (id: string) => number {
  return (id) => {
    const value = ledger.valueOf(`${step}.${id}`);
    if (!value.ok) throw new EditRefused(value.message);
    return value.quantity.value;
  };
}

const solvedOrWhy = (design: Design, ledger: Ledger, part: string, step: string) =>
  positionsOrWhy(design.parts[part]!.steps[step] as SketchStep, numbersOf(ledger, step));

function solvedIn(design: Design, part: string, step: string): boolean {
  try {
    return solvedOrWhy(design, Ledger.of(design), part, step).geometry !== null;
  } catch (error) {
    if (error instanceof EditRefused) return false;
    throw error;
  }
}

/**
 * Solve a sketch of the draft and store where everything went.
 * @param design the draft's plain document
 * @param mustSolve asked only when it does not solve: is that a reason to refuse the edit?
 */
function settleSketch(
  draft: Design,
  design: Design,
  ledger: Ledger,
  part: string,
  step: string,
  mustSolve: () => boolean,
): void {
  let solved: ReturnType<typeof positionsOrWhy>;
  try {
    solved = solvedOrWhy(design, ledger, part, step);
  } catch (error) {
    // A sketch that had a number without value before may be edited on.
    if (error instanceof EditRefused && !mustSolve()) return;
    throw error;
  }
  if (solved.geometry) storeGeometry(sketchStep(draft, part, step), solved.geometry);
  else if (mustSolve())
    throw new EditRefused(clashSentence(design.parts[part]!.steps[step] as SketchStep, solved.why()));
}

/** Write positions that moved; the rest stays the same object, so that changes are small. */
function storeGeometry(sketch: SketchGeometry, solved: SketchGeometry): void {
  for (const [id, [x, y]] of Object.entries(solved.points)) {
    const point = sketch.points[id];
    if (point && (Math.abs(point[0] - x) > UNMOVED || Math.abs(point[1] - y) > UNMOVED)) sketch.points[id] = [x, y];
  }
  for (const [id, curve] of Object.entries(solved.curves)) {
    const own = sketch.curves[id];
    if (curve.kind === 'circle' && own?.kind === 'circle' && Math.abs(own.radius - curve.radius) > UNMOVED)
      own.radius = curve.radius;
    if (curve.kind === 'ellipse' || curve.kind === 'elliptical_arc') {
      const oval = own as typeof curve | undefined;
      if (oval && 'minor' in oval && Math.abs(oval.minor - curve.minor) > UNMOVED) oval.minor = curve.minor;
    }
  }
  for (const [id, { steps }] of Object.entries(solved.patterns ?? {})) {
    const own = sketch.patterns?.[id];
    steps.forEach((s, i) => own && Math.abs((own.steps[i] ?? 0) - s) > UNMOVED && (own.steps[i] = s));
  }
}

/** mm; smaller moves are not worth a patch. */
const UNMOVED = 1e-9;

/**
 * After a number changed, store the new picture of every sketch it reached. The
 * sketch whose own dimension was edited must solve; others report for themselves.
 * What a sketch reads of itself may drive others, so this goes on until all is still.
 */
export function resolveSketches(draft: Design, before: Ledger, own: string | null, now = plain(draft)): void {
  let was = before;
  // No circle is possible, so each round settles at least one sketch more.
  for (let design = now; ; design = plain(draft)) {
    const is = Ledger.of(design);
    const changed = changedSketches(was, is);
    if (changed.size === 0) return;
    for (const [step, part] of changed) matchUnlessOther(draft, part, step, own);
    // Of a large sketch each look at the draft is a copy.
    const matched = [...changed].some(([step, part]) => sketchStep(design, part, step).patterns)
      ? plain(draft)
      : design;
    for (const [step, part] of changed) settleSketch(draft, matched, is, part, step, () => step === own);
    if (!sketchesDrive(is)) return;
    was = is;
  }
}

/** Does what some sketch reads of itself drive anything? */
const sketchesDrive = (ledger: Ledger) =>
  ledger.entries.some((e) => e.measured?.of === 'sketch' && ledger.usersOf(e.ref).length > 0);

/** Sketches, each with its part, of which a driving dimension reads otherwise. */
function changedSketches(before: Ledger, after: Ledger): Map<string, string> {
  const changed = new Map<string, string>();
  for (const entry of after.entries) {
    if (entry.owner.level !== 'sketch' || entry.measured) continue;
    const was = before.valueOf(entry.ref);
    const is = after.valueOfEntry(entry);
    if (was.ok !== is.ok || (was.ok && is.ok && was.quantity.value !== is.quantity.value))
      changed.set(entry.owner.step, entry.owner.part);
  }
  return changed;
}
