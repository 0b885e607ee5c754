/** Reading measured dimensions from evaluated parts. */
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { findEdge } from '../names/find-edge.ts';
import type { Body } from '../names/body.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { PartOutcome } from '../part/outcome.ts';
import { findFace } from '../names/find-face.ts';
import type { SolidKernel, SolidPiece, Vec3 } from '../solid/kernel.ts';
import { massOf } from '../standards/materials.ts';
import type { EdgeRef, FaceRef, Finding } from '../references/references.ts';
import { applyEdit } from '../document/change.ts';
import { keepReadings } from '../commands/ledger.ts';
import type { Measure } from '../document/measure.ts';

/** What a measure cannot be read for, as a sentence for the user. */
export class MeasureFailure extends Error {}

const DIGITS = 12;

export interface Reading {
  /** What is read, as an expression. */
  readonly text: string;
  /** Why it may be the reading of something else, as a sentence; null when it is surely not. */
  readonly doubt: string | null;
}

/** What a measure reads now. @throws MeasureFailure */
export function readMeasure(measure: Measure, design: Design, outcome: PartOutcome, kernel: SolidKernel): Reading {
  const doubts: string[] = [];
  const text = textOf(measure, design, outcome, kernel, (why) => void doubts.push(why));
  return { text, doubt: doubts[0] ?? null };
}

function textOf(
  measure: Measure,
  design: Design,
  outcome: PartOutcome,
  kernel: SolidKernel,
  doubt: (sentence: string) => void,
): string {
  const bodies = measure.after ? (outcome.steps.find((s) => s.id === measure.after)?.bodies ?? []) : outcome.bodies;
  const part = design.parts[measure.part]!;
  if (bodies.length === 0) throw new MeasureFailure(`${part.name} has no solid to measure yet.`);
  const text = (n: number, unit: string) => `${Number(n.toPrecision(DIGITS))}${unit}`;
  switch (measure.what) {
    case 'volume':
      return text(
        sum(bodies, (b) => b.facts.volume),
        ' * 1 mm^3',
      );
    case 'surface':
      return text(
        sum(bodies, (b) => b.facts.area),
        ' * 1 mm^2',
      );
    case 'mass': {
      if (!part.material) throw new MeasureFailure(`${part.name} has no material, so it has no mass; choose one.`);
      return text(
        massOf(
          sum(bodies, (b) => b.facts.volume),
          part.material,
        ),
        '',
      );
    }
    case 'size': {
      const axis = ['x', 'y', 'z'].indexOf(measure.along);
      const ends = bodies.map((b) => [b.facts.box.min[axis]!, b.facts.box.max[axis]!] as const);
      return text(Math.max(...ends.map((e) => e[1])) - Math.min(...ends.map((e) => e[0])), ' mm');
    }
    case 'area':
      return text(faceOf(measure.face, bodies, doubt).facts.area, ' * 1 mm^2');
    case 'radius': {
      const { radius } = faceOf(measure.face, bodies, doubt).facts;
      if (radius === null) throw new MeasureFailure('This face is not round any more; measure another.');
      return text(radius, ' mm');
    }
    case 'length': {
      const { body, edge } = edgeOf(measure.edge, bodies, doubt);
      return text(body.facts.edges[edge]!.length, ' mm');
    }
    case 'distance': {
      const [a, b] = measure.between.map((thing) => pieceOf(thing, bodies, doubt));
      return text(kernel.distance(a!, b!), ' mm');
    }
    case 'angle': {
      const [a, b] = measure.between.map((face) => faceOf(face, bodies, doubt).facts.normal);
      if (!a || !b) throw new MeasureFailure('An angle is measured between two flat faces; one of these is not flat.');
      return text(between(a, b), ' rad');
    }
  }
}

const sum = <T>(list: readonly T[], of: (item: T) => number) => list.reduce((total, item) => total + of(item), 0);

/** Angle between the outward normals, rad, well conditioned also where they are nearly along each other. */
function between(a: Vec3, b: Vec3): number {
  const cross = Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]);
  return Math.atan2(cross, a[0] * b[0] + a[1] * b[1] + a[2] * b[2]);
}

function sure<T>(finding: Finding<T>, what: string, doubt: (sentence: string) => void): T {
  if (finding.how === 'lost') throw new MeasureFailure(`The measured ${what} is no longer there; measure another.`);
  if (finding.how === 'probably')
    doubt(`The measured ${what} is probably the right one: ${finding.why}; measure it again to be sure.`);
  return finding.found;
}

function faceOf(ref: FaceRef, bodies: readonly Body[], doubt: (sentence: string) => void) {
  const found = sure(findFace(ref, bodies), 'face', doubt);
  return { ...found, facts: found.body.facts.faces[found.face]! };
}

function edgeOf(ref: EdgeRef, bodies: readonly Body[], doubt: (sentence: string) => void) {
  return sure(findEdge(ref, bodies), 'edge', doubt);
}

