/**
 * Dragging: from the last picture, put the held points where the pointer is and
 * move everything else as little as the constraints allow.
 */
import { sketchSize } from './solve.ts';
import { Senses } from './senses.ts';
import { splitGroups, type Group } from './solver/groups.ts';
import { GaussNewton } from './solver/gauss-newton.ts';
import { buildSystem, readGeometry, type System } from './system.ts';
import type { SketchGeometry } from './schema.ts';
import { pointsOf } from './schema.ts';

/** How much dearer it is to move a held point than any other. */
const HELD_WEIGHT = 1e4;
const TOLERANCE = 1e-10;
/** A leap of the pointer is cut into at most this many steps. */
const MOST_STEPS = 16;

export class SketchDrag {
  private readonly system: System;
  private readonly solvers: { group: Group; solver: GaussNewton; weights: Float64Array }[];
  /** Slots that follow the pointer, with where they stood when the drag began. */
  private readonly held: { slot: number; start: number; axis: 0 | 1 }[] = [];
  private readonly rim: { slot: number; center: readonly [number, number]; start: readonly [number, number] } | null =
    null;
  private readonly tolerance: number;
  private good: Float64Array;
  private readonly start: readonly [number, number];
  /** Where the pointer was last followed to. */
  private at: readonly [number, number];
  private readonly heldSlots: ReadonlySet<number>;
  private readonly senses: Senses;
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
    this.tolerance = TOLERANCE * sketchSize(sketch);
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
    this.senses = new Senses(sketch, system, new Set(this.solvers.flatMap((s) => s.group.slots)));
    this.sides = this.senses.read(this.good);
    this.at = at;
  }

  /**
   * Follow the pointer to `to` (mm); the geometry after it. What the user does not
   * hold keeps its side: the way is taken in smaller steps where a leap would flip
   * it, and where it cannot go, the last good picture stays.
   */
  moveTo(to: readonly [number, number]): SketchGeometry {
    const from = this.at;
    for (let steps = 1; steps <= MOST_STEPS; steps *= 4) {
      const before = { good: this.good, senses: this.sides };
      let ok = true;
      for (let i = 1; i <= steps && ok; i++) {
        const share = i / steps;
        ok = this.step([from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])]);
      }
      if (ok) {
        this.at = to;
        break;
      }
      this.good = before.good;
      this.sides = before.senses;
    }
    this.system.values.set(this.good);
    return readGeometry(this.sketch, this.system);
  }

  private step(to: readonly [number, number]): boolean {
    const v = this.system.values;
    v.set(this.good);
    for (const { slot, start, axis } of this.held) v[slot] = start + to[axis] - this.start[axis];
    if (this.rim && !this.system.merger.isFixed(this.rim.slot)) {
      v[this.rim.slot] = Math.max(Math.hypot(to[0] - this.rim.center[0], to[1] - this.rim.center[1]), 1e-3);
    }
    if (!this.solvers.every(({ solver, weights }) => solver.solve(v, this.tolerance, weights).converged)) return false;
    const sides = this.senses.read(v);
    if (this.senses.flipped(this.sides, sides, this.heldSlots)) return false;
    this.good = v.slice();
    this.sides = sides;
    return true;
  }
}
