/** One body as three objects: its faces, its edges, and what is lit on it. */
import type { BodyView, Pose } from '@helb/core';
import {
  BufferAttribute, BufferGeometry, DoubleSide, FrontSide, GreaterDepth, Group, LineBasicMaterial, LineDashedMaterial, LineSegments, Material, Mesh, MeshLambertMaterial,
  Matrix4, Quaternion, Ray, Vector2, Vector3, type Plane,
} from 'three'; // prettier-ignore
import { LineMaterial } from 'three/addons/lines/LineMaterial.js';
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js';
import { MeshBVH } from 'three-mesh-bvh';
import { inks } from '../theme/theme.ts';

/** How bodies are drawn. */
export const DRAWINGS = {
  shaded: 'Shaded, with edges',
  smooth: 'Shaded, without edges',
  see_through: 'See-through',
  hidden_dashed: 'Lines, hidden ones dashed',
  hidden_away: 'Lines, hidden ones left out',
  wires: 'All lines alike',
} as const;
export type Drawing = keyof typeof DRAWINGS;
const LINES_ONLY: ReadonlySet<Drawing> = new Set(['hidden_dashed', 'hidden_away']);
const SEE_THROUGH = 0.3;
const SEEN_THROUGH = 0.28;

const TONES = inks({
  paper: 'panel',
  edge: 'edge',
  picked: 'lit',
  hover: 'hover',
  moved: 'moved',
  reshaped: 'reshaped',
});
/** Why something is lit. */
export type Tone = Exclude<keyof typeof TONES, 'edge' | 'paper'>;
const EDGE_PIXELS = 2.6;

export type BodyLook = 'solid' | 'faint' | 'ghost';
const OPACITY: Readonly<Record<BodyLook, number>> = { solid: 1, faint: 0.35, ghost: 0.16 };
const GHOST_EDGES = 0.3;
/** In the radius of a body. */
const DASHES = 40;

const ONE = new Vector3(1, 1, 1);

interface Shapes {
  readonly faces: BufferGeometry;
  readonly lines: BufferGeometry;
}

/** Of one mesh, however often it stands on the stage. */
const shapes = new WeakMap<BodyView['mesh'], Shapes>();

function shapesOf(view: BodyView): Shapes {
  const { mesh } = view;
  const known = shapes.get(mesh);
  if (known) return known;
  const faces = new BufferGeometry();
  faces.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  faces.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
  faces.setIndex(new BufferAttribute(mesh.triangles, 1));
  faces.computeBoundingSphere();
  const lines = new BufferGeometry();
  lines.setAttribute('position', new BufferAttribute(segmentsOf(view, null), 3));
  const own = { faces, lines };
  shapes.set(mesh, own);
  return own;
}

// Always see-through in principle: switching it would build another shader, which stalls the page.
export const facesMaterial = (color: string): MeshLambertMaterial =>
  new MeshLambertMaterial({ color, transparent: true, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 }); // prettier-ignore
export const edgesMaterial = (): LineBasicMaterial => new LineBasicMaterial({ color: TONES.edge, transparent: true });

export class BodyObject {
  readonly group = new Group();
  readonly mesh: Mesh<BufferGeometry, MeshLambertMaterial>;
  readonly edges: LineSegments;
  private readonly lit = new Group();
  private shown: BodyLook = 'solid';
  private cutBy: Plane[] = [];
  private drawing: Drawing = 'shaded';
  private isDrawnWithOthers = false;
  /** Its edges once more, seen only where something lies before them; made when first wanted. */
  private hidden: LineSegments | null = null;

  constructor(
    /** What tells it apart on the stage. */
    readonly id: string,
    readonly view: BodyView,
    readonly color: string,
  ) {
    const { faces: geometry, lines } = shapesOf(view);
    this.mesh = new Mesh(geometry, facesMaterial(color));
    this.mesh.userData.body = this;

    this.edges = new LineSegments(lines, edgesMaterial());
    this.group.add(this.mesh, this.edges, this.lit);
    // What is in it stays where it is in it.
    for (const own of [this.group, this.mesh, this.edges, this.lit]) own.matrixAutoUpdate = false;
  }

  /** Stand somewhere else than where it was modelled. */
  place({ at, turn }: Pose): void {
    this.group.matrix.compose(new Vector3(...at), new Quaternion(...turn), ONE);
    this.group.matrixWorldNeedsUpdate = true;
  }

