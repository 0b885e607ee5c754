/** Where on a board pieces can still lie: for each way a piece may lie, the corners of what is free to its reference. */
import type { Area, Box } from './polygon.ts';
import { boxOf } from './polygon.ts';

/** A way in which a piece may lie. */
export interface Lying {
  /** Its left lowest corner at the origin. */
  readonly area: Area;
  readonly width: number;
  readonly height: number;
}

/** No-fit areas as `flatLoops` makes them, for a way that lies and one that is to lie; each is made once. */
export type NoFits = (fixed: number, moving: number) => { readonly loops: readonly Float64Array[]; readonly box: Box };

export const flatLoops = (area: Area) => ({
  loops: area.map((path) => Float64Array.from(path.flatMap(({ x, y }) => [x, y]))),
  box: boxOf(area),
});

interface Kept {
  readonly edges: Float64Array;
  readonly box: Box;
}

/** How deep, grid units, a place has to lie in what is taken to be no place: intersections fall beside the grid. */
const DEEP = 2;

/** A place that may be free: less worth is better; `since` counts what was taken when it was last looked at. */
interface Place {
  readonly x: number;
  readonly y: number;
  readonly worth: number;
  since: number;
}

/** The places of one way of lying, the best first; whether one is free is only asked when its turn comes. */
class Places {
  private readonly heap: Place[] = [];
  private readonly taken: Kept[] = [];

  /** @param free where its reference stands with all of it on the board */
  constructor(
    private readonly free: Box,
    private readonly worth: (x: number, y: number) => number,
  ) {
    const [x0, y0, x1, y1] = free;
    for (const x of [x0, x1]) for (const y of [y0, y1]) this.offer(x, y);
  }

  private offer(x: number, y: number): void {
    const [x0, y0, x1, y1] = this.free;
    if (x < x0 || y < y0 || x > x1 || y > y1) return;
    const { heap } = this;
    const place = { x, y, worth: this.worth(x, y), since: 0 };
    let at = heap.length;
    heap.push(place);
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (heap[parent]!.worth <= place.worth) break;
      heap[at] = heap[parent]!;
      at = parent;
    }
    heap[at] = place;
  }

  private drop(): void {
    const { heap } = this;
    const last = heap.pop()!;
    if (heap.length === 0) return;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= heap.length) break;
      if (child + 1 < heap.length && heap[child + 1]!.worth < heap[child]!.worth) child++;
      if (heap[child]!.worth >= last.worth) break;
      heap[at] = heap[child]!;
      at = child;
    }
    heap[at] = last;
  }

  best(): Place | null {
    const { heap, taken } = this;
    for (let first = heap[0]; first; first = heap[0]) {
      while (first.since < taken.length && !isWithin(taken[first.since]!, first.x, first.y)) first.since++;
      if (first.since === taken.length) return first;
      this.drop();
    }
    return null;
  }

  /** @param loops as a no-fit area, standing at (dx, dy) */
  take(loops: readonly Float64Array[], box: Box, dx: number, dy: number): void {
    const [fx0, fy0, fx1, fy1] = this.free;
    const own: Box = [box[0] + dx, box[1] + dy, box[2] + dx, box[3] + dy];
    if (fx1 < fx0 || fy1 < fy0 || own[0] > fx1 || own[1] > fy1 || own[2] < fx0 || own[3] < fy0) return;
    const edges = edgesOf(loops, dx, dy);
    const near = this.taken.filter(({ box: b }) => b[0] <= own[2] && b[2] >= own[0] && b[1] <= own[3] && b[3] >= own[1]); // prettier-ignore
    for (let i = 0; i < edges.length; i += 4) {
      const [ax, ay, bx, by] = [edges[i]!, edges[i + 1]!, edges[i + 2]!, edges[i + 3]!];
      this.offer(ax, ay);
      for (const x of [fx0, fx1])
        if ((ax - x) * (bx - x) < 0) this.offer(x, Math.round(ay + ((by - ay) * (x - ax)) / (bx - ax)));
      for (const y of [fy0, fy1])
        if ((ay - y) * (by - y) < 0) this.offer(Math.round(ax + ((bx - ax) * (y - ay)) / (by - ay)), y);
      const [lx, hx, ly, hy] = [Math.min(ax, bx), Math.max(ax, bx), Math.min(ay, by), Math.max(ay, by)];
      for (const { edges: other, box: b } of near) {
        if (b[0] > hx || b[2] < lx || b[1] > hy || b[3] < ly) continue;
        for (let j = 0; j < other.length; j += 4) {
          const [cx, cy, ex, ey] = [other[j]!, other[j + 1]!, other[j + 2]!, other[j + 3]!];
          if ((cx < lx && ex < lx) || (cx > hx && ex > hx) || (cy < ly && ey < ly) || (cy > hy && ey > hy)) continue;
          const cross = (bx - ax) * (ey - cy) - (by - ay) * (ex - cx);
          if (cross === 0) continue;
          const t = ((cx - ax) * (ey - cy) - (cy - ay) * (ex - cx)) / cross;
          const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / cross;
          if (t >= 0 && t <= 1 && u >= 0 && u <= 1)
            this.offer(Math.round(ax + t * (bx - ax)), Math.round(ay + t * (by - ay)));
        }
      }
    }
    this.taken.push({ edges, box: own });
  }
}

