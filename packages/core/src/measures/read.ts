/** Reading measured dimensions from evaluated parts. */
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { findEdge } from '../part/edge-names.ts';
import type { Body } from '../part/body.ts';
import type { EvaluationHooks, PartEvaluator, PartOutcome } from '../part/evaluate.ts';
import { findFace } from '../part/face-names.ts';
import type { SolidKernel, SolidPiece, Vec3 } from '../solid/kernel.ts';
import { massOf } from '../standards/materials.ts';
import type { EdgeRef } from '../sketch/schema.ts';
import type { FaceRef } from '../steps/slots.ts';
import { applyEdit } from '../document/change.ts';
import { keepReadings } from '../document/commands/ledger.ts';
import type { Measure } from './schema.ts';

/** What a measure cannot be read for, as a sentence for the user. */
export class MeasureFailure extends Error {}

const DIGITS = 12;

/** What a measure reads now, as an expression. @throws MeasureFailure */
export function readMeasure(measure: Measure, design: Design, outcome: PartOutcome, kernel: SolidKernel): string {
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
      return text(faceOf(measure.face, bodies).facts.area, ' * 1 mm^2');
    case 'radius': {
      const { radius } = faceOf(measure.face, bodies).facts;
      if (radius === null) throw new MeasureFailure('This face is not round any more; measure another.');
      return text(radius, ' mm');
    }
    case 'length': {
      const { body, edge } = edgeOf(measure.edge, bodies, kernel);
      return text(body.facts.edges[edge]!.length, ' mm');
    }
    case 'distance': {
      const [a, b] = measure.between.map((thing) => pieceOf(thing, bodies, kernel));
      return text(kernel.distance(a!, b!), ' mm');
    }
    case 'angle': {
      const [a, b] = measure.between.map((face) => faceOf(face, bodies).facts.normal);
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

function faceOf(ref: FaceRef, bodies: readonly Body[]) {
  const found = findFace(ref, bodies);
  if (!found) throw new MeasureFailure('The measured face is no longer there; measure another.');
  return { ...found, facts: found.body.facts.faces[found.face]! };
}

function edgeOf(ref: EdgeRef, bodies: readonly Body[], kernel: SolidKernel) {
  const found = findEdge(ref, bodies, kernel);
  if (!found) throw new MeasureFailure('The measured edge is no longer there; measure another.');
  return found;
}

function pieceOf(thing: FaceRef | EdgeRef, bodies: readonly Body[], kernel: SolidKernel): SolidPiece {
  if ('faces' in thing) {
    const { body, edge } = edgeOf(thing, bodies, kernel);
    return { solid: body.solid, kind: 'edge', index: edge };
  }
  const { body, face } = faceOf(thing, bodies);
  return { solid: body.solid, kind: 'face', index: face };
}

/** Readings that differ by less than this share are the same: kernels round. */
const SAME_READING = 1e-9;

export interface Readings {
  /** What the part now reads, for measured dimensions whose stored reading is another. */
  readonly stale: ReadonlyMap<string, string>;
  /** Why a dimension cannot be read now; it keeps its last reading. */
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
      reading = readMeasure(measured, design, outcome, kernel);
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
const MOST_ROUNDS = 20;

/** The design with all readings true to its parts: for programs without a page, where nothing follows up. */
export async function withReadings(
  design: Design,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks = {},
): Promise<Design> {
  let now = design;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const stale = new Map<string, string>();
    for (const part of measuredParts(now)) {
      const outcome = await evaluator.evaluate(now, Ledger.of(now), part, hooks);
      for (const [ref, reading] of readingsOf(now, outcome, kernel).stale) stale.set(ref, reading);
    }
    if (stale.size === 0) return now;
    const applied = applyEdit(now, keepReadings(stale));
    if (!applied.ok) return now;
    now = applied.design;
  }
  return now;
}

/** Parts on which something is measured. */
export function measuredParts(design: Design): string[] {
  const dimensions = [design, ...Object.values(design.parts)].flatMap((home) => Object.values(home.dimensions));
  const parts = new Set(dimensions.flatMap(({ measured }) => (measured ? [measured.part] : [])));
  return design.partOrder.filter((id) => parts.has(id));
}
