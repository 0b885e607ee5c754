/** Edges rounded and bevelled, with what each face of the result came from. */
import { KernelError, type BevelledEdge, type FaceParent, type RoundedEdge } from '@helb/core';
import type { NCollection_List_TopoDS_Shape, OpenCascadeInstance, TopoDS_Edge, TopoDS_Shape } from 'replicad-opencascadejs'; // prettier-ignore
import { itemsOf } from './combine.ts';
import { distinct, edgesOf, facesOf, ShapeIndex } from './explore.ts';
import type { Made } from './extrude.ts';
import type { Scope } from './scope.ts';

/** What the kernel's local operations tell of their outcome. */
interface Maker {
  Shape(): TopoDS_Shape;
  IsDone(): boolean;
  Generated(from: TopoDS_Shape): NCollection_List_TopoDS_Shape;
  Modified(from: TopoDS_Shape): NCollection_List_TopoDS_Shape;
  IsDeleted(from: TopoDS_Shape): boolean;
}

/** What became of a face, and what a face, edge or vertex gave rise to. */
export interface Told {
  became(face: TopoDS_Shape): readonly TopoDS_Shape[];
  gaveRiseTo(from: TopoDS_Shape): readonly TopoDS_Shape[];
}

export function told(scope: Scope, maker: Pick<Maker, 'Generated' | 'Modified' | 'IsDeleted'>): Told {
  return {
    became(face) {
      const images = itemsOf(scope, scope.keep(maker.Modified(face)));
      return images.length > 0 || maker.IsDeleted(face) ? images : [face];
    },
    gaveRiseTo: (from) => itemsOf(scope, scope.keep(maker.Generated(from))),
  };
}

export function filletEdges(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  rounded: readonly RoundedEdge[],
): Made {
  const maker = scope.keep(new oc.BRepFilletAPI_MakeFillet(solid, oc.ChFi3d_FilletShape.ChFi3d_Rational));
  const edges = edgesOf(oc, scope, solid);
  for (const { edge, from, to, via } of rounded) {
    const own = edgeAt(oc, scope, edges, edge);
    // It already goes with one it runs on from.
    if (maker.Contour(own) !== 0) continue;
    if (via)
      maker.Add(radiiAt(oc, scope, [[0, from], [via.at, via.radius], [1, to]]), own); // prettier-ignore
    else if (from === to) maker.Add(from, own);
    else maker.Add(from, to, own);
  }
  maker.Build(scope.keep(new oc.Message_ProgressRange()));
  return outcomeOf(oc, scope, solid, maker, rounded, 'rounded');
}

/** Shares of an edge's length with the radii there. */
function radiiAt(oc: OpenCascadeInstance, scope: Scope, places: readonly (readonly [number, number])[]) {
  const radii = scope.keep(new oc.NCollection_Array1_gp_Pnt2d(1, places.length));
  places.forEach(([share, radius], i) => radii.SetValue(i + 1, scope.keep(new oc.gp_Pnt2d(share, radius))));
  return radii;
}

export function chamferEdges(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  bevelled: readonly BevelledEdge[],
): Made {
  const maker = scope.keep(new oc.BRepFilletAPI_MakeChamfer(solid));
  const edges = edgesOf(oc, scope, solid);
  const faces = facesOf(oc, scope, solid);
  for (const { edge, face, onFace, onOther } of bevelled) {
    const own = edgeAt(oc, scope, edges, edge);
    if (maker.Contour(own) !== 0) continue;
    maker.Add(onFace, onOther, own, scope.keep(oc.TopoDS.Face(faces[face]!)));
  }
  maker.Build(scope.keep(new oc.Message_ProgressRange()));
  return outcomeOf(oc, scope, solid, maker, bevelled, 'bevelled');
}

function edgeAt(oc: OpenCascadeInstance, scope: Scope, edges: readonly TopoDS_Shape[], index: number): TopoDS_Edge {
  return scope.keep(oc.TopoDS.Edge(edges[index]!));
}

function outcomeOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  maker: Maker,
  worked: readonly { readonly edge: number }[],
  how: string,
): Made {
  const refused = () =>
    new KernelError(`These edges cannot be ${how} by so much; give a smaller number or fewer edges.`);
  if (!maker.IsDone()) throw refused();
  const whole = scope.keep(maker.Shape());
  const solids = distinct(oc, scope, whole, oc.TopAbs_ShapeEnum.TopAbs_SOLID);
  if (solids.length !== 1) throw refused();
  const made = historyOf(oc, scope, solid, solids[0]!, told(scope, maker));
  // Success is reported for edges that were passed over, too.
  const fresh = new Set(made.faces.flatMap((parents) => parents.flatMap((p) => (p.kind === 'edge' ? [p.index] : []))));
  if (worked.some(({ edge }) => !fresh.has(edge))) throw refused();
  return made;
}

/** Faces that stayed or changed, and those that edges and vertices gave rise to. */
export function historyOf(
  oc: OpenCascadeInstance,
  scope: Scope,
  solid: TopoDS_Shape,
  result: TopoDS_Shape,
  { became, gaveRiseTo }: Told,
): Made {
  const index = new ShapeIndex(oc, facesOf(oc, scope, result));
  const parents: FaceParent[][] = index.shapes.map(() => []);
  const tell = (image: TopoDS_Shape, parent: FaceParent) => parents[index.indexOf(image)]?.push(parent);
  facesOf(oc, scope, solid).forEach((face, f) => {
    for (const image of became(face)) tell(image, { argument: 0, kind: 'face', index: f, how: 'modified' });
  });
  const generated = (kind: 'edge' | 'vertex', from: readonly TopoDS_Shape[]) =>
    from.forEach((shape, i) => {
      for (const image of gaveRiseTo(shape)) tell(image, { argument: 0, kind, index: i, how: 'generated' });
    });
  generated('edge', edgesOf(oc, scope, solid));
  generated('vertex', distinct(oc, scope, solid, oc.TopAbs_ShapeEnum.TopAbs_VERTEX));
  return { shape: oc.TopoDS.Solid(result), faces: parents };
}
