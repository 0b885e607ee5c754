/** How sharply faces are rounded. */
import type { Vec3 } from '@helb/core';
import type { BRepAdaptor_Surface, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

/** Places looked at along each parameter; corners of the face's range among them. */
const PLACES = 7;

/**
 * The smallest radius, mm, of the rounding of faces towards their inside (as of a ball) and towards their outside
 * (as of a bore); Infinity where there is none. Principal curvatures from the two fundamental forms.
 */
export function tightest(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
): { readonly convex: number; readonly hollow: number } {
  let [convex, hollow] = [0, 0];
  for (const shape of faces) {
    const face = scope.keep(oc.TopoDS.Face(shape));
    const surface = scope.keep(new oc.BRepAdaptor_Surface(face, true));
    if (String(surface.GetType()) === 'GeomAbs_Plane') continue;
    const sign = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED ? -1 : 1;
    const [u0, u1] = [surface.FirstUParameter(), surface.LastUParameter()];
    const [v0, v1] = [surface.FirstVParameter(), surface.LastVParameter()];
    for (let i = 0; i < PLACES; i++)
      for (let j = 0; j < PLACES; j++) {
        const at = (k: number, a: number, b: number) => a + (k / (PLACES - 1)) * (b - a);
        for (const k of curvatures(surface, at(i, u0, u1), at(j, v0, v1))) {
          convex = Math.max(convex, -sign * k);
          hollow = Math.max(hollow, sign * k);
        }
      }
  }
  return { convex: 1 / convex, hollow: 1 / hollow };
}

/** Principal curvatures seen from the side of Sᵤ × Sᵥ; none where the surface comes to a point. */
function curvatures(surface: BRepAdaptor_Surface, u: number, v: number): number[] {
  // Of offset surfaces the kernel's EvalDN is wrong.
  const { Point, D1U, D1V, D2U, D2V, D2UV } = surface.EvalD2(u, v);
  const [su, sv, suu, svv, suv] = [D1U, D1V, D2U, D2V, D2UV].map((w): Vec3 => [w.X(), w.Y(), w.Z()]) as [Vec3, Vec3, Vec3, Vec3, Vec3]; // prettier-ignore
  for (const used of [Point, D1U, D1V, D2U, D2V, D2UV]) used.delete();
  const n: Vec3 = [su[1] * sv[2] - su[2] * sv[1], su[2] * sv[0] - su[0] * sv[2], su[0] * sv[1] - su[1] * sv[0]];
  const [e, f, g] = [dot(su, su), dot(su, sv), dot(sv, sv)];
  const area = e * g - f * f;
  if (!(area > 1e-12 * e * g)) return [];
  const size = Math.sqrt(area);
  const [l, m, o] = [dot(suu, n) / size, dot(suv, n) / size, dot(svv, n) / size];
  const mean = (e * o - 2 * f * m + g * l) / (2 * area);
  const root = Math.sqrt(Math.max(0, mean * mean - (l * o - m * m) / area));
  return [mean + root, mean - root];
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
