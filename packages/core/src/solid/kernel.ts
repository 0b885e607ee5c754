/**
 * What the core asks of a geometry kernel. Lengths mm, angles rad. Solids are
 * held by the kernel and named here by a handle; whoever receives one frees it.
 */
import type { Loop, LoopPiece } from '../sketch/regions/loop.ts';
import type { Vec2 } from '../sketch/regions/primitives.ts';
import type { Helix } from '../space/helix.ts';
import type { Transform } from '../space/transform.ts';
import type { Axis, Frame, Vec3 } from '../space/vector.ts';
import type { Winding } from './winding.ts';
import type { Woven } from './woven.ts';

export type { Axis, Frame, Vec3 };

/** Opaque; valid until freed. */
export type SolidHandle = number & { readonly __solid: unique symbol };

/**
 * How a face of a result came from something that went into the operation. What goes in is
 * listed by argument (a profile is 0; of bodies, those acted on first, then the tools) and, in it, by
 * the kernel's order. A profile has one face; its edges are the pieces of its loops, one loop after another.
 */
export interface FaceParent {
  readonly argument: number;
  readonly kind: 'face' | 'edge' | 'vertex';
  readonly index: number;
  /**
   * `modified`: it is that face, or part of it. `generated`: swept or made by it. `start`, `end`: the caps of a swept
   * profile. `inner`: it lies behind that face, as the inside of a shell does.
   */
  readonly how: 'modified' | 'generated' | 'start' | 'end' | 'inner';
  /** It looks the other way than what it came from: so the two sides of a cut are told apart. */
  readonly turned?: boolean;
}

/** Faces are always listed in the kernel's own order, which `faces` and `mesh` share. */
export interface MadeSolid {
  readonly solid: SolidHandle;
  /** Of each face all that it came from; several where faces were merged, none where the kernel does not tell. */
  readonly faces: readonly (readonly FaceParent[])[];
}

export type BooleanKind = 'join' | 'cut' | 'common';

export type SurfaceKind = 'plane' | 'cylinder' | 'cone' | 'sphere' | 'torus' | 'other';
export type CurveKind = 'line' | 'circle' | 'ellipse' | 'other';

export interface Cone {
  readonly tip: Vec3;
  /** From the tip to where it is wide; of length 1. */
  readonly direction: Vec3;
  /** Between its axis and its side, rad. */
  readonly halfAngle: number;
  /** Is the material outside it, as round a countersink? */
  readonly hollow: boolean;
}

export interface FaceFacts {
  readonly kind: SurfaceKind;
  /** mm² */
  readonly area: number;
  readonly center: Vec3;
  /** Outward, planes only. */
  readonly normal: Vec3 | null;
  /** Cylinders and spheres only. */
  readonly radius: number | null;
  /** Cylinders only. */
  readonly axis: Axis | null;
  /** Cylinders only: is the material outside it, as round a hole? */
  readonly hollow: boolean | null;
  /** Cones only. */
  readonly cone?: Cone;
}

export interface EdgeFacts {
  readonly kind: CurveKind;
  readonly length: number;
  readonly radius: number | null;
  /** Circles and ellipses only: centre, and the direction they run counter-clockwise about. */
  readonly axis: Axis | null;
  /** Indices of the faces it lies between; one twice for a seam. */
  readonly faces: readonly number[];
  /** Its two ends as numbers that edges meeting there share; none for a closed edge without a corner on it. */
  readonly ends: readonly number[];
  /** Halfway by the curve's own parameter, mm. */
  readonly middle: Vec3;
}

interface EdgeEnds {
  readonly from: Vec3;
  readonly to: Vec3;
  /** Halfway by the curve's own parameter. */
  readonly middle: Vec3;
  /** Places along it, ends included. */
  readonly samples: readonly Vec3[];
}

/** An edge's exact curve where it is a line, circle or ellipse (a circle has equal radii); else places along it. */
export type EdgeCurve =
  | (EdgeEnds & { readonly kind: 'line' | 'other' })
  | (EdgeEnds & {
      readonly kind: 'ellipse';
      readonly center: Vec3;
      /** It runs counter-clockwise about this. */
      readonly normal: Vec3;
      /** Direction of the first half axis. */
      readonly along: Vec3;
      readonly major: number;
      readonly minor: number;
      readonly whole: boolean;
    });

