/** What is too small for the scene to be asked for: corners, and points and lines of the sketches shown. */
import { lonePoints, namedBody, refOfVertex, type BodyView } from '@helb/core';
import type { Pick } from '../design/session.ts';
import { curveNear } from '../sketch/hit.ts';
import type { PlaneMap } from '../sketch/plane-map.ts';
import type { Hit, StageScene } from './scene.ts';
import type { VisibleSketch } from './visible-sketches.ts';

/** Within so many pixels of a line, it is meant; of a point or corner so many. */
const LINE_REACH_PX = 7;
const POINT_REACH_PX = 9;

type MapOf = (step: string) => PlaneMap | null;

/** The corner at an end of the edge under the pointer. */
export function cornerUnder(
  scene: StageScene,
  bodies: readonly BodyView[],
  hit: Hit | null,
  x: number,
  y: number,
): Pick | null {
  const body = hit && bodies.find((b) => b.id === hit.body);
  if (!body) return null;
  const edges = hit.kind === 'edge' ? [body.edges[hit.index]!] : body.edges.filter((e) => e.faces.includes(hit.index));
  const near = [...new Set(edges.flatMap((e) => e.ends))]
    .filter((vertex) => isCorner(body, vertex))
    .map((vertex) => {
      const [px, py] = scene.pixelOf(body.corners[vertex]!);
      return { vertex, away: Math.hypot(px - x, py - y) };
    })
    .filter(({ away }) => away < POINT_REACH_PX)
    .sort((a, b) => a.away - b.away)[0];
  if (!near) return null;
  return {
    kind: 'vertex',
    at: body.corners[near.vertex]!,
    ref: refOfVertex(namedBody(body), near.vertex, bodies.map(namedBody)),
  };
}

/** Where a whole circle or ellipse begins is no corner to a designer, nor is the end of a seam. */
export const isCorner = ({ edges }: BodyView, vertex: number): boolean =>
  edges.some(
    ({ ends: [from, to], faces: [one, other], kind }) =>
      (from === vertex || to === vertex) && one !== other && (to !== undefined || kind === 'other'),
  );

/** @param bent curves of other kinds too: they stand for all that is drawn in their sketch */
export function lineUnder(
  sketches: readonly VisibleSketch[],
  mapOf: MapOf,
  x: number,
  y: number,
  bent: boolean,
): Pick | null {
  for (const { step, view: sketch } of sketches) {
    const map = mapOf(step);
    if (!map || map.edgeOn) continue;
    const { curves, points } = sketch.geometry;
    for (const [id, c] of Object.entries(curves)) {
      if (c.kind !== 'line') continue;
      const [a, b] = [c.from, c.to].map((p) => map.toPixel(points[p] ?? [0, 0]));
      if (awayFromSegment([x, y], a!, b!) < LINE_REACH_PX) return { kind: 'line', sketch: step, curve: id };
    }
    const curve = bent ? curveNear(sketch.geometry, map, x, y) : null;
    if (curve && !curves[curve]!.construction) return { kind: 'step', step, is: 'sketch' };
  }
  return null;
}

/** @param lone only points that stand alone, so that the corners of an outline do not hide its regions */
export function sketchPointUnder(
  sketches: readonly VisibleSketch[],
  mapOf: MapOf,
  x: number,
  y: number,
  lone: boolean,
): Pick | null {
  for (const { step, view: sketch } of sketches) {
    const map = mapOf(step);
    if (!map || map.edgeOn) continue;
    const ids = lone ? lonePoints(sketch.geometry) : Object.keys(sketch.geometry.points);
    for (const point of ids) {
      const [px, py] = map.toPixel(sketch.geometry.points[point]!);
      if (Math.hypot(px - x, py - y) < POINT_REACH_PX) return { kind: 'sketch_point', sketch: step, point };
    }
  }
  return null;
}

function awayFromSegment(
  [x, y]: readonly [number, number],
  a: readonly [number, number],
  b: readonly [number, number],
): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / Math.max(dx * dx + dy * dy, 1e-9)));
  return Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy);
}
