import type {
  Box,
  EdgeFacts,
  FaceFacts,
  SolidBulk,
  SolidFacts,
  SolidHandle,
  SolidKernel,
  Vec3,
} from '../solid/kernel.ts';

/** Facts of one solid, each group asked of the kernel once, when first read. */
export class LazyFacts implements SolidFacts {
  private weighed: SolidBulk | null = null;
  private bounds: Box | null = null;
  private sound: boolean | null = null;
  private faceFacts: readonly FaceFacts[] | null = null;
  private edgeFacts: readonly EdgeFacts[] | null = null;
  private places: readonly Vec3[] | null = null;
  private edgeBends: readonly number[] | null = null;

  constructor(
    private readonly kernel: SolidKernel,
    private readonly solid: SolidHandle,
  ) {}

  private get bulk(): SolidBulk {
    return (this.weighed ??= this.kernel.bulk(this.solid));
  }
  get volume() {
    return this.bulk.volume;
  }
  get area() {
    return this.faces.reduce((sum, face) => sum + face.area, 0);
  }
  get center() {
    return this.bulk.center;
  }
  get box() {
    return (this.bounds ??= this.kernel.box(this.solid));
  }
  get valid() {
    return (this.sound ??= this.kernel.isValid(this.solid));
  }
  get faces() {
    return (this.faceFacts ??= this.kernel.faces(this.solid));
  }
  get edges() {
    return (this.edgeFacts ??= this.kernel.edges(this.solid));
  }
  get corners() {
    return (this.places ??= this.kernel.corners(this.solid));
  }
  get bends() {
    return (this.edgeBends ??= this.kernel.bends(this.solid));
  }
}