/** x, y of both ends of each edge. */
function edgesOf(loops: readonly Float64Array[], dx: number, dy: number): Float64Array {
  const edges = new Float64Array(loops.reduce((sum, l) => sum + l.length * 2, 0));
  let at = 0;
  for (const loop of loops)
    for (let i = 0; i < loop.length; i += 2) {
      const j = (i + 2) % loop.length;
      edges[at++] = loop[i]! + dx;
      edges[at++] = loop[i + 1]! + dy;
      edges[at++] = loop[j]! + dx;
      edges[at++] = loop[j + 1]! + dy;
    }
  return edges;
}

/** Does a place lie in it, deeper than its very edge? */
function isWithin({ edges, box }: Kept, x: number, y: number): boolean {
  if (x <= box[0] || x >= box[2] || y <= box[1] || y >= box[3]) return false;
  let inside = false;
  for (let i = 0; i < edges.length; i += 4) {
    const [ax, ay, bx, by] = [edges[i]!, edges[i + 1]!, edges[i + 2]!, edges[i + 3]!];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  if (!inside) return false;
  for (let i = 0; i < edges.length; i += 4) {
    const [ax, ay, bx, by] = [edges[i]!, edges[i + 1]!, edges[i + 2]!, edges[i + 3]!];
    if ((ax < x - DEEP && bx < x - DEEP) || (ax > x + DEEP && bx > x + DEEP) || (ay < y - DEEP && by < y - DEEP) || (ay > y + DEEP && by > y + DEEP)) continue; // prettier-ignore
    const [ux, uy] = [bx - ax, by - ay];
    const t = Math.max(0, Math.min(1, ((x - ax) * ux + (y - ay) * uy) / (ux * ux + uy * uy || 1)));
    if (Math.hypot(ax + t * ux - x, ay + t * uy - y) <= DEEP) return false;
  }
  return true;
}

/** One board and what lies on it. */
export class Room {
  private readonly places = new Map<number, Places>();
  private readonly laid: { readonly way: number; readonly x: number; readonly y: number }[] = [];

  /**
   * @param board grid units: where pieces may lie
   * @param worth of a place for a way of lying; less is better
   */
  constructor(
    private readonly board: Box,
    private readonly ways: readonly Lying[],
    private readonly noFits: NoFits,
    private readonly worth: (way: Lying, x: number, y: number) => number,
  ) {}

  /** Worked out when it is first asked for, and from then on kept. */
  private placesOf(way: number): Places {
    const known = this.places.get(way);
    if (known) return known;
    const own = this.ways[way]!;
    const [x0, y0, x1, y1] = this.board;
    const made = new Places([x0, y0, x1 - own.width, y1 - own.height], (x, y) => this.worth(own, x, y));
    for (const { way: fixed, x, y } of this.laid) {
      const { loops, box } = this.noFits(fixed, way);
      made.take(loops, box, x, y);
    }
    this.places.set(way, made);
    return made;
  }

  /** The best place for this way of lying; null where there is none. */
  best(way: number): { readonly x: number; readonly y: number; readonly worth: number } | null {
    return this.placesOf(way).best();
  }

  lay(way: number, x: number, y: number): void {
    for (const [other, places] of this.places) {
      const { loops, box } = this.noFits(way, other);
      places.take(loops, box, x, y);
    }
    this.laid.push({ way, x, y });
  }
}
