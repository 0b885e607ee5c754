/** The core's SolidKernel on OpenCASCADE. */
import {
  followedBy, KernelDown, KernelError, STAY, type Axis, type BevelledEdge, type BooleanKind, type Box, type Cutter, type EdgeCurve, type EdgeFacts, type FaceFacts, type Frame, type Inertia, type Loop, type LoftSection, type MadeSolid,
  type MeshQuality, type Transform, type PathPiece, type RoundedEdge, type SeenKinds, type SeenLine, type SolidBulk, type SolidHandle, type SolidKernel, type SolidMesh, type SolidPiece, type StepPart, type ThreadSleeve, type Upright, type Vec3, type Winding, type Woven,
} from '@helb/core'; // prettier-ignore
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { bendsOf } from './bends.ts';
import { combineSolids, hasRing, soundlyCombined } from './combine.ts';
import { combineLocally } from './local-combine.ts';
import { placesOf } from './face-places.ts';
import { curvesOf, sectionOf } from './curves.ts';
import { boxOf, cornersOf, describeEdges, describeFaces, estimateBytes, isSound } from './describe.ts';
import { hasFreeFaces, volumeOf } from './exact-measures.ts';
import { inertiaOf } from './inertia.ts';
import { pieceOf, shortestDistance } from './distance.ts';
import { writeStep } from './export-step.ts';
import { chamferEdges, filletEdges } from './edges-worked.ts';
import { HeldSolids } from './held-solids.ts';
import { faceOutline } from './face-outline.ts';
import { extrudeLoops, type Made } from './extrude.ts';
import { draftFaces, shellSolid } from './hollow.ts';
import { readStep } from './import-step.ts';
import { threadSleeve } from './thread-sleeve.ts';
import { thickenFace } from './thicken.ts';
import { splitSolids } from './split.ts';
import { loftSections } from './loft.ts';
import { sweepLoops } from './sweep.ts';
import { wovenSolid } from './woven.ts';
import { woundSolid } from './wound.ts';
import { placeSolid } from './place.ts';
import { projectedLines } from './projected.ts';
import { revolveLoops } from './revolve.ts';
import { plugOf } from './plug.ts';
import { meshSolid } from './mesh.ts';
import { scoped, type Scope } from './scope.ts';

const WORDS: Readonly<Record<BooleanKind, string>> = {
  join: 'join these bodies',
  cut: 'cut this body',
  common: 'find what these bodies have in common',
};

/** Of bodies with fewer, and fewer tools, the kernel’s own way takes no longer. */
const MANY_FACES = 24;
const MANY_TOOLS = 4;

export class OcctKernel implements SolidKernel {
  private readonly solids = new HeldSolids();
  /** It fell over, and what its heap holds is not to be trusted. */
  private down = false;

  constructor(
    private oc: OpenCascadeInstance,
    private readonly load: () => Promise<OpenCascadeInstance>,
  ) {}

  get isDown(): boolean {
    return this.down;
  }

  async restart(): Promise<void> {
    this.oc = await this.load();
    this.solids.forget();
    this.down = false;
  }