/** What is asked for besides what is seen of sharp edges and contours. */
export interface SeenKinds {
  /** Sharp edges and contours behind others. */
  readonly hidden: boolean;
  /** Edges over which faces run on, where they are seen. */
  readonly smooth: boolean;
}

/** A line of a solid seen straight onto a plane. */
export interface SeenLine {
  /** Flat already: x and y along the frame, z nothing. */
  readonly curve: EdgeCurve;
  /** Place among the solids. */
  readonly solid: number;
  /** A sharp edge; one over which faces run on smoothly; where a face turns away. */
  readonly kind: 'sharp' | 'smooth' | 'contour';
  /** Something lies before it. */
  readonly hidden: boolean;
}

export interface SolidBulk {
  /** mm³ */
  readonly volume: number;
  readonly center: Vec3;
}

/** How a solid resists being turned, its density being 1: second moments about axes through its centre, mm⁵. */
export interface Inertia {
  /** Rows of the symmetric matrix. */
  readonly rows: readonly [Vec3, Vec3, Vec3];
  /** Of free faces it is reckoned numerically. */
  readonly exact: boolean;
}

export interface Box {
  readonly min: Vec3;
  readonly max: Vec3;
}

/** All that is known of a solid; what is dear to compute is computed when first read. */
export interface SolidFacts extends SolidBulk {
  /** mm² */
  readonly area: number;
  readonly box: Box;
  /** The kernel's analyser finds no fault. */
  readonly valid: boolean;
  readonly faces: readonly FaceFacts[];
  readonly edges: readonly EdgeFacts[];
  /** Of each edge the angle, rad, by which the outward normals turn across it: above 0 outer edges, below 0 inner ones. */
  readonly bends: readonly number[];
  /** Where its corners are, by the numbers that `EdgeFacts.ends` gives. */
  readonly corners: readonly Vec3[];
}

/** Triangles and edge polylines; plain arrays that can be handed between threads. */
export interface SolidMesh {
  /** xyz per vertex. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  /** Per face: first index into `triangles` and how many. */
  readonly faceRanges: Uint32Array;
  /** Polyline points, xyz. */
  readonly edgePoints: Float32Array;
  /** Per edge, in the order of `SolidFacts.edges`: first point and how many. */
  readonly edgeRanges: Uint32Array;
}

export interface MeshQuality {
  /** Largest distance of the mesh from the true surface, mm. */
  readonly linear: number;
  /** Largest turn between neighbouring facets, rad. */
  readonly angular: number;
}

/** A face or an edge of a solid, by its place in the kernel's order; or the solid as a whole. */
export interface SolidPiece {
  readonly solid: SolidHandle;
  readonly kind: 'face' | 'edge' | 'whole';
  readonly index: number;
}

/**
 * An edge to round: radii at its two ends, mm, and where it has another between, at a share of its length (0 to 1).
 * Edges that run on smoothly from it are rounded with it.
 */
export interface RoundedEdge {
  readonly edge: number;
  readonly from: number;
  readonly to: number;
  readonly via?: { readonly at: number; readonly radius: number };
}

/** An edge to bevel: how far it is cut back on one of the two faces beside it, and on the other, mm. */
export interface BevelledEdge {
  readonly edge: number;
  readonly face: number;
  readonly onFace: number;
  readonly onOther: number;
}

export interface HelixPath extends Helix {
  readonly kind: 'helix';
}

/** An outline on a plane, or a place. */
export type LoftSection = { readonly frame: Frame; readonly pieces: readonly LoopPiece[] } | { readonly at: Vec3 };

/** A stretch of a path: a curve on a plane, an edge of a solid, or a helix. */
export type PathPiece =
  | { readonly kind: 'curve'; readonly frame: Frame; readonly piece: LoopPiece }
  | { readonly kind: 'edge'; readonly solid: SolidHandle; readonly index: number }
  | HelixPath;

/** How a profile is held on its way: evenly, as the path bends, or level to a direction. */
export type Upright = { readonly kind: 'even' | 'curvature' } | { readonly kind: 'along'; readonly direction: Vec3 };

