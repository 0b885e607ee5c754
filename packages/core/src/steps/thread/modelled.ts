/**
 * Threads as geometry: the wall round the face is taken away and a threaded sleeve put in its place, which meets the
 * rest on flat ends and a cylinder only. Cut with helical tools, the kernel’s booleans are slow and often wrong.
 */
import { StepFailure, type Body } from '../../names/body.ts';
import type { RoundFace } from '../../slots/faces/round-face.ts';
import type { FaceParent, MadeSolid, SolidHandle, SolidKernel } from '../../solid/kernel.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import { TAU, type Vec2 } from '../../sketch/regions/primitives.ts';
import type { Transform } from '../../space/transform.ts';
import { further } from '../../space/vector.ts';
import { inMm } from '../rework/rework.ts';
import { DEPTH, type Thread } from './form.ts';

export interface ThreadedFace {
  readonly face: number;
  readonly round: RoundFace;
  readonly thread: Thread;
  /** Where it runs along the axis, mm from the axis’s origin. */
  readonly from: number;
  readonly to: number;
  readonly left: boolean;
}

/** Crests keep off the cylinder by this, mm, so that the ends of the sleeve lie within what they stand on. */
const OFF = 1e-3;
/** The sleeve is thicker than the thread is deep by this share of the pitch. */
const BEHIND = 0.1;
/** Turns more than this are too many to be drawn. */
const MOST_TURNS = 60;
/** By this share of the wall a volume may differ from what it should be: of a large body it could hide a thread that is not there. */
const SLACK = 1e-3;
/** Flanks lean by 30° each. */
const LEAN = Math.tan(Math.PI / 6);

/** @throws StepFailure, KernelError */
export function withThread(body: Pick<Body, 'solid'>, threaded: ThreadedFace, kernel: SolidKernel): MadeSolid {
  const { round, thread, from, to, left } = threaded;
  const turns = (to - from) / thread.pitch;
  if (turns > MOST_TURNS)
    throw new StepFailure(`This thread has ${Math.ceil(turns)} turns, and ${MOST_TURNS} is the most that is modelled; mark it, or thread less of the length.`); // prettier-ignore
  const { form, plain } = formOf(round, thread);
  const made: SolidHandle[] = [];
  const own = (solid: SolidHandle) => (made.push(solid), solid);
  try {
    const ring = own(ringOf(round, plain, from, to, kernel));
    const inside = kernel.combine('common', [body.solid], [ring]);
    for (const { solid } of inside) own(solid);
    const wall = kernel.bulk(ring).volume;
    if (Math.abs(sum(inside, kernel) - wall) > SLACK * wall)
      throw new StepFailure(`Something cuts into the wall in which this thread lies, which is ${inMm(Math.abs(round.radius - plain))} thick; thread it before that is made, or mark it only.`); // prettier-ignore
    const rest = kernel.combine('cut', [body.solid], [ring]);
    for (const { solid } of rest) own(solid);
    const atZ = own(kernel.threadSleeve({ from, to, pitch: thread.pitch, left, form, plain }));
    const sleeve = own(kernel.placed(atZ, alongAxis(round)).solid);
    const joined = kernel.combine('join', rest.map((r) => r.solid), [sleeve]); // prettier-ignore
    const wanted = kernel.bulk(body.solid).volume - wall + volumeOf(form, plain, thread.pitch) * (to - from);
    const [only] = joined;
    if (joined.length !== 1 || Math.abs(kernel.bulk(only!.solid).volume - wanted) > SLACK * wall) {
      for (const { solid } of joined) kernel.free(solid);
      throw new StepFailure('The kernel’s outcome cannot be right; give another length or pitch, or mark the thread only.'); // prettier-ignore
    }
    const behind = (p: FaceParent): readonly FaceParent[] => {
      const from = rest[p.argument];
      if (!from) return [{ argument: 0, kind: 'face', index: threaded.face, how: 'inner' }];
      return from.faces[p.index]!.filter((q) => q.argument === 0);
    };
    return { solid: only!.solid, faces: only!.faces.map((parents) => parents.flatMap(behind)) };
  } finally {
    for (const solid of made) kernel.free(solid);
  }
}

const sum = (all: readonly MadeSolid[], kernel: SolidKernel) =>
  all.reduce((total, { solid }) => total + kernel.bulk(solid).volume, 0);

/** The basic form (ISO 68-1) as far as the rod or the bore reaches into it, and the radius of the sleeve’s other side. */
function formOf({ radius, hollow }: RoundFace, { diameter, pitch }: Thread): { form: Vec2[]; plain: number } {
  const largest = diameter / 2;
  const smallest = largest - (DEPTH / 2) * pitch;
  // A crest of a rod, or a groove of a bore, is an eighth of the pitch wide at the largest diameter.
  const [high, low] = hollow ? [largest, radius + OFF] : [Math.min(radius, largest) - OFF, smallest];
  const wide = pitch / 8 + 2 * (largest - high) * LEAN;
  const flank = (high - low) * LEAN;
  const form: Vec2[] = [
    [0, high],
    [wide, high],
    [wide + flank, low],
    [pitch - flank, low],
    [pitch, high],
  ];
  return { form, plain: hollow ? largest + BEHIND * pitch : smallest - BEHIND * pitch };
}

/** Of a sleeve 1 mm long: any cut across it has the same area, of which a strip of the form takes Δo/p · π (r₀² + r₀ r₁ + r₁²) / 3. */
function volumeOf(form: readonly Vec2[], plain: number, pitch: number): number {
  const threaded = form.slice(1).reduce((area, [o, r], i) => {
    const [before, q] = form[i]!;
    return area + (((o - before) / pitch) * Math.PI * (q * q + q * r + r * r)) / 3;
  }, 0);
  return Math.abs(threaded - Math.PI * plain * plain);
}

/** The wall that is taken away. */
function ringOf(round: RoundFace, plain: number, from: number, to: number, kernel: SolidKernel): SolidHandle {
  const { axis, out, aside } = round;
  const frame = { origin: further(axis.origin, axis.direction, from), x: out, y: aside, normal: axis.direction };
  const circle = (radius: number, sign: 1 | -1): Loop => ({
    pieces: [{ kind: 'arc', curve: 'c', forward: sign > 0, from: [radius, 0], to: [radius, 0], center: [0, 0], radius, start: 0, sweep: sign * TAU }], // prettier-ignore
    area: (sign * TAU * radius * radius) / 2,
  });
  const [inner, outer] = [Math.min(plain, round.radius), Math.max(plain, round.radius)];
  return kernel.extrude(frame, [circle(outer, 1), circle(inner, -1)], 0, to - from).solid;
}

function alongAxis({ axis: { origin, direction }, out, aside }: RoundFace): Transform {
  const row = (k: 0 | 1 | 2) => [out[k], aside[k], direction[k], origin[k]] as const;
  return [row(0), row(1), row(2)];
}