  get held(): number {
    return this.solids.count;
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

  sweep(frame: Frame, loops: readonly Loop[], path: readonly PathPiece[], upright: Upright, grown: number): MadeSolid {
    return this.guarded('The kernel could not carry this region along the path; look for sharp bends', () => {
      const made = scoped((scope) =>
        sweepLoops(this.oc, scope, frame, loops, { path, upright, grown }, (s) => this.shape(s as SolidHandle)),
      );
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  woven(woven: Woven): MadeSolid {
    return this.guarded('The kernel could not close the sides of this body; change what leads them a little', () => {
      const made = scoped((scope) => wovenSolid(this.oc, scope, woven));
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  wound(frame: Frame, loops: readonly Loop[], on: Winding): MadeSolid {
    return this.guarded('The kernel could not wind this area round the face; simplify its outline', () => {
      const made = scoped((scope) => woundSolid(this.oc, scope, frame, loops, on));
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  loft(sections: readonly LoftSection[], ruled: boolean, closed: boolean): MadeSolid {
    return this.guarded('The kernel could not make a body through these sections; move or turn one of them', () => {
      const made = scoped((scope) => loftSections(this.oc, scope, sections, ruled, closed));
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  combine(kind: BooleanKind, targets: readonly SolidHandle[], tools: readonly SolidHandle[]): MadeSolid[] {
    const what = WORDS[kind];
    return this.guarded(`The kernel could not ${what}; look for faces that nearly coincide`, () => {
      const locally = targets.length === 1 && kind !== 'common' ? this.combineLocally(kind, targets[0]!, tools) : null;
      if (locally) return [locally];
      return scoped((scope) =>
        soundlyCombined(
          this.oc,
          scope,
          kind,
          targets.map(this.shape),
          tools.map(this.shape),
          [...targets, ...tools].some(this.hasRing),
        ).map(({ shape, faces, sound }) => ({ solid: this.solids.hold(shape, { sound }), faces })),
      );
    });
  }

  private readonly hasRing = (solid: SolidHandle): boolean =>
    (this.solids.of(solid).ring ??= scoped((scope) => hasRing(this.oc, scope, this.shape(solid))));

  /** Null where more is met than a few flat faces, or too little to be worth it. */
  private combineLocally(kind: 'join' | 'cut', target: SolidHandle, tools: readonly SolidHandle[]): MadeSolid | null {
    const body = this.solids.of(target);
    const made = scoped((scope) => {
      body.places ??= placesOf(this.oc, scope, body.shape);
      if (body.places.length < MANY_FACES && tools.length < MANY_TOOLS) return null;
      if (!this.isValid(target)) return null;
      return combineLocally(
        this.oc,
        scope,
        body.shape,
        body.places,
        tools.map((tool) => {
          const { shape, copied } = this.solids.of(tool);
          return { shape, origin: copied?.from ?? tool, moved: copied?.to ?? STAY };
        }),
        (block, tool) => combineSolids(this.oc, scope, kind, [block], [tool]),
      );
    });
    if (!made) return null;
    const before = this.bulk(target);
    const volume = before.volume + made.gained.volume;
    const at = (k: 0 | 1 | 2) => (before.center[k] * before.volume + made.gained.moment[k]) / volume;
    const bulk: SolidBulk = { volume, center: [at(0), at(1), at(2)] };
    // All that is new of it was looked at where it was made.
    const solid = this.solids.hold(made.shape, { places: made.places, sound: true, bulk });
    return { solid, faces: made.faces };
  }

  fillet(solid: SolidHandle, edges: readonly RoundedEdge[]): MadeSolid {
    return this.reworked(
      solid,
      'These edges cannot be rounded by so much; give a smaller radius or fewer edges',
      (oc, scope, shape) => filletEdges(oc, scope, shape, edges),
    );
  }

  chamfer(solid: SolidHandle, edges: readonly BevelledEdge[]): MadeSolid {
    return this.reworked(
      solid,
      'These edges cannot be bevelled by so much; give a smaller distance or fewer edges',
      (oc, scope, shape) => chamferEdges(oc, scope, shape, edges),
    );
  }

  shell(solid: SolidHandle, open: readonly number[], thickness: number, outward: boolean): MadeSolid {
    return this.reworked(
      solid,
      'This cannot be hollowed out with walls so thick; give a smaller thickness or open other faces',
      (oc, scope, shape) => shellSolid(oc, scope, shape, open, thickness, outward),
    );
  }

  thicken(solid: SolidHandle, face: number, by: number): MadeSolid {
    return this.reworked(
      solid,
      'This face cannot be thickened by so much; give a smaller thickness, or another face',
      (oc, scope, shape) => thickenFace(oc, scope, shape, face, by),
    );
  }

  threadSleeve(sleeve: ThreadSleeve): SolidHandle {
    return this.guarded('The kernel could not make this thread; give another pitch or length', () =>
      scoped((scope) => this.hold(threadSleeve(this.oc, scope, sleeve))),
    );
  }

  plug(solid: SolidHandle, faces: readonly number[]): SolidHandle {
    return this.guarded('These faces could not be taken away; pick all faces of a hole, a pocket or a boss', () =>
      scoped((scope) => this.hold(plugOf(this.oc, scope, this.shape(solid), faces))),
    );
  }

  draft(solid: SolidHandle, faces: readonly number[], neutral: Frame, angle: number): MadeSolid {
    return this.reworked(
      solid,
      'These faces cannot be slanted by so much; give a smaller angle or other faces',
      (oc, scope, shape) => draftFaces(oc, scope, shape, faces, neutral, angle),
    );
  }

  split(solids: readonly SolidHandle[], by: Cutter): MadeSolid[] {
    const what = by.kind === 'plane' ? 'the plane; move the plane a little' : by.kind === 'face' ? 'the face; move it a little' : 'the line; move it a little'; // prettier-ignore
    return this.guarded(`The kernel could not cut these bodies along ${what}`, () =>
      scoped((scope) =>
        splitSolids(this.oc, scope, solids.map(this.shape), by, (s) => this.shape(s)).map(({ shape, faces }) => ({
          solid: this.hold(shape),
          faces,
        })),
      ),
    );
  }

  placed(solid: SolidHandle, to: Transform): MadeSolid {
    const made = this.reworked(solid, 'The kernel could not put this body elsewhere', (oc, scope, shape) =>
      placeSolid(oc, scope, shape, to),
    );
    const { copied } = this.solids.of(solid);
    this.solids.of(made.solid).copied = copied
      ? { from: copied.from, to: followedBy(copied.to, to) }
      : { from: solid, to };
    return made;
  }

  private reworked(
    solid: SolidHandle,
    sentence: string,
    work: (oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape) => Made,
  ): MadeSolid {
    return this.guarded(sentence, () => {
      const made = scoped((scope) => work(this.oc, scope, this.shape(solid)));
      return { solid: this.hold(made.shape), faces: made.faces };
    });
  }

  bulk(solid: SolidHandle): SolidBulk {
    // A step that looks at what it made is followed by all who ask how much it is.
    return (this.solids.of(solid).bulk ??= this.about(solid, volumeOf));
  }

  inertia(solid: SolidHandle): Inertia {
    return this.about(solid, inertiaOf);
  }

  box(solid: SolidHandle): Box {
    return this.about(solid, boxOf);
  }

  isValid(solid: SolidHandle): boolean {
    return (this.solids.of(solid).sound ??= this.about(solid, (oc, _, shape) => isSound(oc, shape)));
  }

  hasFreeFaces(solid: SolidHandle): boolean {
    return this.about(solid, hasFreeFaces);
  }

  faces(solid: SolidHandle): FaceFacts[] {
    return this.about(solid, describeFaces);
  }

  edges(solid: SolidHandle): EdgeFacts[] {
    return this.about(solid, describeEdges);
  }

  corners(solid: SolidHandle): Vec3[] {
    return this.about(solid, cornersOf);
  }

  bends(solid: SolidHandle): number[] {
    return this.about(solid, bendsOf);
  }

  curves(solid: SolidHandle): EdgeCurve[] {
    return this.about(solid, curvesOf);
  }

  section(solid: SolidHandle, frame: Frame): EdgeCurve[] {
    return this.about(solid, (oc, scope, shape) => sectionOf(oc, scope, shape, frame));
  }

  faceOutline(solid: SolidHandle, face: number, grown: number): EdgeCurve[][] {
    return this.guarded('The kernel could not offset this outline; give another distance', () =>
      scoped((scope) => faceOutline(this.oc, scope, this.shape(solid), face, grown)),
    );
  }

  projected(solids: readonly SolidHandle[], frame: Frame, kinds: SeenKinds): SeenLine[] {
    return this.guarded('The kernel could not find what is seen of these bodies from there', () =>
      scoped((scope) =>
        projectedLines(
          this.oc,
          scope,
          solids.map((s) => this.shape(s)),
          frame,
          kinds,
        ),
      ),
    );
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

  exportStep(parts: readonly StepPart[]): Uint8Array {
    return this.guarded('The STEP file could not be written', () =>
      scoped((scope) =>
        writeStep(
          this.oc,
          scope,
          parts.map((part) => ({ ...part, shapes: part.solids.map(this.shape) })),
        ),
      ),
    );
  }

  readStep(bytes: Uint8Array): { solids: SolidHandle[]; others: number } {
    return this.guarded('This STEP file cannot be read; it may be damaged, or save it again', () =>
      scoped((scope) => {
        const { solids, others } = readStep(this.oc, scope, bytes);
        return { solids: solids.map((shape) => this.hold(shape)), others };
      }),
    );
  }

  sizeOf(solid: SolidHandle): number {
    return (this.solids.of(solid).size ??= this.about(solid, estimateBytes));
  }

  free(solid: SolidHandle): void {
    if (this.down) return;
    this.solids.free(solid);
  }

  private hold = (shape: TopoDS_Shape): SolidHandle => this.solids.hold(shape);
  private shape = (solid: SolidHandle): TopoDS_Shape => this.solids.of(solid).shape;

  /** Kernel failures arrive as WebAssembly exceptions; the user gets a sentence, never the stack. */
  private guarded<T>(sentence: string, work: () => T): T {
    if (this.down) throw new KernelDown(`${sentence}.`);
    try {
      return work();
    } catch (error) {
      if (error instanceof KernelError || error instanceof KernelDown) throw error;
      if (isTrap(error)) {
        this.down = true;
        throw new KernelDown(`${sentence}; the geometry kernel fell over at it.`);
      }
      if (error instanceof (WebAssembly as unknown as { Exception: new () => Error }).Exception)
        throw new KernelError(`${sentence}.`);
      throw error;
    }
  }
}

/** Did the machine stop within the kernel, or its binding find its heap in disorder? */
const isTrap = (error: unknown): boolean =>
  error instanceof WebAssembly.RuntimeError || (error instanceof Error && error.name === 'BindingError');
