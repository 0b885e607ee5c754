/** Walking the sub-shapes of a shape, each once, in the kernel's order. */
import type { OpenCascadeInstance, TopAbs_ShapeEnum, TopExp_Explorer, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

const HASH_RANGE = 2147483647;

export function hashOf(oc: OpenCascadeInstance, shape: TopoDS_Shape): number {
  return oc.ReplicadShapeHasher.HashCode(shape, HASH_RANGE);
}

/** Finds a shape's index whatever its orientation. */
export class ShapeIndex {
  private readonly byHash = new Map<number, { shape: TopoDS_Shape; index: number }[]>();

  constructor(
    private readonly oc: OpenCascadeInstance,
    readonly shapes: readonly TopoDS_Shape[],
  ) {
    shapes.forEach((shape, index) => this.put(shape, index));
  }

  private put(shape: TopoDS_Shape, index: number): void {
    const hash = hashOf(this.oc, shape);
    const same = this.byHash.get(hash);
    if (same) same.push({ shape, index });
    else this.byHash.set(hash, [{ shape, index }]);
  }

  indexOf(shape: TopoDS_Shape): number {
    return this.byHash.get(hashOf(this.oc, shape))?.find((e) => e.shape.IsSame(shape))?.index ?? -1;
  }
}

/** One for each kernel: of an explorer that is let go of, some hundred bytes stay in memory. */
const explorers = new WeakMap<OpenCascadeInstance, TopExp_Explorer>();

/** Every occurrence, in order. */
export function occurrences(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const explorer = explorers.get(oc) ?? new oc.TopExp_Explorer();
  explorers.set(oc, explorer);
  const found: TopoDS_Shape[] = [];
  for (explorer.Init(shape, kind, oc.TopAbs_ShapeEnum.TopAbs_SHAPE); explorer.More(); explorer.Next())
    found.push(scope.keep(explorer.Current()));
  // It does not hold on to the shape.
  explorer.Clear();
  return found;
}

/** Each sub-shape once, in order of first occurrence. */
export function distinct(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
  kind: TopAbs_ShapeEnum,
): TopoDS_Shape[] {
  const seen = new Map<number, TopoDS_Shape[]>();
  return occurrences(oc, scope, shape, kind).filter((s) => {
    const hash = hashOf(oc, s);
    const same = seen.get(hash);
    if (same?.some((other) => other.IsSame(s))) return false;
    if (same) same.push(s);
    else seen.set(hash, [s]);
    return true;
  });
}

export function facesOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): TopoDS_Shape[] {
  return distinct(oc, scope, shape, oc.TopAbs_ShapeEnum.TopAbs_FACE);
}

export function edgesOf(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape): TopoDS_Shape[] {
  return distinct(oc, scope, shape, oc.TopAbs_ShapeEnum.TopAbs_EDGE);
}
