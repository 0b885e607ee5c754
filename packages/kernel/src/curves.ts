/** The exact curves of edges: of a solid, and of its section with a plane. */
import { KernelError, type EdgeCurve, type Frame, type Vec3 } from '@helb/core';
import type { gp_Ax2, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { edgesOf } from './explore.ts';
import type { Scope } from './scope.ts';

/** Enough to draw a freely curved edge by. */
const SAMPLES = 17;

export function curvesOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): EdgeCurve[] {
  return edgesOf(oc, scope, shape).map((edge) => curveOf(oc, scope, edge));
}

const evenly = (from: Vec3, to: Vec3): Vec3[] =>
  Array.from({ length: SAMPLES }, (_, i) => {
    const t = i / (SAMPLES - 1);
    return [0, 1, 2].map((k) => (i === SAMPLES - 1 ? to[k]! : from[k]! + t * (to[k]! - from[k]!))) as unknown as Vec3;
  });

function curveOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): EdgeCurve {
  const edge = scope.keep(oc.TopoDS.Edge(shape));
  const curve = scope.keep(new oc.BRepAdaptor_Curve(edge));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const at = (t: number): Vec3 => {
    const p = scope.keep(curve.Value(t));
    return [p.X(), p.Y(), p.Z()];
  };
  const kind = curve.GetType() as unknown as string;
  // Of a straight line two places say all; the kernel is asked for no more.
  const samples = kind === 'GeomAbs_Line' ? evenly(at(first), at(last)) : Array.from({ length: SAMPLES }, (_, i) => at(first + ((last - first) * i) / (SAMPLES - 1))); // prettier-ignore
  const ends = { from: samples[0]!, to: samples.at(-1)!, middle: samples[(SAMPLES - 1) / 2]!, samples };
  if (kind === 'GeomAbs_Line') return { kind: 'line', ...ends };
  if (kind === 'GeomAbs_Circle') {
    const circle = scope.keep(curve.Circle());
    const axes = axesOf(scope, scope.keep(circle.Position()));
    const r = circle.Radius();
    return { kind: 'ellipse', ...ends, ...axes, major: r, minor: r, whole: last - first > 2 * Math.PI - 1e-9 };
  }
  if (kind === 'GeomAbs_Ellipse') {
    const ellipse = scope.keep(curve.Ellipse());
    const axes = axesOf(scope, scope.keep(ellipse.Position()));
    const whole = last - first > 2 * Math.PI - 1e-9;
    return { kind: 'ellipse', ...ends, ...axes, major: ellipse.MajorRadius(), minor: ellipse.MinorRadius(), whole };
  }
  return { kind: 'other', ...ends };
}

function axesOf(scope: Scope, position: gp_Ax2): { center: Vec3; normal: Vec3; along: Vec3 } {
  const vec = (v: { X(): number; Y(): number; Z(): number }): Vec3 => [v.X(), v.Y(), v.Z()];
  return {
    center: vec(scope.keep(position.Location())),
    normal: vec(scope.keep(position.Direction())),
    along: vec(scope.keep(position.XDirection())),
  };
}

/** Where a plane cuts a solid. @throws KernelError */
export function sectionOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape, frame: Frame): EdgeCurve[] {
  const plane = scope.keep(
    new oc.gp_Pln(scope.keep(new oc.gp_Pnt(...frame.origin)), scope.keep(new oc.gp_Dir(...frame.normal))),
  );
  const section = scope.keep(new oc.BRepAlgoAPI_Section(shape, plane, true));
  if (!section.IsDone()) throw new KernelError('The kernel could not cut this body with the sketch plane.');
  return curvesOf(oc, scope, scope.keep(section.Shape()));
}
