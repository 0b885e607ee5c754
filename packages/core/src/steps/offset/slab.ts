/** What lies between a face and where it is moved to: a slab of material to add or to take away. */
import { StepFailure, type Body } from '../../names/body.ts';
import { roundFace } from '../../slots/faces/round-face.ts';
import { flatFace } from '../../slots/regions/face-profile.ts';
import { leaningOf } from '../../slots/regions/leaning.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import type { FaceParent, MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { cross, dot, minus, type Frame, type Vec3 } from '../../space/vector.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import { inMm } from '../rework/rework.ts';
import { heightsTo, leaningSlab, type Leant } from './leaning-slab.ts';

export type Moved = Pick<Body, 'solid' | 'facts' | 'faceNames'>;

export interface Slab extends MadeSolid {
  /** Which of its faces is the moved one. */
  readonly moved: number;
  /** Of each of its faces the one of the body that it carries on, where they may stay two. */
  readonly carries: readonly (number | null)[];
}

/** Where a face is moved: so many mm along its outward normal, below 0 taking material away; or a flat one to a plane. */
export type Target = { readonly by: number } | { readonly to: Frame; readonly adds: boolean };

export const isAdding = (target: Target): boolean => ('by' in target ? target.by > 0 : target.adds);

/** @throws StepFailure, KernelError */
export function slabOf(body: Moved, face: number, target: Target, kernel: SolidKernel): Slab {
  if (!body.facts.faces[face]!.normal) {
    if ('by' in target) return roundSlab(body, face, target.by, kernel);
    throw new StepFailure('Only a flat face can be brought to a plane; pick flat ones.');
  }
  const { frame, area, edges } = flatFace(body, face, kernel);
  const leant = { frame, loops: area.loops, leaning: leaningOf(body, edges) };
  // What runs on smoothly is moved by itself, and is not carried on.
  const beside = area.loops
    .flatMap((l) => l.pieces)
    .map((p) => (leant.leaning.get(p.curve) === null ? null : body.facts.edges[edges.get(p.curve)!]!.faces.find((f) => f !== face) ?? null)); // prettier-ignore
  if ('to' in target) return slabUpTo(leant, beside, target, kernel);
  const made = leaningSlab(leant, target.by, kernel);
  const far = target.by > 0 ? 'end' : 'start';
  return {
    ...made,
    moved: made.faces.findIndex((from) => from.some((p) => p.how === far)),
    carries: made.faces.map((from) => carriedBy(from, beside)),
  };
}

/** @param beside of each piece of the outline the face of the body */
function carriedBy(from: readonly FaceParent[], beside: readonly (number | null)[]): number | null {
  const side = from.find((p) => p.kind === 'edge');
  return side ? (beside[side.index] ?? null) : null;
}

/** Beyond a plane that cuts it off, mm. */
const BEYOND = 0.1;

/** From the face to a plane that may lean. */
function slabUpTo(
  leant: Leant,
  beside: readonly (number | null)[],
  { to, adds }: Extract<Target, { to: Frame }>,
  kernel: SolidKernel,
): Slab {
  const heights = heightsTo(leant, to);
  const long = leaningSlab(leant, adds ? Math.max(...heights) + BEYOND : Math.min(...heights) - BEYOND, kernel);
  try {
    const pieces = kernel.split([long.solid], { kind: 'plane', frame: to });
    const here = (p: FaceParent) => p.argument === 0 && long.faces[p.index]!.some((q) => q.how === (adds ? 'start' : 'end')); // prettier-ignore
    const own = pieces.find(({ faces }) => faces.some((parents) => parents.some(here)));
    for (const piece of pieces) if (piece !== own) kernel.free(piece.solid);
    if (!own) throw new StepFailure('This face never meets the plane; choose another.');
    return {
      ...own,
      moved: own.faces.findIndex((parents) => parents.some((p) => p.argument > 0)),
      carries: own.faces.map((parents) => carriedBy(parents.flatMap((p) => (p.argument === 0 ? long.faces[p.index]! : [])), beside)), // prettier-ignore
    };
  } finally {
    kernel.free(long.solid);
  }
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
  return {
    ...made,
    moved: made.faces.findIndex((from) => from.some((p) => p.kind === 'edge' && p.index === side)),
    carries: made.faces.map(() => null),
  };
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