function pieceOf(thing: FaceRef | EdgeRef, bodies: readonly Body[], doubt: (sentence: string) => void): SolidPiece {
  if ('faces' in thing) {
    const { body, edge } = edgeOf(thing, bodies, doubt);
    return { solid: body.solid, kind: 'edge', index: edge };
  }
  const { body, face } = faceOf(thing, bodies, doubt);
  return { solid: body.solid, kind: 'face', index: face };
}

/** Readings that differ by less than this share are the same: kernels round. */
const SAME_READING = 1e-9;

export interface Readings {
  /** What the part now reads, for measured dimensions whose stored reading is another. */
  readonly stale: ReadonlyMap<string, string>;
  /** Why a dimension cannot be read now, and keeps its last reading; or why what it reads is uncertain. */
  readonly faults: ReadonlyMap<string, string>;
}

export function readingsOf(design: Design, outcome: PartOutcome, kernel: SolidKernel): Readings {
  const stale = new Map<string, string>();
  const faults = new Map<string, string>();
  const ledger = Ledger.of(design);
  const all = [
    ...Object.entries(design.dimensions),
    ...Object.values(design.parts).flatMap((p) => Object.entries(p.dimensions)),
  ];
  for (const [ref, { measured, value }] of all) {
    if (measured?.part !== outcome.part) continue;
    let reading: string;
    try {
      const read = readMeasure(measured, design, outcome, kernel);
      reading = read.text;
      if (read.doubt) faults.set(ref, read.doubt);
    } catch (error) {
      if (!(error instanceof MeasureFailure)) throw error;
      faults.set(ref, error.message);
      continue;
    }
    const [was, is] = [ledger.read(value, {}, null), ledger.read(reading, {}, null)];
    const far = (a: number, b: number) => Math.abs(a - b) > SAME_READING * Math.max(Math.abs(a), Math.abs(b), 1e-6);
    if (!was.ok || !is.ok || far(was.quantity.value, is.quantity.value)) stale.set(ref, reading);
  }
  return { stale, faults };
}

/** Rounds after which readings that still move are given up: more than any honest chain of them. */
export const MOST_READING_ROUNDS = 20;

/** Readings that come to no rest; the message is for the user. */
export class ReadingsAdrift extends Error {}

/** What is said of readings that still move after `MOST_READING_ROUNDS`. */
export function adriftSentence(design: Design, refs: Iterable<string>): string {
  const ledger = Ledger.of(design);
  const names = [...refs].map((ref) => ledger.index.byReference(ref)?.path.join('.') ?? ref);
  const [read, drive, are] = names.length > 1 ? ['read', 'they drive', 'they are'] : ['reads', 'it drives', 'it is'];
  return `${names.join(', ')} ${read} otherwise each time, as ${drive} what ${are} measured on; give a number between a value of its own.`;
}

export interface SettledReadings {
  readonly design: Design;
  /** Why measured dimensions keep their last reading, or may be read of something else, each by its reference. */
  readonly faults: ReadonlyMap<string, string>;
  /** Those that come to no rest, as they drive what they are measured on. */
  readonly adrift: ReadonlySet<string>;
}

/** The design with its readings true to its parts, as far as they can be read, and why others are not. */
export async function settledReadings(
  design: Design,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<SettledReadings> {
  let now = design;
  for (let round = 0; ; round++) {
    const [stale, faults] = [new Map<string, string>(), new Map<string, string>()];
    for (const part of measuredParts(now)) {
      const read = readingsOf(now, await evaluator.evaluate(now, Ledger.of(now), part, hooks), kernel);
      for (const [ref, reading] of read.stale) stale.set(ref, reading);
      for (const [ref, fault] of read.faults) faults.set(ref, fault);
    }
    if (stale.size === 0) return { design: now, faults, adrift: new Set() };
    const applied = round < MOST_READING_ROUNDS ? applyEdit(now, keepReadings(stale)) : null;
    if (applied?.ok) {
      now = applied.design;
      continue;
    }
    const why = applied ? applied.message : adriftSentence(now, stale.keys());
    for (const ref of stale.keys()) faults.set(ref, why);
    return { design: now, faults, adrift: new Set(stale.keys()) };
  }
}

/**
 * The design with all readings true to its parts: for programs without a page, where nothing follows up.
 * @throws ReadingsAdrift when they come to no rest
 */
export async function withReadings(
  design: Design,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<Design> {
  const settled = await settledReadings(design, evaluator, kernel, hooks);
  const [first] = settled.adrift;
  if (first !== undefined) throw new ReadingsAdrift(settled.faults.get(first));
  return settled.design;
}

/** Parts on which something is measured. */
export function measuredParts(design: Design): string[] {
  const dimensions = [design, ...Object.values(design.parts)].flatMap((home) => Object.values(home.dimensions));
  const parts = new Set(dimensions.flatMap(({ measured }) => (measured ? [measured.part] : [])));
  return design.partOrder.filter((id) => parts.has(id));
}
