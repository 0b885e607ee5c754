/** What lies between a face and where it is moved to: a slab of material to add or to take away. */
import { StepFailure, type Body } from '../../names/body.ts';
import { roundFace } from '../../slots/faces/round-face.ts';
import { flatFace } from '../../slots/regions/face-profile.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import type { MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { cross, dot, minus, type Vec3 } from '../../space/vector.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import { inMm } from '../rework/rework.ts';

export type Moved = Pick<Body, 'solid' | 'facts' | 'faceNames'>;

export interface Slab extends MadeSolid {
  /** Which of its faces is the moved one. */
  readonly moved: number;
}

/** @param by mm along the outward normal: below 0 takes material away. @throws StepFailure, KernelError */
export function slabOf(body: Moved, face: number, by: number, kernel: SolidKernel): Slab {
  return body.facts.faces[face]!.normal ? flatSlab(body, face, by, kernel) : roundSlab(body, face, by, kernel);
}

function flatSlab(body: Moved, face: number, by: number, kernel: SolidKernel): Slab {
  const { frame, area } = flatFace(body, face, kernel);
  const made = kernel.extrude(frame, area.loops, Math.min(0, by), Math.max(0, by));
  return { ...made, moved: made.faces.findIndex((from) => from.some((p) => p.how === (by > 0 ? 'end' : 'start'))) };
}

/** Angles nearer than this, rad, are the same. */
const SAME_ANGLE = 1e-7;

/** A tube between the two radii, as far round and as long as the face. */
function roundSlab(body: Moved, face: number, by: number, kernel: SolidKernel): Slab {
  const { axis, radius, hollow, out, aside, low, high, bounds } = roundFace(body, face, kernel);
  const to = hollow ? radius - by : radius + by;
  if (to <= 0)
    throw new StepFailure(
      `The round face has a radius of ${inMm(radius)}, and would come to nothing; offset it by less.`,
    );
  const way = axis.direction;
  const angle = (p: Vec3) => Math.atan2(dot(minus(p, axis.origin), aside), dot(minus(p, axis.origin), out));
  const angles = (straight: boolean) =>
    bounds.flatMap((curve) => ((curve.kind === 'line') === straight ? [angle(curve.middle)] : []));
  const [first, turn] = turnOf(angles(true), angles(false));
  const x = [0, 1, 2].map((i) => out[i]! * Math.cos(first) + aside[i]! * Math.sin(first)) as unknown as Vec3;
  const corners = [[Math.min(radius, to), low], [Math.max(radius, to), low], [Math.max(radius, to), high], [Math.min(radius, to), high]] as const; // prettier-ignore
  const loop: Loop = {
    pieces: corners.map((from, i) => ({
      kind: 'line',
      curve: `l${i}`,
      forward: true,
      from,
      to: corners[(i + 1) % 4]!,
    })),
    area: (high - low) * Math.abs(to - radius),
  };
  const made = kernel.revolve({ origin: axis.origin, x, y: way, normal: cross(x, way) }, [loop], axis, 0, turn);
  // Its second side runs along the larger radius, its fourth along the smaller.
  const side = to > radius ? 1 : 3;
  return { ...made, moved: made.faces.findIndex((from) => from.some((p) => p.kind === 'edge' && p.index === side)) };
}

/** Where round the axis a face begins, and how far it goes: all round, or between two straight edges. @throws StepFailure */
function turnOf(straight: readonly number[], arcs: readonly number[]): readonly [from: number, turn: number] {
  if (straight.length === 0) return [0, TAU];
  const ahead = (from: number, to: number) => (((to - from) % TAU) + TAU) % TAU;
  const [a] = straight;
  const others = straight.filter((b) => ahead(a!, b) > SAME_ANGLE && ahead(b, a!) > SAME_ANGLE);
  const [b] = others;
  if (b === undefined || others.some((c) => Math.abs(c - b) > SAME_ANGLE) || arcs.length === 0)
    throw new StepFailure(
      'One of these round faces is bounded too unevenly to be moved; change the step that made it.',
    );
  return ahead(a!, arcs[0]!) < ahead(a!, b) ? [a!, ahead(a!, b)] : [b, ahead(b, a!)];
}