  /** From where it was modelled to where it stands. */
  get matrix(): Matrix4 {
    return this.group.matrix;
  }

  /** A ray as it runs through the body where that was modelled. */
  rayWithin(ray: Ray): Ray {
    return ray.clone().applyMatrix4(this.group.matrix.clone().invert());
  }

  /** Built when first needed; `indirect` leaves the triangles in the kernel's order, face by face. */
  get tree(): MeshBVH {
    const geometry = this.mesh.geometry as BufferGeometry & { boundsTree?: MeshBVH };
    geometry.boundsTree ??= new MeshBVH(geometry, { indirect: true });
    return geometry.boundsTree;
  }

  /** How it shows; a ghost can be seen through, and not touched. */
  get look(): BodyLook {
    return this.shown;
  }

  /** @param opacity of the part itself */
  setLook(look: BodyLook, drawing: Drawing, opacity: number): void {
    this.shown = look;
    this.drawing = drawing;
    const own = LINES_ONLY.has(drawing) ? 1 : drawing === 'see_through' ? Math.min(opacity, SEE_THROUGH) : opacity;
    const seeThrough = own < 1 && look === 'solid';
    this.mesh.material.opacity = seeThrough ? own : OPACITY[look];
    this.showOwn();
    this.paintFaces();
    this.showHidden(drawing === 'hidden_dashed' && look === 'solid');
    // Where a ghost's face lies in a body's, the body is seen.
    this.mesh.material.polygonOffsetFactor = look === 'ghost' ? 3 : 1;
    this.mesh.material.depthWrite = look !== 'ghost' && !seeThrough;
    (this.edges.material as LineBasicMaterial).opacity = look === 'ghost' ? GHOST_EDGES : 1;
  }

  /** Nothing tells it from others of its shape and colour but where it stands. */
  get isPlain(): boolean {
    const { shown, drawing, cutBy, mesh } = this;
    return shown === 'solid' && mesh.material.opacity === 1 && cutBy.length === 0 && (drawing === 'shaded' || drawing === 'smooth'); // prettier-ignore
  }

  get showsEdges(): boolean {
    return this.drawing !== 'smooth' || this.shown !== 'solid';
  }

  /** What is lit on it is still its own. */
  set drawnWithOthers(is: boolean) {
    this.isDrawnWithOthers = is;
    this.showOwn();
  }

  private showOwn(): void {
    this.mesh.visible = !this.isDrawnWithOthers && (this.drawing !== 'wires' || this.shown === 'ghost');
    this.edges.visible = !this.isDrawnWithOthers && this.showsEdges;
  }

  /** Their own colour; or that of the paper, unlit, where only lines are drawn. */
  private paintFaces(): void {
    const { material } = this.mesh;
    const flat = LINES_ONLY.has(this.drawing) && this.shown !== 'ghost';
    material.color.set(flat ? '#000000' : this.color);
    material.emissive.set(flat ? TONES.paper : '#000000');
  }

  private showHidden(shown: boolean): void {
    if (shown && !this.hidden) {
      this.hidden = new LineSegments(
        this.edges.geometry,
        new LineDashedMaterial({ color: TONES.edge, transparent: true, opacity: 0.6, depthFunc: GreaterDepth, depthWrite: false, dashSize: this.dash, gapSize: this.dash }), // prettier-ignore
      );
      this.hidden.computeLineDistances();
      this.group.add(this.hidden);
    }
    if (this.hidden) this.hidden.visible = shown;
  }

  /** mm; the same number of dashes whatever the size. */
  private get dash(): number {
    return (this.mesh.geometry.boundingSphere?.radius ?? 1) / DASHES;
  }

  /** The face a triangle belongs to. */
  faceOfTriangle(triangle: number): number {
    const { faceRanges } = this.view.mesh;
    const at = triangle * 3;
    for (let f = 0; f * 2 < faceRanges.length; f++) {
      if (at >= faceRanges[f * 2]! && at < faceRanges[f * 2]! + faceRanges[f * 2 + 1]!) return f;
    }
    return -1;
  }

  /** Light up faces and edges. */
  light(
    faces: readonly { face: number; tone: Tone }[],
    edges: readonly { edge: number; tone: Tone }[],
    size: Vector2,
  ): void {
    for (const child of [...this.lit.children]) {
      this.lit.remove(child);
      const object = child as Mesh<BufferGeometry, MeshLambertMaterial>;
      object.geometry.dispose();
      object.material.dispose();
    }
    for (const { face, tone } of faces) {
      this.lit.add(this.faceOverlay(face, TONES[tone], false));
      // What lies behind other things is seen through them.
      if (tone === 'picked') this.lit.add(this.faceOverlay(face, TONES[tone], true));
    }
    for (const { edge, tone } of edges) this.lit.add(this.edgeOverlay(edge, TONES[tone], size));
  }

