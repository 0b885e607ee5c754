/** The core's SolidKernel on OpenCASCADE. */
import {
  KernelError, type Axis, type BooleanKind, type Box, type EdgeCurve, type EdgeFacts, type FaceFacts, type Frame, type Loop, type MadeSolid,
  type MeshQuality, type SolidBulk, type SolidHandle, type SolidKernel, type SolidMesh, type SolidPiece,
} from '@helb/core'; // prettier-ignore
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { combineSolids } from './combine.ts';
import { curvesOf, outlineOf, sectionOf } from './curves.ts';
import { boxOf, describeEdges, describeFaces, estimateBytes, isSound } from './describe.ts';
import { volumeOf } from './exact-measures.ts';
import { pieceOf, shortestDistance } from './distance.ts';
import { writeStep } from './export-step.ts';
import { extrudeLoops } from './extrude.ts';
import { revolveLoops } from './revolve.ts';
import { meshSolid } from './mesh.ts';
import { scoped, type Scope } from './scope.ts';

export class OcctKernel implements SolidKernel {
  private readonly solids = new Map<number, TopoDS_Shape>();
  private readonly sizes = new Map<number, number>();
  private next = 1;

  constructor(private readonly oc: OpenCascadeInstance) {}

  get held(): number {
    return this.solids.size;
  }

  extrude(frame: Frame, loops: readonly Loop[], from: number, to: number): MadeSolid {
    return this.guarded('The kernel could not extrude this region; look for lines that nearly touch', () => {
      const made = scoped((scope) => extrudeLoops(this.oc, scope, frame, loops, from, to));
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  revolve(frame: Frame, loops: readonly Loop[], axis: Axis, from: number, to: number): MadeSolid {
    return this.guarded(
      'The kernel could not turn this region about the axis; look for lines that nearly touch it',
      () => {
        const made = scoped((scope) => revolveLoops(this.oc, scope, frame, loops, axis, from, to));
        return { solid: this.hold(made.shape), faces: made.faces };
      },
    );
  }

  combine(kind: BooleanKind, targets: readonly SolidHandle[], tools: readonly SolidHandle[]): MadeSolid[] {
    const what = kind === 'join' ? 'join these bodies' : 'cut this body';
    return this.guarded(`The kernel could not ${what}; look for faces that nearly coincide`, () =>
      scoped((scope) =>
        combineSolids(this.oc, scope, kind, targets.map(this.shape), tools.map(this.shape)).map(({ shape, faces }) => ({
          solid: this.hold(shape),
          faces,
        })),
      ),
    );
  }

  bulk(solid: SolidHandle): SolidBulk {
    return this.about(solid, volumeOf);
  }

  box(solid: SolidHandle): Box {
    return this.about(solid, boxOf);
  }

  isValid(solid: SolidHandle): boolean {
    return this.about(solid, isSound);
  }

  faces(solid: SolidHandle): FaceFacts[] {
    return this.about(solid, describeFaces);
  }

  edges(solid: SolidHandle): EdgeFacts[] {
    return this.about(solid, describeEdges);
  }

  curves(solid: SolidHandle): EdgeCurve[] {
    return this.about(solid, curvesOf);
  }

  section(solid: SolidHandle, frame: Frame): EdgeCurve[] {
    return this.about(solid, (oc, scope, shape) => sectionOf(oc, scope, shape, frame));
  }

  outline(solid: SolidHandle, frame: Frame): EdgeCurve[] {
    return this.about(solid, (oc, scope, shape) => outlineOf(oc, scope, shape, frame));
  }

  distance(one: SolidPiece, other: SolidPiece): number {
    return this.guarded('The kernel could not measure this distance', () =>
      scoped((scope) => {
        const [a, b] = [one, other].map((piece) => pieceOf(this.oc, scope, this.shape(piece.solid), piece));
        return shortestDistance(this.oc, scope, a!, b!);
      }),
    );
  }

  private about<T>(solid: SolidHandle, ask: (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape) => T): T {
    return this.guarded('The kernel could not measure this body', () =>
      scoped((scope) => ask(this.oc, scope, this.shape(solid))),
    );
  }

  mesh(solid: SolidHandle, quality: MeshQuality): SolidMesh {
    return this.guarded('The kernel could not draw this body', () =>
      scoped((scope) => meshSolid(this.oc, scope, this.shape(solid), quality)),
    );
  }

  exportStep(parts: readonly { name: string; solids: readonly SolidHandle[] }[]): Uint8Array {
    return this.guarded('The STEP file could not be written', () =>
      scoped((scope) =>
        writeStep(
          this.oc,
          scope,
          parts.map(({ name, solids }) => ({ name, shapes: solids.map(this.shape) })),
        ),
      ),
    );
  }

  sizeOf(solid: SolidHandle): number {
    const known = this.sizes.get(solid);
    if (known !== undefined) return known;
    const size = this.about(solid, estimateBytes);
    this.sizes.set(solid, size);
    return size;
  }

  free(solid: SolidHandle): void {
    this.solids.get(solid)?.delete();
    this.solids.delete(solid);
    this.sizes.delete(solid);
  }

  private hold(shape: TopoDS_Shape): SolidHandle {
    const handle = this.next++;
    this.solids.set(handle, shape);
    return handle as SolidHandle;
  }

  private shape = (solid: SolidHandle): TopoDS_Shape => {
    const shape = this.solids.get(solid);
    if (!shape) throw new Error(`solid ${solid} was freed`);
    return shape;
  };

  /** Kernel failures arrive as WebAssembly exceptions; the user gets a sentence, never the stack. */
  private guarded<T>(sentence: string, work: () => T): T {
    try {
      return work();
    } catch (error) {
      if (error instanceof KernelError) throw error;
      if (error instanceof (WebAssembly as unknown as { Exception: new () => Error }).Exception)
        throw new KernelError(`${sentence}.`);
      throw error;
    }
  }
}
