/**
 * A second opinion on what a kernel makes of solids: on a grid of columns over the tools, what stands in each is
 * reckoned from their meshes and compared with the outcome. The kernel's booleans go wrong on helical and other free
 * faces without a word; such faults are gross: tools that vanish, bodies turned inside out.
 */
import type { BooleanKind, SolidMesh } from './kernel.ts';

/** Columns along each side of the grid. */
const COLUMNS = 64;
/** Coarse meshes of thin tools are off by less than this share of what the tools fill; a fault by more. */
const SLACK = 0.25;

/** Stretches of a column within solids, rising, none touching the next. */
type Stretches = readonly (readonly [from: number, to: number])[];

interface Grid {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/** Is the outcome about what the meshes say it must be? */
export function isPlausible(
  kind: BooleanKind,
  targets: readonly SolidMesh[],
  tools: readonly SolidMesh[],
  outcome: readonly SolidMesh[],
): boolean {
  const grid = gridOver(tools);
  const [before, taken, after] = [targets, tools, outcome].map((set) => columnsOf(set, grid));
  let [off, filled] = [0, 0];
  for (let i = 0; i < COLUMNS * COLUMNS; i++) {
    const [b, t] = [before![i]!, taken![i]!];
    const shared = overlap(b, t);
    const wanted = kind === 'common' ? shared : kind === 'cut' ? length(b) - shared : length(b) + length(t) - shared;
    off += Math.abs(length(after![i]!) - wanted);
    filled += length(t);
  }
  return filled > 0 && off <= SLACK * filled;
}

function gridOver(meshes: readonly SolidMesh[]): Grid {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { positions } of meshes)
    for (let i = 0; i < positions.length; i += 3) {
      x0 = Math.min(x0, positions[i]!);
      x1 = Math.max(x1, positions[i]!);
      y0 = Math.min(y0, positions[i + 1]!);
      y1 = Math.max(y1, positions[i + 1]!);
    }
  return { x: x0, y: y0, dx: (x1 - x0) / COLUMNS, dy: (y1 - y0) / COLUMNS };
}

function columnsOf(meshes: readonly SolidMesh[], grid: Grid): Stretches[] {
  const each = meshes.map((mesh) => crossings(mesh, grid));
  return Array.from({ length: COLUMNS * COLUMNS }, (_, i) => union(each.map((columns) => columns[i]!)));
}

/** A hair off the middle of the cell, so that columns seldom meet an edge. */
const OFF = 0.5 + 1.37e-4;

/** Where lines upwards through the middles of the cells run through a mesh. */
function crossings({ positions: p, triangles }: SolidMesh, { x, y, dx, dy }: Grid): number[][] {
  const columns: number[][] = Array.from({ length: COLUMNS * COLUMNS }, () => []);
  const first = (v: number, from: number, step: number) => Math.max(0, Math.ceil((v - from) / step - OFF));
  const last = (v: number, from: number, step: number) => Math.min(COLUMNS - 1, Math.floor((v - from) / step - OFF));
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const [ax, ay, bx, by, cx, cy] = [p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, p[c]!, p[c + 1]!];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const [i0, i1] = [first(Math.min(ax, bx, cx), x, dx), last(Math.max(ax, bx, cx), x, dx)];
    const [j0, j1] = [first(Math.min(ay, by, cy), y, dy), last(Math.max(ay, by, cy), y, dy)];
    for (let i = i0; i <= i1; i++)
      for (let j = j0; j <= j1; j++) {
        const [px, py] = [x + (i + OFF) * dx, y + (j + OFF) * dy];
        const v = ((px - ax) * (cy - ay) - (cx - ax) * (py - ay)) / area;
        const w = ((bx - ax) * (py - ay) - (px - ax) * (by - ay)) / area;
        if (v < 0 || w < 0 || v + w > 1) continue;
        columns[i * COLUMNS + j]!.push(p[a + 2]! + v * (p[b + 2]! - p[a + 2]!) + w * (p[c + 2]! - p[a + 2]!));
      }
  }
  return columns;
}

/** Of each solid its stretches lie between every odd crossing and the next. */
function union(each: readonly (readonly number[])[]): Stretches {
  const all = each.flatMap((heights) => {
    const sorted = [...heights].sort((m, n) => m - n);
    return Array.from({ length: sorted.length >> 1 }, (_, k): [number, number] => [sorted[2 * k]!, sorted[2 * k + 1]!]);
  });
  const merged: [number, number][] = [];
  for (const [from, to] of all.sort((m, n) => m[0] - n[0])) {
    const before = merged.at(-1);
    if (before && from <= before[1]) before[1] = Math.max(before[1], to);
    else merged.push([from, to]);
  }
  return merged;
}

const length = (stretches: Stretches): number => stretches.reduce((sum, [from, to]) => sum + to - from, 0);

function overlap(a: Stretches, b: Stretches): number {
  let sum = 0;
  for (const [from, to] of a) for (const [low, high] of b) sum += Math.max(0, Math.min(to, high) - Math.max(from, low));
  return sum;
}
