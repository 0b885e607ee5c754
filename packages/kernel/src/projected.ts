/** Solids seen straight onto a plane: their edges and contours, visible and hidden. */
import type { Frame, SeenKinds, SeenLine } from '@helb/core';
import type { HLRBRep_Algo, HLRBRep_HLRToShape, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { curvesOf } from './curves.ts';
import type { Scope } from './scope.ts';

interface Hiding {
  readonly algorithm: HLRBRep_Algo;
  readonly lines: HLRBRep_HLRToShape;
}

/** One for each kernel: of one that is let go of, all that it found stays in memory. */
const hidings = new WeakMap<OpenCascadeInstance, Hiding>();

function hidingOf(oc: OpenCascadeInstance): Hiding {
  const known = hidings.get(oc);
  if (known) return known;
  const algorithm = new oc.HLRBRep_Algo();
  const made = { algorithm, lines: new oc.HLRBRep_HLRToShape(algorithm) };
  hidings.set(oc, made);
  return made;
}

/** Curves come flat, x and y along the frame, z nothing. Seams, over which one surface runs on, are left out. */
export function projectedLines(
  oc: OpenCascadeInstance,
  scope: Scope,
  shapes: readonly TopoDS_Shape[],
  frame: Frame,
  { hidden: withHidden, smooth: withSmooth }: SeenKinds,
): SeenLine[] {
  const axes = scope.keep(
    new oc.gp_Ax2(
      scope.keep(new oc.gp_Pnt(...frame.origin)),
      scope.keep(new oc.gp_Dir(...frame.normal)),
      scope.keep(new oc.gp_Dir(...frame.x)),
    ),
  );
  const hiding = hidingOf(oc);
  const { algorithm, lines } = hiding;
  while (algorithm.NbShapes() > 0) algorithm.Remove(1);
  for (const shape of shapes) algorithm.Add(shape, 0);
  algorithm.Projector(scope.keep(new oc.HLRAlgo_Projector(axes)));
  // What it fell short in is not gone on with.
  hidings.delete(oc);
  algorithm.Update();
  algorithm.Hide();
  hidings.set(oc, hiding);
  const kinds = [
    ['sharp', false, (s: TopoDS_Shape) => lines.VCompound(s)],
    ['contour', false, (s: TopoDS_Shape) => lines.OutLineVCompound(s)],
    ['smooth', false, (s: TopoDS_Shape) => lines.Rg1LineVCompound(s)],
    ['sharp', true, (s: TopoDS_Shape) => lines.HCompound(s)],
    ['contour', true, (s: TopoDS_Shape) => lines.OutLineHCompound(s)],
  ] as const;
  return shapes.flatMap((shape, solid) =>
    kinds.flatMap(([kind, hidden, of]): SeenLine[] => {
      if ((hidden && !withHidden) || (kind === 'smooth' && !withSmooth)) return [];
      const compound = of(shape);
      if (compound.IsNull()) return [];
      scope.keep(compound);
      oc.BRepLib.BuildCurves3d(compound);
      return curvesOf(oc, scope, compound).map((curve) => ({ curve, solid, kind, hidden }));
    }),
  );
}
