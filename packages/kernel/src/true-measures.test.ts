/** Volumes, centres, areas and lengths along splines, ellipses and letters, held against sums over a million small pieces. */
import { DATUM_FRAMES, findRegions, LazyFacts, pointAt, type Axis, type Curve, type Loop, type SketchGeometry, type Vec2 } from '@helb/core'; // prettier-ignore
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

type Drawn = Omit<SketchGeometry, 'constraints'>;
const line = (from: string, to: string): Curve => ({ kind: 'line', from, to });
const SHAPES: Record<string, Drawn> = {
  'a spline through points': {
    points: { a: [10, 0], b: [20, 14], c: [35, -9], d: [50, 12], e: [50, -30], f: [10, -30] },
    curves: { s: { kind: 'spline', fit: 'through', points: ['a', 'b', 'c', 'd'] }, l1: line('d', 'e'), l2: line('e', 'f'), l3: line('f', 'a') },
  },
  'a spline by control points': {
    points: { a: [12, 0], b: [12, 25], c: [44, 31], d: [40, -3], e: [25, 8] },
    curves: { s: { kind: 'spline', fit: 'control', points: ['a', 'b', 'c', 'd', 'e'] }, l: line('e', 'a') },
  },
  'a flat ellipse': { points: { c: [40, 2], m: [70, 5] }, curves: { e: { kind: 'ellipse', center: 'c', major: 'm', minor: 3 } } },
  'half an ellipse': {
    points: { c: [40, 0], m: [60, 0], p: [60, 0], q: [20, 0] },
    curves: { e: { kind: 'elliptical_arc', center: 'c', major: 'm', minor: 7, from: 'p', to: 'q' }, l: line('q', 'p') },
  },
  'a letter': { points: { a: [10, 0], b: [60, 0] }, curves: { t: { kind: 'text', from: 'a', to: 'b', text: 'S' } } },
}; // prettier-ignore

/** Midpoint sums over fine steps along a loop, by the curve's own places alone. */
const STEPS = 40_000;
function sums(loops: readonly Loop[]): { length: number; turned: number; area: number; x: number; y: number } {
  let [length, turned, area, x, y] = [0, 0, 0, 0, 0];
  for (const loop of loops)
    for (const piece of loop.pieces) {
      let [px, py] = piece.from;
      for (let i = 1; i <= STEPS; i++) {
        const [qx, qy] = i === STEPS ? piece.to : along(piece, i / STEPS);
        const step = Math.hypot(qx - px, qy - py);
        const cross = px * qy - qx * py;
        length += step;
        turned += step * ((px + qx) / 2);
        area += cross / 2;
        x += ((px + qx) * cross) / 6;
        y += ((py + qy) * cross) / 6;
        [px, py] = [qx, qy];
      }
    }
  return { length, turned, area, x: x / area, y: y / area };
}

function along(piece: Loop['pieces'][number], t: number): Vec2 {
  if (piece.kind === 'line')
    return [piece.from[0] + t * (piece.to[0] - piece.from[0]), piece.from[1] + t * (piece.to[1] - piece.from[1])];
  if (piece.kind === 'spline') {
    const { degree, knots, control, curve } = piece;
    return pointAt({ kind: 'spline', degree, knots, control, curve }, piece.t0 + t * (piece.t1 - piece.t0));
  }
  const angle = piece.start + t * piece.sweep;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  if (piece.kind === 'arc') return [piece.center[0] + piece.radius * c, piece.center[1] + piece.radius * s];
  return [
    piece.center[0] + piece.major[0] * c + piece.minor[0] * s,
    piece.center[1] + piece.major[1] * c + piece.minor[1] * s,
  ];
}

/** Relative. */
const close = (is: number, should: number) => expect(Math.abs(is / should - 1)).toBeLessThan(1e-6);

describe.each(Object.entries(SHAPES))('%s', (_, drawn) => {
  const [region] = findRegions({ ...drawn, constraints: {} }).regions;
  const said = sums(region!.loops);

  test('pushed by 7 mm', () => {
    const { solid } = kernel.extrude(DATUM_FRAMES.floor, region!.loops, 0, 7);
    const { volume, area, center } = new LazyFacts(kernel, solid);
    close(volume, said.area * 7);
    close(area, 2 * said.area + 7 * said.length);
    close(center[0], said.x);
    expect(center[1]).toBeCloseTo(said.y, 5);
    const top = kernel.faces(solid).find((f) => f.normal && f.normal[2] > 0.9)!;
    close(top.area, said.area);
    close(top.center[0], said.x);
    const round = kernel.edges(solid).filter((e) => e.middle[2] > 6.9);
    close(
      round.reduce((sum, e) => sum + e.length, 0),
      said.length,
    );
    kernel.free(solid);
  });

  test('turned about the y axis, whole and by 100°', () => {
    const axis: Axis = { origin: [0, 0, 0], direction: [0, 1, 0] };
    for (const angle of [2 * Math.PI, (100 * Math.PI) / 180]) {
      const { solid } = kernel.revolve(DATUM_FRAMES.floor, region!.loops, axis, 0, angle);
      const { volume, area } = new LazyFacts(kernel, solid);
      close(volume, angle * said.x * said.area);
      close(area, angle * said.turned + (angle < 6 ? 2 * said.area : 0));
      kernel.free(solid);
    }
  });
});

test('a line in a face that a rod touches from within bounds nothing, and counts for nothing', () => {
  const loopsOf = (points: SketchGeometry['points'], curve: Curve) =>
    findRegions({ points, curves: { c: curve }, constraints: {} }).regions[0]!.loops;
  const plate = kernel.extrude(DATUM_FRAMES.floor, loopsOf({ c: [3, 1], m: [23, 1] }, { kind: 'ellipse', center: 'c', major: 'm', minor: 12 }), 0, 10); // prettier-ignore
  const rod = kernel.extrude(DATUM_FRAMES.wall, loopsOf({ c: [3, 8] }, { kind: 'circle', center: 'c', radius: 2 }), -4, 2); // prettier-ignore
  const [joined] = kernel.combine('join', [plate.solid], [rod.solid]);
  const { volume, area, center } = new LazyFacts(kernel, joined!.solid);
  close(volume, Math.PI * 20 * 12 * 10);
  close(area, new LazyFacts(kernel, plate.solid).area);
  center.forEach((c, k) => expect(c).toBeCloseTo([3, 1, 5][k]!, 6));
});
