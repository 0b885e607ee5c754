/** Solids hollowed out, and faces slanted for a mould. */
import { KernelError, type FaceParent, type Frame } from '@helb/core';
import type { GeomAbs_JoinType, OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { combineSolids, itemsOf, listOf } from './combine.ts';
import { historyOf, told } from './edges-worked.ts';
import { tightest } from './curvature.ts';
import { distinct, edgesOf, facesOf, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import { point } from './profile.ts';
import type { Scope } from './scope.ts';

/** How near, mm, the kernel brings the ends of offset faces together. */
const JOINED = 1e-3;

export function shellSolid(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  open: readonly number[],
  thickness: number,
  outward: boolean,
): Made {
  const faces = facesOf(oc, scope, solid);
  refuseOverRadius(oc, scope, faces.filter((_, f) => !open.includes(f)), thickness, outward); // prettier-ignore
  if (open.length === 0) return closedShell(oc, scope, solid, thickness, outward);
  const { GeomAbs_Arc, GeomAbs_Intersection } = oc.GeomAbs_JoinType;
  // Inside, corners stay corners; outside they would be drawn out without end.
  if (outward) return openShell(oc, scope, solid, open, thickness, GeomAbs_Arc, false);
  try {
    return openShell(oc, scope, solid, open, -thickness, GeomAbs_Intersection, false);
  } catch (error) {
    if (!(error instanceof KernelError)) throw error;
    // Freely curved sides that are cut off at a slant come only with the inner corners rounded by the wall.
    return openShell(oc, scope, solid, open, -thickness, GeomAbs_Arc, true);
  }
}

function openShell(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  open: readonly number[],
  offset: number,
  join: GeomAbs_JoinType,
  intersect: boolean,
): Made {
  const faces = facesOf(oc, scope, solid);
  const maker = scope.keep(new oc.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidByJoin(
    solid,
    listOf(
      oc,
      scope,
      open.map((f) => faces[f]!),
    ),
    offset,
    JOINED,
    oc.BRepOffset_Mode.BRepOffset_Skin,
    intersect,
    false,
    join,
    false,
    scope.keep(new oc.Message_ProgressRange()),
  );
  if (!maker.IsDone()) throw tooThick();
  const solids = distinct(oc, scope, scope.keep(maker.Shape()), oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  if (solids.length !== 1) throw tooThick();
  const made = withInside(oc, scope, solid, solids[0]!, maker, open);
  // A wall thicker than the part gives the part back as it was.
  if (!made.faces.some((parents) => parents.some((p) => p.how === 'inner'))) throw tooThick();
  return made;
}

/** Offset by its radius or more, a rounded face turns inside out; the kernel makes something of it and finds it sound. */
export function refuseOverRadius(
  oc: OpenCascadeInstance,
  scope: Scope,
  faces: readonly TopoDS_Shape[],
  thickness: number,
  outward: boolean,
): void {
  const { convex, hollow } = tightest(oc, scope, faces);
  const radius = outward ? hollow : convex;
  if (thickness < radius - JOINED) return;
  const rounding = `the smallest rounding is ${Number(radius.toFixed(3))} mm`;
  throw new KernelError(`Walls cannot be so thick here, as ${rounding}.`, rounding);
}

const tooThick = () =>
  new KernelError('This cannot be hollowed out with walls so thick; give a smaller thickness or open other faces.');

/** Faces that gave rise to others have those behind them; an open face became the rim. */
function withInside(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  result: TopoDS_Shape,
  maker: Parameters<typeof told>[1],
  open: readonly number[],
): Made {
  const made = historyOf(oc, scope, solid, result, told(scope, maker));
  const index = new ShapeIndex(oc, facesOf(oc, scope, result));
  const faces = made.faces.map((own) => [...own]);
  facesOf(oc, scope, solid).forEach((face, f) => {
    const how: FaceParent['how'] = open.includes(f) ? 'modified' : 'inner';
    for (const image of itemsOf(scope, scope.keep(maker.Generated(face)))) {
      const at = index.indexOf(image);
      if (at >= 0 && faces[at]!.length === 0) faces[at]!.push({ argument: 0, kind: 'face', index: f, how });
    }
  });
  return { shape: made.shape, faces };
}

/** Without an open face the hollow is what lies inside the offset faces, taken away. */
function closedShell(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  thickness: number,
  outward: boolean,
): Made {
  const maker = scope.keep(new oc.BRepOffsetAPI_MakeOffsetShape());
  maker.PerformByJoin(
    solid,
    outward ? thickness : -thickness,
    JOINED,
    oc.BRepOffset_Mode.BRepOffset_Skin,
    false,
    false,
    outward ? oc.GeomAbs_JoinType.GeomAbs_Arc : oc.GeomAbs_JoinType.GeomAbs_Intersection,
    false,
    scope.keep(new oc.Message_ProgressRange()),
  );
  if (!maker.IsDone()) throw tooThick();
  const offset = distinct(oc, scope, scope.keep(maker.Shape()), oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  if (offset.length !== 1) throw tooThick();
  const index = new ShapeIndex(oc, facesOf(oc, scope, offset[0]!));
  const behind: FaceParent[][] = index.shapes.map(() => []);
  const tell = (kind: FaceParent['kind'], how: FaceParent['how'], shapes: readonly TopoDS_Shape[]) =>
    shapes.forEach((shape, i) => {
      for (const image of itemsOf(scope, scope.keep(maker.Generated(shape))))
        behind[index.indexOf(image)]?.push({ argument: 0, kind, index: i, how });
    });
  tell('face', 'inner', facesOf(oc, scope, solid));
  tell('edge', 'generated', edgesOf(oc, scope, solid));
  tell('vertex', 'generated', distinct(oc, scope, solid, oc.TopAbs_ShapeEnum.TopAbs_VERTEX));
  const [outer, inner] = outward ? [offset[0]!, solid] : [solid, offset[0]!];
  const cut = combineSolids(oc, scope, 'cut', [outer], [inner]);
  if (cut.length !== 1) throw tooThick();
  const hollow = outward ? 0 : 1;
  const faces = cut[0]!.faces.map((parents) =>
    parents.flatMap((p) => (p.argument === hollow ? behind[p.index]! : [{ ...p, argument: 0 }])),
  );
  return { shape: cut[0]!.shape, faces };
}

export function draftFaces(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  slanted: readonly number[],
  neutral: Frame,
  angle: number,
): Made {
  const maker = scope.keep(new oc.BRepOffsetAPI_DraftAngle(solid));
  const faces = facesOf(oc, scope, solid);
  const normal = scope.keep(new oc.gp_Dir(...neutral.normal));
  const plane = scope.keep(new oc.gp_Pln(point(oc, scope, neutral.origin), normal));
  for (const f of slanted) {
    maker.Add(scope.keep(oc.TopoDS.Face(faces[f]!)), normal, angle, plane, true);
    if (!maker.AddDone())
      throw new KernelError('One of these faces cannot be slanted; only flat and round faces can, and their smooth neighbours with them.'); // prettier-ignore
  }
  maker.Build(scope.keep(new oc.Message_ProgressRange()));
  if (!maker.IsDone()) throw new KernelError('These faces cannot be slanted by so much; give a smaller angle.');
  const solids = distinct(oc, scope, scope.keep(maker.Shape()), oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  if (solids.length !== 1) throw new KernelError('These faces cannot be slanted by so much; give a smaller angle.');
  return historyOf(oc, scope, solid, solids[0]!, {
    became: (face) => [scope.keep(maker.ModifiedShape(face))],
    gaveRiseTo: () => [],
  });
}