/**
 * What solids are cut apart by: a plane; a face of a solid, grown on outwards by so many mm (cylinders and spheres are
 * taken whole, planes endless, others as they are bounded); or a line of a plane pushed through all, square to it.
 */
export type Cutter =
  | { readonly kind: 'plane'; readonly frame: Frame }
  | { readonly kind: 'face'; readonly solid: SolidHandle; readonly face: number; readonly outward: number }
  | { readonly kind: 'sheet'; readonly frame: Frame; readonly pieces: readonly LoopPiece[] };

/** A sleeve about the z axis with a thread on one side and a plain cylinder on the other, flat at both ends. */
export interface ThreadSleeve {
  /** Heights of its ends, mm. */
  readonly from: number;
  readonly to: number;
  readonly pitch: number;
  readonly left: boolean;
  /** The thread's form over one pitch, from corner to corner: height within the pitch and radius; the last is the first a pitch higher. */
  readonly form: readonly Vec2[];
  /** Radius of its other side: less than all of the form, or more. */
  readonly plain: number;
}

/** A part as it is written to a STEP file. */
export interface StepPart {
  readonly name: string;
  /** #rrggbb, and how much of it is seen: 1 is all. */
  readonly color: string;
  readonly opacity: number;
  readonly solids: readonly SolidHandle[];
}

/** A kernel operation failed; the message is a sentence for the user. */
export class KernelError extends Error {
  /** @param reason why, where the kernel can tell, to go on with: “the smallest rounding is 4 mm” */
  constructor(
    message: string,
    readonly reason: string | null = null,
  ) {
    super(message);
  }
}

/**
 * The kernel fell over at a call: not an answer, a fault of its own. Nothing it held is there any more until it is
 * started again. The message is a sentence for the user.
 */
export class KernelDown extends Error {}

