/** What a designer would call the things of a drawing, so that no two bear one name: “the top edge”, “the 2nd circle from the left”. */
import { placeIn } from '../drawn.ts';
import { lineName } from '../line-names.ts';
import { pointsOf, type Curve, type SketchGeometry } from '../schema.ts';

const KIND_NAMES: Readonly<Record<Curve['kind'], string>> = {
  line: 'line',
  circle: 'circle',
  arc: 'arc',
  ellipse: 'ellipse',
  elliptical_arc: 'elliptical arc',
  spline: 'spline',
  text: 'lettering',
};
const REGULAR: Readonly<Record<number, string>> = { 5: 'pentagon', 6: 'hexagon', 8: 'octagon' };

/** So many things are named one by one; of more, the rest is counted. */
const MOST_NAMED = 2;

/** “a, b and 3 more”. */
export function listed(names: readonly string[]): string {
  const more = names.length - MOST_NAMED;
  if (more > 0) return `${names.slice(0, MOST_NAMED).join(', ')} and ${more} more`;
  return names.join(' and ');
}

type Place = readonly [number, number];

export class ThingNames {
  private readonly curves: ReadonlyMap<string, string>;
  private readonly groups: ReadonlyMap<readonly string[], string>;
  private readonly patterns: ReadonlyMap<string, string>;
  private points: ReadonlyMap<string, string> | null = null;
  private readonly on = new Map<string, string[]>();

  /**
   * @param groups curves that hang together
   * @param jointAt a number that points at one place share
   */
  constructor(
    private readonly sketch: SketchGeometry,
    groups: readonly (readonly string[])[],
    private readonly jointAt: (point: string) => number,
  ) {
    for (const [id, c] of Object.entries(sketch.curves)) {
      for (const p of pointsOf(c)) {
        const list = this.on.get(p);
        if (list) list.push(id);
        else this.on.set(p, [id]);
      }
    }
    const rounds = Object.keys(sketch.curves).filter((id) => sketch.curves[id]!.kind !== 'line');
    this.curves = apart(
      rounds,
      (id) => this.plainCurve(id),
      (id) => this.middleOf([id]),
    );
    this.groups = apart(
      groups,
      (g) => this.plainGroup(g),
      (g) => this.middleOf(g),
    );
    this.patterns = apart(
      Object.keys(sketch.patterns ?? {}),
      () => 'pattern',
      (id) => this.middleOf(sketch.patterns![id]!.of),
    );
  }

  curve(id: string): string {
    return this.curves.get(id) ?? lineName(this.sketch, id) ?? 'an axis';
  }
  /** Has it a width and a height that are spoken of? */
  isShape(curves: readonly string[]): boolean {
    const own = this.drawnOf(curves);
    return own.length === 1 || (this.isClosed(own) && this.shapeOf(own) !== null);
  }
  group(curves: readonly string[]): string {
    return this.groups.get(curves)!;
  }
  pattern(id: string): string {
    return this.patterns.get(id)!;
  }
  point(id: string): string {
    this.points ??= apart(
      Object.keys(this.sketch.points),
      (p) => this.plainPoint(p),
      (p) => this.sketch.points[p]!,
    );
    return this.points.get(id) ?? 'the origin';
  }

  /** What moves, by the lines both whose ends do, else by all that is touched. */
  moving({ points, sizes }: { points: ReadonlyMap<string, unknown>; sizes: ReadonlyMap<string, unknown> }): string {
    const ids = Object.keys(this.sketch.curves);
    const goes = (p: string) => points.has(p);
    const whole = ids.filter((id) => sizes.has(id) || pointsOf(this.sketch.curves[id]!).every(goes));
    const named = this.drawnOf(whole);
    const covered = new Set(named.flatMap((id) => pointsOf(this.sketch.curves[id]!)));
    const rest = [...points.keys()].filter((p) => !covered.has(p));
    return listed([...named.map((id) => this.curve(id)), ...rest.map((p) => this.point(p))]);
  }

  private plainCurve(id: string): string {
    const { kind, construction } = this.sketch.curves[id]!;
    return construction ? `construction ${KIND_NAMES[kind]}` : KIND_NAMES[kind];
  }

  /** Without construction, unless there is nothing else. */
  private drawnOf(curves: readonly string[]): readonly string[] {
    const drawn = curves.filter((id) => !this.sketch.curves[id]!.construction);
    return drawn.length > 0 ? drawn : curves;
  }

  private plainGroup(curves: readonly string[]): string {
    const own = this.drawnOf(curves);
    if (own.length === 1) return this.plainCurve(own[0]!);
    if (!this.isClosed(own)) return `chain of ${own.length} curves`;
    return this.shapeOf(own) ?? `outline of ${own.length} sides`;
  }

