/** A hole as half a profile, from its mouth down, turned about its axis. */
import { StepFailure } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf } from '../../names/name.ts';
import type { PlaceFound } from '../../slots/point/point.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import { TAU, type Vec2 } from '../../sketch/regions/primitives.ts';
import { cross, unit, type Vec3 } from '../../space/vector.ts';
import { THREADS, type Fit } from '../../standards/threads.ts';
import { inMm, refuseNone } from '../rework/rework.ts';
import type { Fresh, Making } from '../step.ts';

export type HoleForm = 'plain' | 'counterbored' | 'countersunk' | 'tapped';

/** The point of a drill, whole angle. */
const DRILL_POINT = (118 * Math.PI) / 180;
const COUNTERSINK = Math.PI / 2;

interface HoleSizes {
  readonly form: HoleForm;
  /** A key of the tables, or `own`. */
  readonly size: string;
  readonly fit: Fit | undefined;
  readonly diameter: number | undefined;
  readonly head_diameter: number | undefined;
  readonly head_depth: number | undefined;
  readonly head_angle: number | undefined;
  /** null goes through all. */
  readonly depth: number | null;
  readonly pointed: boolean | undefined;
}

export interface HoleProfile {
  /** Distance from the axis, and depth, from corner to corner. */
  readonly corners: readonly Vec2[];
  /** What each side between two corners is called; the last runs along the axis. */
  readonly roles: readonly string[];
}

/** @param reach how deep a hole through all goes, mm. @throws StepFailure where no such hole can be drilled */
export function profileOf(hole: HoleSizes, reach: number): HoleProfile {
  const { diameter, head } = sizesOf(hole);
  refuseNone(diameter, 'The diameter of a hole');
  const radius = diameter / 2;
  const depth = hole.depth ?? reach;
  refuseNone(depth, 'The depth of a hole');
  const corners: Vec2[] = [[0, 0]];
  const roles = ['mouth'];
  const to = (corner: Vec2, role: string) => {
    corners.push(corner);
    roles.push(role);
  };
  if (head) {
    if (head.diameter <= diameter)
      throw new StepFailure(
        `A head of ${inMm(head.diameter)} is no wider than the hole of ${inMm(diameter)}; give it more.`,
      );
    if (head.depth >= depth)
      throw new StepFailure(
        `The head, ${inMm(head.depth)} deep, takes up the whole depth of the hole; make the hole deeper.`,
      );
    to([head.diameter / 2, 0], head.conical ? 'sink' : 'counterbore');
    if (head.conical) to([radius, head.depth], 'bore');
    else {
      to([head.diameter / 2, head.depth], 'seat');
      to([radius, head.depth], 'bore');
    }
  } else to([radius, 0], 'bore');
  to([radius, depth], 'end');
  to([0, depth + (hole.depth !== null && hole.pointed ? radius / Math.tan(DRILL_POINT / 2) : 0)], 'axis');
  return { corners, roles };
}

interface Sizes {
  readonly diameter: number;
  readonly head: { readonly diameter: number; readonly depth: number; readonly conical: boolean } | null;
}

function sizesOf({ form, size, fit, diameter, head_diameter, head_depth, head_angle }: HoleSizes): Sizes {
  const conical = form === 'countersunk';
  const headed = conical || form === 'counterbored';
  const thread = THREADS[size];
  if (!thread) {
    if (!headed) return { diameter: diameter!, head: null };
    const depth = conical ? (head_diameter! - diameter!) / 2 / Math.tan(halfOf(head_angle!)) : head_depth!;
    return { diameter: diameter!, head: { diameter: head_diameter!, depth, conical } };
  }
  if (form === 'tapped') return { diameter: thread.tapping, head: null };
  const bore = thread.clearance[fit!];
  if (!headed) return { diameter: bore, head: null };
  const none = `The table has no ${conical ? 'countersunk' : 'socket'} head for ${thread.label}; choose another size, or give the diameters.`;
  if (conical) {
    if (thread.countersink === null) throw new StepFailure(none);
    const depth = (thread.countersink - bore) / 2 / Math.tan(COUNTERSINK / 2);
    return { diameter: bore, head: { diameter: thread.countersink, depth, conical } };
  }
  if (!thread.counterbore) throw new StepFailure(none);
  return { diameter: bore, head: { ...thread.counterbore, conical } };
}

function halfOf(angle: number): number {
  if (angle < 1e-3 || angle > Math.PI - 1e-3)
    throw new StepFailure('The angle of a countersink lies between 0° and 180°; give one that does.');
  return angle / 2;
}

/** The material of one hole. */
export function turnedHole(
  { corners, roles }: HoleProfile,
  { at, parents }: PlaceFound,
  way: Vec3,
  context: Making,
): Fresh {
  const x = unit(cross(way, Math.abs(way[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))!;
  const frame = { origin: at, x, y: way, normal: cross(x, way) };
  const loop: Loop = {
    pieces: corners.map((from, i) => ({ kind: 'line', curve: roles[i]!, forward: true, from, to: corners[(i + 1) % corners.length]! })), // prettier-ignore
    area: 1,
  };
  const { solid, faces } = context.kernel.revolve(frame, [loop], { origin: at, direction: way }, 0, TAU);
  const name = (role: string) => nameOf(context.stepId, role, parents);
  return {
    solid,
    faces,
    name: name(BODY_ROLE),
    faceNames: faces.map((from) => (from.length > 0 ? from.map((p) => name(roles[p.index]!)) : [name('new')])),
  };
}
