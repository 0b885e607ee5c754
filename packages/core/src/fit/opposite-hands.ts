/** Parts that stand opposite each other as left and right hand do, and are nearly, but not quite, each other’s mirror. */
import { KernelError, type Box, type SolidHandle, type SolidKernel } from '../solid/kernel.ts';
import { transformOf } from '../space/pose.ts';
import { followedBy, mirrorIn } from '../space/transform.ts';
import type { Vec3 } from '../space/vector.ts';
import { standingBox, type Standing } from './standing.ts';

export interface NotMirrored {
  /** Places among those that stand. */
  readonly i: number;
  readonly j: number;
  /** In which they differ, mm³. */
  readonly volume: number;
  /** Amid the largest piece of it. */
  readonly at: Vec3;
}

/** Of the larger size: boxes that differ by more are not each other’s image. */
const BOX_OFF = 0.02;
/** Of the volume: what differs by more is not meant to be the other hand. */
const MEANT = 0.05;
/** Of the volume: less is the rounding of solved sketches. */
const ROUNDED = 1e-6;

/** What cannot be compared is left out. */
export async function notMirrored(
  standing: readonly Standing[],
  kernel: SolidKernel,
  breathe: () => Promise<void> = async () => {},
): Promise<NotMirrored[]> {
  const boxes = standing.map(standingBox);
  const found: NotMirrored[] = [];
  for (const [i, one] of standing.entries())
    for (const [n, other] of standing.slice(i + 1).entries()) {
      const j = i + 1 + n;
      // Of one part, as many as are wanted are made alike.
      if (one.bodies.length === 0 || one.bodies[0]!.key === other.bodies[0]?.key) continue;
      const plane = planeBetween(boxes[i]!, boxes[j]!);
      if (!plane) continue;
      await breathe();
      const differ = difference(one, other, plane, kernel);
      if (differ) found.push({ i, j, ...differ });
    }
  return found;
}

/** The plane square to an axis in which one box is the other’s image. */
function planeBetween(a: Box, b: Box): { readonly origin: Vec3; readonly normal: Vec3 } | null {
  const off = BOX_OFF * Math.max(...[0, 1, 2].map((k) => a.max[k]! - a.min[k]!));
  const near = (p: number, q: number) => Math.abs(p - q) <= off;
  for (const k of [0, 1, 2]) {
    const others = [0, 1, 2].filter((o) => o !== k);
    const sum = (a.min[k]! + a.max[k]! + b.min[k]! + b.max[k]!) / 2;
    const apart = a.max[k]! <= b.min[k]! || b.max[k]! <= a.min[k]!;
    if (!apart || !near(sum - a.min[k]!, b.max[k]!) || !near(sum - a.max[k]!, b.min[k]!)) continue;
    if (!others.every((o) => near(a.min[o]!, b.min[o]!) && near(a.max[o]!, b.max[o]!))) continue;
    const unit = (by: number) => [0, 1, 2].map((o) => (o === k ? by : 0)) as unknown as Vec3;
    return { origin: unit(sum / 2), normal: unit(1) };
  }
  return null;
}

function difference(
  one: Standing,
  other: Standing,
  plane: { readonly origin: Vec3; readonly normal: Vec3 },
  kernel: SolidKernel,
): { readonly volume: number; readonly at: Vec3 } | null {
  const whole = ({ bodies }: Standing) => bodies.reduce((sum, b) => sum + b.facts.volume, 0);
  const size = Math.max(whole(one), whole(other));
  if (Math.abs(whole(one) - whole(other)) > MEANT * size) return null;
  const made: SolidHandle[] = [];
  const kept = (solid: SolidHandle) => (made.push(solid), solid);
  try {
    const image = one.bodies.map((b) => kept(kernel.placed(b.solid, followedBy(transformOf(one.pose), mirrorIn(plane))).solid)); // prettier-ignore
    const real = other.bodies.map((b) => kept(kernel.placed(b.solid, transformOf(other.pose)).solid));
    const pieces = [kernel.combine('cut', image, real), kernel.combine('cut', real, image)].flat().map((m) => kernel.bulk(kept(m.solid))); // prettier-ignore
    const volume = pieces.reduce((sum, p) => sum + p.volume, 0);
    if (volume <= ROUNDED * size || volume > MEANT * size) return null;
    return { volume, at: pieces.reduce((a, b) => (b.volume > a.volume ? b : a)).center };
  } catch (error) {
    if (!(error instanceof KernelError)) throw error;
    return null;
  } finally {
    for (const solid of made) kernel.free(solid);
  }
}
