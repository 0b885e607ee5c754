/** What of the scene lies under a pixel: faces, edges near it, and what stands behind them. */
import type { Frame, Vec3 } from '@helb/core';
import * as THREE from 'three';
import { isSeam, type BodyObject } from './body-objects.ts';
import { isLeft, type SectionPlane } from './section.ts';

export interface Hit {
  readonly body: string;
  readonly kind: 'face' | 'edge';
  readonly index: number;
}

/** One of several things under the pointer, as it is offered to be picked. */
export interface StackRow {
  readonly label: string;
  /** Light it up, or let it go dark again. */
  point(lit: boolean): void;
  /** @param add beside what is picked */
  take(add: boolean): void;
}

/** What is pointed at. */
export interface PointedAt {
  /** All but what is only a ghost. */
  touchable(): BodyObject[];
  /** px */
  readonly size: THREE.Vector2;
  readonly section: readonly SectionPlane[];
}

const EDGE_REACH_PX = 7;

export class Pointing {
  private readonly raycaster = new THREE.Raycaster();

  constructor(
    private readonly camera: THREE.OrthographicCamera,
    private readonly stage: PointedAt,
  ) {}

  /** What lies on the viewer’s side of this plane is looked through, while it is set. */
  private front: Frame | null = null;

  /** Is a place shown, or cut away? */
  private isShown(p: THREE.Vector3): boolean {
    if (this.front && inFrontOf(this.front, p)) return false;
    return this.stage.section.length === 0 || this.stage.section.some((plane) => isLeft(plane, p));
  }

  /** What lies under a pixel: a near edge wins over the face behind it. */
  hitAt(x: number, y: number): Hit | null {
    this.aim(x, y);
    let best: { distance: number; hit: Hit; object: BodyObject } | null = null;
    for (const object of this.stage.touchable()) {
      const found = this.firstShown(object);
      if (!found || found.faceIndex == null || (best && found.distance >= best.distance)) continue;
      const face = object.faceOfTriangle(found.faceIndex);
      if (face >= 0) best = { distance: found.distance, hit: { body: object.id, kind: 'face', index: face }, object };
    }
    const edge = this.edgeNear(x, y, best?.distance ?? Infinity);
    return edge ?? best?.hit ?? null;
  }

  /** As `hitAt`, but what lies on a plane or behind it is meant before what stands in front of it. */
  hitBehind(x: number, y: number, plane: Frame): Hit | null {
    this.front = plane;
    try {
      const hit = this.hitAt(x, y);
      if (hit) return hit;
    } finally {
      this.front = null;
    }
    return this.hitAt(x, y);
  }

  /** Where the surface under a pixel is, in space, and on what; null beside all bodies. */
  pointAt(x: number, y: number): { readonly body: string; readonly at: Vec3 } | null {
    this.aim(x, y);
    let best: { distance: number; body: string; point: THREE.Vector3 } | null = null;
    for (const object of this.stage.touchable()) {
      const found = this.firstShown(object);
      if (found && (!best || found.distance < best.distance))
        best = { distance: found.distance, body: object.id, point: found.point.clone().applyMatrix4(object.matrix) };
    }
    return best && { body: best.body, at: [best.point.x, best.point.y, best.point.z] };
  }

  /** All that lies under a pixel, one behind the other: faces along the pointer’s ray, then edges near it. */
  stackAt(x: number, y: number): Hit[] {
    this.aim(x, y);
    const faces = this.stage.touchable().flatMap((object) =>
      object.tree
        .raycast(object.rayWithin(this.raycaster.ray), THREE.DoubleSide)
        .flatMap(({ point, distance, faceIndex }) => {
          const index =
            faceIndex == null || !this.isShown(point.clone().applyMatrix4(object.matrix))
              ? -1
              : object.faceOfTriangle(faceIndex);
          return index < 0 ? [] : [{ distance, hit: { body: object.id, kind: 'face', index } as Hit }];
        }),
    );
    const first = this.edgeNear(x, y, Infinity);
    const all = [...faces.sort((a, b) => a.distance - b.distance).map((f) => f.hit), ...(first ? [first] : [])];
    return [...new Map(all.map((hit) => [JSON.stringify(hit), hit])).values()];
  }

  /** The ray from the eye through a pixel. */
  private aim(x: number, y: number): void {
    const ndc = new THREE.Vector2((x / this.stage.size.x) * 2 - 1, 1 - (y / this.stage.size.y) * 2);
    this.raycaster.setFromCamera(ndc, this.camera);
  }

  /** Where the pointer's ray first meets what is shown of a body. */
  private firstShown(object: BodyObject): THREE.Intersection | null {
    const { tree, matrix } = object;
    const ray = object.rayWithin(this.raycaster.ray);
    if (this.stage.section.length === 0 && !this.front) return tree.raycastFirst(ray, THREE.DoubleSide) ?? null;
    const shown = tree
      .raycast(ray, THREE.DoubleSide)
      .filter(({ point }) => this.isShown(point.clone().applyMatrix4(matrix)));
    return shown.sort((a, b) => a.distance - b.distance)[0] ?? null;
  }

  private edgeNear(x: number, y: number, surface: number): Hit | null {
    const scale = this.camera.zoom;
    const origin = this.raycaster.ray.origin;
    const direction = this.raycaster.ray.direction;
    let best: { away: number; hit: Hit } | null = null;
    const a = new THREE.Vector3();
    const b = new THREE.Vector3();
    for (const object of this.stage.touchable()) {
      const { edgePoints, edgeRanges } = object.view.mesh;
      for (let e = 0; e * 2 < edgeRanges.length; e++) {
        if (isSeam(object.view, e)) continue;
        const first = edgeRanges[e * 2]!;
        const last = first + edgeRanges[e * 2 + 1]! - 1;
        for (let p = first; p < last; p++) {
          a.fromArray(edgePoints, p * 3).applyMatrix4(object.matrix);
          b.fromArray(edgePoints, p * 3 + 3).applyMatrix4(object.matrix);
          const near = nearestOnSegment(this.pixelOf(a), this.pixelOf(b), x, y);
          if (near.away > EDGE_REACH_PX || (best && near.away >= best.away)) continue;
          const place = a.lerp(b, near.t);
          if (!this.isShown(place)) continue;
          const depth = place.sub(origin).dot(direction);
          // Behind the face under the pointer, it is hidden.
          if (depth > surface + (EDGE_REACH_PX * 2) / scale) continue;
          best = { away: near.away, hit: { body: object.id, kind: 'edge', index: e } };
        }
      }
    }
    return best?.hit ?? null;
  }

  pixelOf(p: THREE.Vector3 | Vec3): [number, number] {
    const v = p instanceof THREE.Vector3 ? p.clone() : new THREE.Vector3(...p);
    v.project(this.camera);
    return [((v.x + 1) / 2) * this.stage.size.x, ((1 - v.y) / 2) * this.stage.size.y];
  }
}

function nearestOnSegment(
  a: readonly [number, number],
  b: readonly [number, number],
  x: number,
  y: number,
): { away: number; t: number } {
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / length2)) : 0;
  return { away: Math.hypot(a[0] + t * dx - x, a[1] + t * dy - y), t };
}

/** Nearer to a plane, mm, lies on it: pictures are rounded. */
const ON_PLANE = 1e-3;
const inFrontOf = ({ origin, normal }: Frame, { x, y, z }: THREE.Vector3): boolean =>
  (x - origin[0]) * normal[0] + (y - origin[1]) * normal[1] + (z - origin[2]) * normal[2] > ON_PLANE;
