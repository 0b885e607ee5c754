/**
 * Dragging: from the last picture, put the held points where the pointer is and
 * move everything else as little as the constraints allow.
 */
import { collapsed, sketchSize } from './settle.ts';
import { Senses } from './senses.ts';
import { splitGroups, type Group } from './solver/groups.ts';
import { GaussNewton } from './solver/gauss-newton.ts';
import type { PointSlots } from './solver/equation.ts';
import { buildSystem, readGeometry, type System } from './system.ts';
import type { SketchGeometry } from './schema.ts';
import { pointsOf } from './schema.ts';

/** How much dearer it is to move a held point than any other. */
const HELD_WEIGHT = 1e4;
const TOLERANCE = 1e-10;
/** Share of the sketch's size below which no line, circle or arc is dragged: so small, it could not be seen or got hold of. */
const NOTHING_LEFT = 1e-5;
/** How a leap of the pointer is followed: at once, in ever smaller steps, and at last letting what is held change sides. */
const WAYS = [
  { steps: 1, across: false },
  { steps: 4, across: false },
  { steps: 16, across: false },
  { steps: 16, across: true },
];

export class SketchDrag {
  private readonly system: System;
  private readonly solvers: { group: Group; solver: GaussNewton; weights: Float64Array }[];
  /** Slots that follow the pointer, with where they stood when the drag began. */
  private readonly held: { slot: number; start: number; axis: 0 | 1 }[] = [];
  private readonly rim: { slot: number; center: readonly [number, number]; start: readonly [number, number] } | null =
    null;
  private readonly size: number;
  private readonly tolerance: number;
  private good: Float64Array;
  private readonly start: readonly [number, number];
  /** Where the pointer was last followed to. */
  private at: readonly [number, number];
  private readonly heldSlots: ReadonlySet<number>;
  private readonly senses: Senses;
  private readonly moving: ReadonlySet<number>;
  private sides: Float64Array;

  /**
   * @param grabbed a point, or a curve: a line moves whole, a circle's rim changes its radius
   * @param at where it was grabbed, mm
   */
  constructor(
    private readonly sketch: SketchGeometry,
    dimension: (id: string) => number,
    grabbed: string,
    at: readonly [number, number],
  ) {
    this.size = sketchSize(sketch);
    this.tolerance = TOLERANCE * this.size;
    this.system = buildSystem(sketch, dimension);
    const { system } = this;
    const curve = sketch.curves[grabbed];
    if (curve?.kind === 'circle') {
      const round = system.rounds.get(grabbed)!;
      const v = system.values;
      this.rim = { slot: round.radius, center: [v[round.center.x]!, v[round.center.y]!], start: at };
    } else {
      for (const id of curve ? pointsOf(curve) : [grabbed]) {
        const p = system.points.get(id);
        if (!p) continue;
        for (const axis of [0, 1] as const) {
          const slot = axis === 0 ? p.x : p.y;
          if (!system.merger.isFixed(slot) && !this.held.some((h) => h.slot === slot))
            this.held.push({ slot, start: system.values[slot]!, axis });
        }
      }
    }
    const heldSlots = new Set(this.held.map((h) => h.slot));
    if (this.rim) heldSlots.add(this.rim.slot);
    this.start = at;
    this.solvers = splitGroups(system)
      .groups.filter((g) => g.slots.some((s) => heldSlots.has(s)))
      .map((group) => ({
        group,
        solver: new GaussNewton(group.rows, group.slots),
        weights: Float64Array.from(group.slots, (s) => (heldSlots.has(s) ? HELD_WEIGHT : 1)),
      }));
    this.good = system.values.slice();
    this.heldSlots = heldSlots;
    this.moving = new Set(this.solvers.flatMap((s) => s.group.slots));
    this.senses = new Senses(sketch, system, this.moving);
    this.sides = this.senses.read(this.good);
    this.at = at;
  }

  /**
   * Follow the pointer to `to` (mm); the geometry after it. What the user does not
   * hold keeps its side: the way is taken in smaller steps where a leap would flip
   * it, and where it cannot go, the last good picture stays.
   */
  moveTo(to: readonly [number, number]): SketchGeometry {
    for (const { steps, across } of WAYS) {
      if (across && this.turnTo(to)) break;
      if (this.follow(to, steps, across)) break;
    }
    this.system.values.set(this.good);
    return readGeometry(this.sketch, this.system);
  }

  /** @param across the held things may change sides: the user drags them over */
  private follow(to: readonly [number, number], steps: number, across: boolean): boolean {
    const { at: from, good, sides } = this;
    for (let i = 1; i <= steps; i++) {
      const share = i / steps;
      if (this.step([from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])], across)) continue;
      this.good = good;
      this.sides = sides;
      return false;
    }
    this.at = to;
    return true;
  }

  /** Past a held point the way round is ambiguous: turn all that moves about it as one, and solve from there. */
  private turnTo(to: readonly [number, number]): boolean {
    const pivot = this.pivot();
    if (!pivot) return false;
    const { at: from } = this;
    const angle = Math.atan2(to[1] - pivot[1], to[0] - pivot[0]) - Math.atan2(from[1] - pivot[1], from[0] - pivot[0]);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const v = this.good.slice();
    for (const p of this.system.points.values()) {
      if (!this.moving.has(p.x) || !this.moving.has(p.y)) continue;
      const [dx, dy] = [this.good[p.x]! - pivot[0], this.good[p.y]! - pivot[1]];
      v[p.x] = pivot[0] + c * dx - s * dy;
      v[p.y] = pivot[1] + s * dx + c * dy;
    }
    if (!this.step(to, false, v)) return false;
    this.at = to;
    return true;
  }

  /** A fixed point at the end of a line that moves. */
  private pivot(): readonly [number, number] | null {
    const { system, good } = this;
    const fixed = (p: PointSlots) => system.merger.isFixed(p.x) && system.merger.isFixed(p.y);
    for (const line of system.lines.values()) {
      for (const [p, q] of [
        [line.from, line.to],
        [line.to, line.from],
      ] as const)
        if (fixed(p) && this.moving.has(q.x)) return [good[p.x]!, good[p.y]!];
    }
    return null;
  }

  private step(to: readonly [number, number], across: boolean, start = this.good): boolean {
    const v = this.system.values;
    v.set(start);
    for (const { slot, start, axis } of this.held) v[slot] = start + to[axis] - this.start[axis];
    if (this.rim && !this.system.merger.isFixed(this.rim.slot)) {
      v[this.rim.slot] = Math.max(Math.hypot(to[0] - this.rim.center[0], to[1] - this.rim.center[1]), 1e-3);
    }
    if (!this.solvers.every(({ solver, weights }) => solver.solve(v, this.tolerance, weights).converged)) return false;
    if (collapsed(this.system, this.size, NOTHING_LEFT)) return false;
    const sides = this.senses.read(v);
    if (this.senses.flipped(this.sides, sides, across ? this.heldSlots : undefined)) return false;
    this.good = v.slice();
    this.sides = sides;
    return true;
  }
}