export interface SolidKernel {
  /** It fell over and answers nothing more until it is started again. */
  readonly isDown: boolean;
  /** Start it again after it fell over; solids from before are gone, and their handles are not used again. */
  restart(): Promise<void>;
  /**
   * Push a plane area along the frame's normal, from height `from` to `to` (from < to).
   * @param loops outline first, counter-clockwise, then holes
   * @throws KernelError
   */
  extrude(frame: Frame, loops: readonly Loop[], from: number, to: number): MadeSolid;
  /**
   * Turn a plane area about an axis in its plane that does not cross it, from angle `from` to `to`
   * (rad, from < to, at most a whole turn), counter-clockwise about the axis.
   * @param loops outline first, counter-clockwise, then holes
   * @throws KernelError
   */
  revolve(frame: Frame, loops: readonly Loop[], axis: Axis, from: number, to: number): MadeSolid;
  /**
   * Carry a plane area along a path; its sides are told apart by the pieces of its loops.
   * @param grown its size at the end, the beginning being 1
   * @throws KernelError, also where it runs into itself
   */
  sweep(frame: Frame, loops: readonly Loop[], path: readonly PathPiece[], upright: Upright, grown: number): MadeSolid;
  /** Sides as they are told, and flat ends. @throws KernelError where they do not close */
  woven(woven: Woven): MadeSolid;
  /** An area of a plane that touches a round face, or lies along it, wound round that. @throws KernelError */
  wound(frame: Frame, loops: readonly Loop[], on: Winding): MadeSolid;
  /** @throws KernelError */
  threadSleeve(sleeve: ThreadSleeve): SolidHandle;
  /**
   * A solid through sections in order. All have as many pieces, which go together one by one.
   * @param sections an outline each; or a place, at the beginning or the end
   * @param ruled straight from each section to the next; else smoothly through all
   * @param closed back to the first
   * @returns sides as from the edges of the first outline; `start` and `end` as the caps
   * @throws KernelError
   */
  loft(sections: readonly LoftSection[], ruled: boolean, closed: boolean): MadeSolid;
  /**
   * Join tools to targets, or cut them away. Arguments stay valid.
   * @returns every separate solid of the result; none if all is cut away
   * @throws KernelError
   */
  combine(kind: BooleanKind, targets: readonly SolidHandle[], tools: readonly SolidHandle[]): MadeSolid[];
  /** Round edges. @throws KernelError, also where the radius does not fit */
  fillet(solid: SolidHandle, edges: readonly RoundedEdge[]): MadeSolid;
  /** Bevel edges. @throws KernelError, also where the bevel does not fit */
  chamfer(solid: SolidHandle, edges: readonly BevelledEdge[]): MadeSolid;
  /**
   * Hollow a solid out, leaving walls inside its faces; or outside them where `outward`.
   * @param open faces left open; none leaves a closed hollow
   * @throws KernelError
   */
  shell(solid: SolidHandle, open: readonly number[], thickness: number, outward: boolean): MadeSolid;
  /** A slab on a face, by mm along its outward normal; below 0 into the solid. `start`, `end`: the face and where it went. @throws KernelError */
  thicken(solid: SolidHandle, face: number, by: number): MadeSolid;
  /** The solid that faces which hang together enclose with flat caps over where they end: what fills a hole, or a boss. @throws KernelError */
  plug(solid: SolidHandle, faces: readonly number[]): SolidHandle;
  /** Slant faces about where a neutral plane cuts them, by an angle from its normal. @throws KernelError */
  draft(solid: SolidHandle, faces: readonly number[], neutral: Frame, angle: number): MadeSolid;
  /**
   * Cut solids apart; they stay in pieces side by side.
   * @returns every piece, its faces coming from a solid, or from the cutter (the argument after the last solid)
   * @throws KernelError
   */
  split(solids: readonly SolidHandle[], by: Cutter): MadeSolid[];
  /** A copy elsewhere; its faces in the same order. @throws KernelError */
  placed(solid: SolidHandle, to: Transform): MadeSolid;
  bulk(solid: SolidHandle): SolidBulk;
  inertia(solid: SolidHandle): Inertia;
  box(solid: SolidHandle): Box;
  isValid(solid: SolidHandle): boolean;
  /** Has it faces that are neither flat, nor turned about an axis, nor pushed along a line? */
  hasFreeFaces(solid: SolidHandle): boolean;
  faces(solid: SolidHandle): FaceFacts[];
  edges(solid: SolidHandle): EdgeFacts[];
  /** Of each edge the angle, rad, by which the outward normals turn across it: above 0 outer edges, below 0 inner ones. */
  bends(solid: SolidHandle): number[];
  /** Where its corners are, by the numbers that `EdgeFacts.ends` gives. */
  corners(solid: SolidHandle): Vec3[];
  /** The curves of all edges, in the order of `edges`. */
  curves(solid: SolidHandle): EdgeCurve[];
  /** Where a plane cuts the solid. @throws KernelError */
  section(solid: SolidHandle, frame: Frame): EdgeCurve[];
  /**
   * The outline of a flat face, loop by loop, as it is or grown on every side: outwards, holes inwards, corners as arcs.
   * @param grown mm, 0 or more; holes narrower than that go
   * @throws KernelError
   */
  faceOutline(solid: SolidHandle, face: number, grown: number): EdgeCurve[][];
  /**
   * Solids seen together straight onto the frame: sharp edges and contours, and what else is asked for.
   * @throws KernelError
   */
  projected(solids: readonly SolidHandle[], frame: Frame, kinds: SeenKinds): SeenLine[];
  /** Shortest distance between two faces, edges or solids, mm; 0 where one is in the other. @throws KernelError */
  distance(one: SolidPiece, other: SolidPiece): number;
  mesh(solid: SolidHandle, quality: MeshQuality): SolidMesh;
  /** A STEP file (AP214) of named parts, each with its solids, in its colour. */
  exportStep(parts: readonly StepPart[]): Uint8Array;
  /**
   * The solids of a STEP file, in mm, where they lie in it.
   * @returns also how many surfaces belong to none of them
   * @throws KernelError when it cannot be read
   */
  readStep(bytes: Uint8Array): { readonly solids: readonly SolidHandle[]; readonly others: number };
  /** What a solid takes of the kernel's memory, bytes, roughly. */
  sizeOf(solid: SolidHandle): number;
  free(solid: SolidHandle): void;
  /** Solids now held, for leak tests. */
  readonly held: number;
}