  /** A slot or a rectangle has a width and a height; of other outlines the sides are spoken of, and this is null. */
  private shapeOf(own: readonly string[]): string | null {
    const count = (kind: Curve['kind']) => own.filter((id) => this.sketch.curves[id]!.kind === kind).length;
    const [lines, arcs] = [count('line'), count('arc')];
    if (lines === 3 && own.length === 3) return 'triangle';
    if (lines === own.length && REGULAR[lines] && this.areEqual(own)) return REGULAR[lines];
    if (lines === 4 && own.length === 4) return this.isRight(own) ? 'rectangle' : 'quadrilateral';
    if (lines === 2 && arcs === 2 && own.length === 4) return 'slot';
    if (lines === 4 && arcs === 4 && own.length === 8) return 'rounded rectangle';
    return null;
  }

  /** Does every end meet exactly one other? */
  private isClosed(curves: readonly string[]): boolean {
    const met = new Map<number, number>();
    for (const id of curves) {
      const c = this.sketch.curves[id]!;
      if ('from' in c)
        for (const end of [c.from, c.to]) met.set(this.jointAt(end), (met.get(this.jointAt(end)) ?? 0) + 1);
    }
    return [...met.values()].every((n) => n === 2);
  }

  private areEqual(lines: readonly string[]): boolean {
    const equal = Object.values(this.sketch.constraints).filter(
      (c) => c.kind === 'equal' && c.of.every((e) => lines.includes(e)),
    );
    return equal.length >= lines.length - 1;
  }

  private isRight(lines: readonly string[]): boolean {
    return Object.values(this.sketch.constraints).some(
      (c) =>
        (c.kind === 'horizontal' || c.kind === 'vertical' || c.kind === 'perpendicular') &&
        c.of.some((e) => lines.includes(e)),
    );
  }

  private plainPoint(id: string): string {
    const on = this.on.get(id) ?? [];
    const curve = on.length > 0 ? this.sketch.curves[on[0]!]! : null;
    if (!curve) return 'point';
    if ('center' in curve && curve.center === id) return `centre of ${this.curve(on[0]!)}`;
    if (on.length > 1) return `corner of ${listed(on.map((c) => this.curve(c)))}`;
    if (curve.kind === 'spline') return `point of ${this.curve(on[0]!)}`;
    return `end of ${this.curve(on[0]!)}`;
  }

  private middleOf(ids: readonly string[]): Place {
    const points = ids.flatMap((id) => (id in this.sketch.curves ? pointsOf(this.sketch.curves[id]!) : [id]));
    const places = points.map((p) => placeIn(this.sketch, p) ?? [0, 0]);
    const mid = (k: 0 | 1) => places.reduce((sum, p) => sum + p[k]!, 0) / Math.max(1, places.length);
    return [mid(0), mid(1)];
  }
}

/** Names with “the”; those of one plain name are told apart by where they lie. */
function apart<T>(things: readonly T[], plain: (thing: T) => string, at: (thing: T) => Place): Map<T, string> {
  const same = new Map<string, T[]>();
  for (const thing of things) {
    const name = plain(thing);
    const list = same.get(name);
    if (list) list.push(thing);
    else same.set(name, [thing]);
  }
  const names = new Map<T, string>();
  for (const [name, list] of same) {
    if (list.length === 1) names.set(list[0]!, `the ${name}`);
    else for (const [thing, where] of byPlace(list, at)) names.set(thing, where(name));
  }
  return names;
}

function byPlace<T>(list: readonly T[], at: (thing: T) => Place): [T, (name: string) => string][] {
  const spread = (k: 0 | 1) => Math.max(...list.map((t) => at(t)[k])) - Math.min(...list.map((t) => at(t)[k]));
  const k = spread(0) >= spread(1) ? 0 : 1;
  const [low, high] = k === 0 ? ['left', 'right'] : ['lower', 'upper'];
  const inRow = [...list].sort((a, b) => at(a)[k] - at(b)[k] || at(a)[1 - k]! - at(b)[1 - k]!);
  if (list.length === 2) return inRow.map((t, i) => [t, (name) => `the ${i === 0 ? low : high} ${name}`]);
  const from = k === 0 ? 'from the left' : 'from below';
  return inRow.map((t, i) => [t, (name) => `the ${ordinal(i + 1)} ${name} ${from}`]);
}

function ordinal(n: number): string {
  const tens = n % 100;
  const suffix = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${suffix}`;
}
