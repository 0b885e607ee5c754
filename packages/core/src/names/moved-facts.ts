/** Facts and curves of a solid that stands elsewhere, told from those of the one it is a copy of. */
import type {
  Cone,
  EdgeCurve,
  EdgeFacts,
  FaceFacts,
  SolidFacts,
  SolidHandle,
  SolidKernel,
  Vec3,
} from '../solid/kernel.ts';
import { movedAxis, movedDirection, movedPoint, type Transform } from '../space/transform.ts';

/** Of a solid that was turned and moved, neither mirrored nor enlarged; each group is moved when first read. */
export class MovedFacts implements SolidFacts {
  private faceFacts: readonly FaceFacts[] | null = null;
  private edgeFacts: readonly EdgeFacts[] | null = null;
  private places: readonly Vec3[] | null = null;

  constructor(
    private readonly of: SolidFacts,
    private readonly to: Transform,
    /** The copy: its box cannot be told from the other’s. */
    private readonly solid: SolidHandle,
    private readonly kernel: SolidKernel,
  ) {}

  get volume() {
    return this.of.volume;
  }
  get area() {
    return this.of.area;
  }
  get valid() {
    return this.of.valid;
  }
  get bends() {
    return this.of.bends;
  }
  get center() {
    return movedPoint(this.to, this.of.center);
  }
  get box() {
    return this.kernel.box(this.solid);
  }
  get faces() {
    const { to } = this;
    return (this.faceFacts ??= this.of.faces.map((f) => ({ ...f, center: movedPoint(to, f.center), normal: f.normal && movedDirection(to, f.normal), axis: f.axis && movedAxis(to, f.axis), ...(f.cone ? { cone: movedCone(to, f.cone) } : {}) }))); // prettier-ignore
  }
  get edges() {
    const { to } = this;
    return (this.edgeFacts ??= this.of.edges.map((e) => ({ ...e, middle: movedPoint(to, e.middle), axis: e.axis && movedAxis(to, e.axis) }))); // prettier-ignore
  }
  get corners() {
    return (this.places ??= this.of.corners.map((p) => movedPoint(this.to, p)));
  }
}

const movedCone = (to: Transform, cone: Cone): Cone => ({ ...cone, tip: movedPoint(to, cone.tip), direction: movedDirection(to, cone.direction) }); // prettier-ignore

export function movedCurve(to: Transform, curve: EdgeCurve): EdgeCurve {
  const ends = { from: movedPoint(to, curve.from), to: movedPoint(to, curve.to), middle: movedPoint(to, curve.middle), samples: curve.samples.map((p) => movedPoint(to, p)) }; // prettier-ignore
  if (curve.kind !== 'ellipse') return { ...curve, ...ends };
  return { ...curve, ...ends, center: movedPoint(to, curve.center), normal: movedDirection(to, curve.normal), along: movedDirection(to, curve.along) }; // prettier-ignore
}