  private faceOverlay(face: number, color: string, through: boolean): Mesh {
    const { mesh } = this.view;
    const geometry = new BufferGeometry();
    const from = mesh.faceRanges[face * 2]!;
    geometry.setAttribute('position', this.mesh.geometry.getAttribute('position'));
    geometry.setAttribute('normal', this.mesh.geometry.getAttribute('normal'));
    geometry.setIndex(new BufferAttribute(mesh.triangles.slice(from, from + mesh.faceRanges[face * 2 + 1]!), 1));
    const overlay = new Mesh(
      geometry,
      new MeshLambertMaterial({ color, transparent: true, opacity: through ? SEEN_THROUGH : 1, depthTest: !through, depthWrite: !through, clippingPlanes: this.cutBy, clipIntersection: true }), // prettier-ignore
    );
    overlay.renderOrder = 1;
    return overlay;
  }

  private edgeOverlay(edge: number, color: string, size: Vector2): LineSegments2 {
    const geometry = new LineSegmentsGeometry();
    geometry.setPositions(segmentsOf(this.view, edge));
    const overlay = new LineSegments2(geometry, new LineMaterial({ color, linewidth: EDGE_PIXELS, resolution: size }));
    overlay.renderOrder = 2;
    return overlay;
  }

  /** Leave away what lies before these planes. */
  cut(planes: Plane[]): void {
    const cut = [this.mesh.material, this.edges.material, ...(this.hidden ? [this.hidden.material] : [])] as Material[];
    // Only what lies before all of them is cut away.
    for (const material of cut) Object.assign(material, { clippingPlanes: planes, clipIntersection: true });
    // The inside is seen through the cut until the cap lies over it.
    this.mesh.material.side = planes.length > 0 ? DoubleSide : FrontSide;
    this.mesh.material.needsUpdate = true;
    (this.edges.material as LineBasicMaterial).needsUpdate = true;
    this.cutBy = planes;
  }

  /** Take on the colours of now. */
  recolor(): void {
    (this.edges.material as LineBasicMaterial).color.set(TONES.edge);
    (this.hidden?.material as LineDashedMaterial | undefined)?.color.set(TONES.edge);
    this.paintFaces();
  }

  dispose(): void {
    this.light([], [], new Vector2());
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
    this.edges.geometry.dispose();
    (this.edges.material as LineBasicMaterial).dispose();
    (this.hidden?.material as LineDashedMaterial | undefined)?.dispose();
  }
}

/** One of each kind of object the stage draws, so that their shaders can be built ahead. */
export function sampleObjects(): Group {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(9), 3));
  geometry.setAttribute('normal', new BufferAttribute(new Float32Array(9), 3));
  const plain = new BufferGeometry();
  plain.setAttribute('position', new BufferAttribute(new Float32Array(6), 3));
  const wide = new LineSegmentsGeometry();
  wide.setPositions(new Float32Array(6));
  const group = new Group();
  group.add(
    new Mesh(geometry, new MeshLambertMaterial({ transparent: true })),
    new LineSegments(plain, new LineBasicMaterial({ transparent: true })),
    new LineSegments2(wide, new LineMaterial()),
  );
  return group;
}

/** Polylines as separate segments: all edges, or one. */
function segmentsOf(view: BodyView, only: number | null): Float32Array {
  const { edgePoints, edgeRanges } = view.mesh;
  const out: number[] = [];
  for (let e = 0; e * 2 < edgeRanges.length; e++) {
    if (only !== null && e !== only) continue;
    // A seam lies within one round face and is no edge to the eye.
    if (only === null && isSeam(view, e)) continue;
    const first = edgeRanges[e * 2]!;
    const count = edgeRanges[e * 2 + 1]!;
    for (let p = first; p < first + count - 1; p++) for (let k = 0; k < 6; k++) out.push(edgePoints[p * 3 + k]!);
  }
  return Float32Array.from(out);
}

export function isSeam(view: BodyView, edge: number): boolean {
  const faces = view.edges[edge]?.faces ?? [];
  return faces.length === 2 && faces[0] === faces[1];
}
