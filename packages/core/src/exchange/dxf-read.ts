/**
 * Reads the drawing in a DXF file as plain curves by layer: lines, arcs, circles,
 * ellipses, polylines with bulges, splines, points. Blocks are left out and counted.
 */
import DxfParser from 'dxf-parser';
import { bezierSpans, centripetal, type Vec2 } from '../sketch/curves/spline.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';

export interface DxfDrawing {
  /** Pieces by layer, lengths in the file's own unit. */
  readonly layers: readonly { readonly name: string; readonly pieces: readonly FlatPiece[] }[];
  /** mm to one unit of the file; null when it does not say. */
  readonly unit: number | null;
  /** How many entities of kinds that are not read. */
  readonly skipped: number;
}

/** A file that cannot be read; the message is for the user. */
export class DxfRefused extends Error {}

/** $INSUNITS codes, mm each (DXF reference: inches, feet, miles, mm, cm, m, km, …). */
const UNITS: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 2.54e-5,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};
const MOST_ENTITIES = 20_000;

interface Point {
  readonly x: number;
  readonly y: number;
}
interface Entity {
  readonly type: string;
  readonly layer?: string;
  readonly vertices?: readonly (Point & { readonly bulge?: number })[];
  readonly shape?: boolean;
  readonly center?: Point;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly majorAxisEndPoint?: Point;
  readonly axisRatio?: number;
  readonly position?: Point;
  readonly controlPoints?: readonly Point[];
  readonly fitPoints?: readonly Point[];
  readonly knotValues?: readonly number[];
  readonly degreeOfSplineCurve?: number;
  readonly weights?: readonly number[];
}

/** @throws DxfRefused */
export function readDxf(text: string): DxfDrawing {
  let file: { header?: Record<string, unknown>; entities?: readonly Entity[] } | null;
  try {
    file = new DxfParser().parseSync(text) as unknown as typeof file;
  } catch {
    throw new DxfRefused('This file is not a DXF drawing in text form; save it as an ASCII DXF and try again.');
  }
  const entities = file?.entities ?? [];
  if (entities.length === 0) throw new DxfRefused('This DXF file holds no drawing that can be read.');
  if (entities.length > MOST_ENTITIES)
    throw new DxfRefused(`This DXF file holds ${entities.length} entities; a sketch takes ${MOST_ENTITIES} at most.`);
  const layers = new Map<string, FlatPiece[]>();
  let skipped = 0;
  for (const entity of entities) {
    const pieces = piecesOf(entity);
    if (!pieces) {
      skipped++;
      continue;
    }
    const name = entity.layer ?? '0';
    layers.set(name, [...(layers.get(name) ?? []), ...pieces]);
  }
  const code = file?.header?.$INSUNITS;
  return {
    layers: [...layers].map(([name, pieces]) => ({ name, pieces })),
    unit: typeof code === 'number' ? (UNITS[code] ?? null) : null,
    skipped,
  };
}

const at = (p: Point): Vec2 => [p.x, p.y];

function piecesOf(e: Entity): FlatPiece[] | null {
  switch (e.type) {
    case 'LINE':
      return e.vertices && e.vertices.length >= 2
        ? [{ kind: 'line', points: [at(e.vertices[0]!), at(e.vertices[1]!)] }]
        : null;
    case 'CIRCLE':
      return e.center && e.radius ? [{ kind: 'circle', points: [at(e.center)], radius: e.radius }] : null;
    case 'ARC': {
      if (!e.center || !e.radius) return null;
      const [c, r] = [at(e.center), e.radius];
      const on = (a: number): Vec2 => [c[0] + r * Math.cos(a), c[1] + r * Math.sin(a)];
      return [{ kind: 'arc', points: [c, on(e.startAngle ?? 0), on(e.endAngle ?? 0)] }];
    }
    case 'ELLIPSE':
      return ellipse(e);
    case 'LWPOLYLINE':
    case 'POLYLINE':
      return polyline(e);
    case 'SPLINE':
      return spline(e);
    case 'POINT':
      return e.position ? [{ kind: 'point', points: [at(e.position)] }] : null;
    default:
      return null;
  }
}

function ellipse(e: Entity): FlatPiece[] | null {
  if (!e.center || !e.majorAxisEndPoint || !e.axisRatio) return null;
  const [c, m] = [at(e.center), at(e.majorAxisEndPoint)];
  const minor = Math.hypot(...m) * e.axisRatio;
  const major: Vec2 = [c[0] + m[0], c[1] + m[1]];
  const [start, end] = [e.startAngle ?? 0, e.endAngle ?? 2 * Math.PI];
  if (Math.abs(end - start) > 2 * Math.PI - 1e-6) return [{ kind: 'ellipse', points: [c, major], minor }];
  const n: Vec2 = [-m[1] * e.axisRatio, m[0] * e.axisRatio];
  const on = (t: number): Vec2 => [
    c[0] + m[0] * Math.cos(t) + n[0] * Math.sin(t),
    c[1] + m[1] * Math.cos(t) + n[1] * Math.sin(t),
  ];
  return [{ kind: 'elliptical_arc', points: [c, major, on(start), on(end)], minor }];
}

/** Straight runs, and arcs where a vertex bulges: the tangent of a quarter of the arc's angle, positive to the left. */
function polyline(e: Entity): FlatPiece[] | null {
  const vertices = e.vertices ?? [];
  if (vertices.length < 2) return null;
  const pieces: FlatPiece[] = [];
  const count = e.shape ? vertices.length : vertices.length - 1;
  for (let i = 0; i < count; i++) {
    const [a, b] = [at(vertices[i]!), at(vertices[(i + 1) % vertices.length]!)];
    const bulge = vertices[i]!.bulge ?? 0;
    if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 1e-12) continue;
    if (Math.abs(bulge) < 1e-9) pieces.push({ kind: 'line', points: [a, b] });
    else {
      const off = (1 - bulge * bulge) / (4 * bulge);
      const center: Vec2 = [(a[0] + b[0]) / 2 - (b[1] - a[1]) * off, (a[1] + b[1]) / 2 + (b[0] - a[0]) * off];
      pieces.push({ kind: 'arc', points: bulge > 0 ? [center, a, b] : [center, b, a] });
    }
  }
  return pieces;
}

/** Cubic splines span by span, exactly; of other degrees, or with weights, through places along them. */
function spline(e: Entity): FlatPiece[] | null {
  const fit = e.fitPoints?.map(at) ?? [];
  const control = e.controlPoints?.map(at) ?? [];
  const degree = e.degreeOfSplineCurve ?? 3;
  const knots = e.knotValues ?? [];
  const plain = !e.weights || e.weights.every((w) => Math.abs(w - 1) < 1e-9);
  if (degree === 3 && plain && control.length >= 4 && knots.length === control.length + 4) {
    return bezierSpans(degree, knots, control).map(({ control: points }) => ({
      kind: 'spline',
      points,
      parameters: [],
    }));
  }
  const through = fit.length >= 2 ? fit : control;
  return through.length >= 2 ? [{ kind: 'spline', points: through, parameters: centripetal(through) }] : null;
}
