/**
 * On which side things lie: whether the corner of two lines turns left or right,
 * which way round an arc runs, whether circles touch from outside. A solve that
 * changes one of these has flipped the drawing.
 */
import type { SketchGeometry } from './schema.ts';
import type { PointSlots } from './solver/equation.ts';
import type { System } from './system.ts';

/** Corners flatter than this sine have no side. */
const FLAT = 1e-4;

interface Corner {
  readonly apex: PointSlots;
  readonly arms: readonly [PointSlots, PointSlots];
}

export class Senses {
  private readonly corners: Corner[] = [];
  private readonly arcs: { center: PointSlots; from: PointSlots; to: PointSlots }[] = [];
  private readonly touches: { centers: readonly [PointSlots, PointSlots]; radii: readonly [number, number] }[] = [];

  /** @param within only what has a variable among these; all when left out */
  constructor(sketch: SketchGeometry, system: System, within?: ReadonlySet<number>) {
    const counts = (...points: PointSlots[]) => !within || points.some((p) => within.has(p.x) || within.has(p.y));
    const ends = new Map<number, { arm: PointSlots; apex: PointSlots }[]>();
    const keyOf = (p: PointSlots) => p.x * system.values.length + p.y;
    for (const [id, line] of system.lines) {
      if (!(id in sketch.curves)) continue;
      for (const [apex, arm] of [
        [line.from, line.to],
        [line.to, line.from],
      ] as const) {
        const list = ends.get(keyOf(apex));
        if (list) list.push({ arm, apex });
        else ends.set(keyOf(apex), [{ arm, apex }]);
      }
    }
    for (const list of ends.values()) {
      for (let i = 0; i + 1 < list.length && i < 4; i++) {
        const [a, b] = [list[i]!, list[i + 1]!];
        if (counts(a.apex, a.arm, b.arm)) this.corners.push({ apex: a.apex, arms: [a.arm, b.arm] });
      }
    }
    for (const [id, round] of system.rounds) {
      const [from, to] = round.ends;
      if (from && to && id in sketch.curves && counts(round.center, from, to))
        this.arcs.push({ center: round.center, from, to });
    }
    for (const c of Object.values(sketch.constraints)) {
      if (c.kind !== 'tangent') continue;
      const [a, b] = c.of.map((e) => system.rounds.get(e));
      if (a && b && counts(a.center, b.center))
        this.touches.push({ centers: [a.center, b.center], radii: [a.radius, b.radius] });
    }
  }

  /** Numbers to compare: the sine of each corner, the sweep of each arc, how far apart touching circles are. */
  read(v: Float64Array): Float64Array {
    const result = new Float64Array(this.corners.length + this.arcs.length + this.touches.length);
    let i = 0;
    for (const { apex, arms } of this.corners) {
      const [ax, ay] = [v[arms[0].x]! - v[apex.x]!, v[arms[0].y]! - v[apex.y]!];
      const [bx, by] = [v[arms[1].x]! - v[apex.x]!, v[arms[1].y]! - v[apex.y]!];
      result[i++] = (ax * by - ay * bx) / (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1);
    }
    for (const { center, from, to } of this.arcs) {
      const [ax, ay] = [v[from.x]! - v[center.x]!, v[from.y]! - v[center.y]!];
      const [bx, by] = [v[to.x]! - v[center.x]!, v[to.y]! - v[center.y]!];
      const sweep = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
      result[i++] = sweep < 0 ? sweep + 2 * Math.PI : sweep;
    }
    for (const { centers, radii } of this.touches) {
      const apart = Math.hypot(v[centers[1].x]! - v[centers[0].x]!, v[centers[1].y]! - v[centers[0].y]!);
      result[i++] = apart - Math.max(v[radii[0]]!, v[radii[1]]!);
    }
    return result;
  }

  /**
   * Did anything change sides between two readings?
   * @param except slots whose corners the user moves on purpose
   */
  flipped(before: Float64Array, after: Float64Array, except?: ReadonlySet<number>): boolean {
    const free = (...points: PointSlots[]) =>
      except !== undefined && points.some((p) => except.has(p.x) || except.has(p.y));
    const corners = this.corners.length;
    for (let i = 0; i < corners; i++) {
      const [a, b] = [before[i]!, after[i]!];
      if (Math.abs(a) < FLAT || Math.abs(b) < FLAT || a > 0 === b > 0) continue;
      const { apex, arms } = this.corners[i]!;
      if (!free(apex, ...arms)) return true;
    }
    for (let k = 0; k < this.arcs.length; k++) {
      // A sweep that runs over nothing comes out on the far side, almost a whole turn.
      const jump = Math.abs(after[corners + k]! - before[corners + k]!) > Math.PI;
      const { center, from, to } = this.arcs[k]!;
      if (jump && !free(center, from, to)) return true;
    }
    for (let k = corners + this.arcs.length; k < before.length; k++)
      if (before[k]! > 0 !== after[k]! > 0 && Math.abs(before[k]! - after[k]!) > 1e-6) return true;
    return false;
  }
}
