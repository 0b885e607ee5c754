/** Which faces of a part differ between two evaluations, told by their durable names. */
import { faceKeys } from '../names/face-keys.ts';
import type { FaceFacts, Vec3 } from '../solid/kernel.ts';
import type { PartOutcome } from './outcome.ts';

export interface MovedFace {
  /** The face's key, as in the evaluation before. */
  readonly key: string;
  /** `moved`: its surface lies elsewhere. `reshaped`: the same surface, bounded otherwise. `gone`: not there after. */
  readonly how: 'moved' | 'reshaped' | 'gone';
}

/** Differences below this, mm, are the kernel's rounding. */
const SAME = 1e-6;

export function movedFaces(before: PartOutcome, after: PartOutcome): MovedFace[] {
  const later = new Map<string, FaceFacts>();
  const keysAfter = faceKeys(after.bodies);
  after.bodies.forEach((body, b) => keysAfter[b]!.forEach((key, i) => later.set(key, body.facts.faces[i]!)));
  const found: MovedFace[] = [];
  const sameBodies = new Set(after.bodies.map((b) => b.key));
  const keysBefore = faceKeys(before.bodies);
  before.bodies.forEach((body, b) => {
    if (sameBodies.has(body.key)) return;
    keysBefore[b]!.forEach((key, i) => {
      const how = difference(body.facts.faces[i]!, later.get(key));
      if (how) found.push({ key, how });
    });
  });
  return found;
}

function difference(was: FaceFacts, is: FaceFacts | undefined): MovedFace['how'] | null {
  if (!is) return 'gone';
  if (was.kind !== is.kind || !near(was.radius ?? 0, is.radius ?? 0)) return 'moved';
  const shifted = far(was.center, is.center);
  if (was.normal && is.normal) {
    const off = dot(was.normal, was.center) - dot(is.normal, is.center);
    if (far(was.normal, is.normal) || !near(off, 0)) return 'moved';
    return shifted || !near(was.area, is.area) ? 'reshaped' : null;
  }
  if (shifted) return 'moved';
  return near(was.area, is.area) ? null : 'reshaped';
}

const near = (a: number, b: number) => Math.abs(a - b) <= SAME * Math.max(1, Math.abs(a));
const far = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > SAME;
const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
