/** For the names table: parts from a few shapes, what the geometry says is meant, and rows of the table. */
import {
  emptyDesign, emptyPart, Ledger, PartEvaluator,
  type Body, type Curve, type Design, type FaceFacts, type Finding, type PartOutcome, type SketchGeometry, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';

const kernel = await loadKernel();

export type Steps = Record<string, Step>;
export type V3 = readonly [number, number, number];

// ---- parts, from a few shapes -------------------------------------------------------------

export const line = (from: string, to: string): Curve => ({ kind: 'line', from, to });
export const floor = { datum: 'floor' };
export const drawn = (geometry: Omit<SketchGeometry, 'constraints'>, plane: unknown = floor): Step => ({
  kind: 'sketch', name: 'Sketch', plane, constraints: {}, ...geometry,
}); // prettier-ignore

/** Lines p1, p2 … round the corners, closed. */
export function polygon(prefix: string, ...corners: [number, number][]): Omit<SketchGeometry, 'constraints'> {
  const at = (i: number) => `${prefix}${(i % corners.length) + 1}`;
  return {
    points: Object.fromEntries(corners.map((c, i) => [`${at(i)}p`, c])),
    curves: Object.fromEntries(corners.map((_, i) => [at(i), line(`${at(i)}p`, `${at(i + 1)}p`)])),
  };
}
export const box = (prefix: string, x: number, y: number, w: number, h: number) =>
  polygon(prefix, [x, y], [x + w, y], [x + w, y + h], [x, y + h]);
export const circle = (id: string, x: number, y: number, radius: number): Omit<SketchGeometry, 'constraints'> => ({
  points: { [`${id}c`]: [x, y] },
  curves: { [id]: { kind: 'circle', center: `${id}c`, radius } },
});
export const both = (...all: Omit<SketchGeometry, 'constraints'>[]) => ({
  points: Object.assign({}, ...all.map((g) => g.points)) as SketchGeometry['points'],
  curves: Object.assign({}, ...all.map((g) => g.curves)) as SketchGeometry['curves'],
});
export const extrude = (sketch: string, distance: number, more: Partial<Step> = {}, regions: unknown = 'all'): Step => ({
  kind: 'extrude', name: 'Extrude', profile: { sketch, regions }, way: 'one_way', distance: `${distance} mm`, result: 'new_body', ...more,
}); // prettier-ignore
export const cut = (sketch: string, distance: number, more: Partial<Step> = {}) => extrude(sketch, distance, { result: 'cut', ...more }); // prettier-ignore
export const revolve = (sketch: string, more: Partial<Step> = {}): Step => ({
  kind: 'revolve', name: 'Revolve', profile: { sketch, regions: 'all' }, axis: { sketch, line: 'y_axis' }, way: 'whole', result: 'new_body', ...more,
}); // prettier-ignore

export async function evaluate(steps: Steps): Promise<PartOutcome> {
  const design: Design = {
    ...emptyDesign('Table'),
    parts: { p: { ...emptyPart('Part'), steps, stepOrder: Object.keys(steps) } },
    partOrder: ['p'],
  };
  return new PartEvaluator(kernel).evaluate(design, Ledger.of(design), 'p');
}

export const plate = (w = 60, h = 40, t = 10): Steps => ({ s: drawn(box('l', 0, 0, w, h)), e: extrude('s', t) });
export const slotted = (x = 25, w = 10, t = 10): Steps => ({
  ...plate(60, 40, t), s2: drawn(box('k', x, -5, w, 50)), c: cut('s2', 30),
}); // prettier-ignore
export const twoSlots = (x1 = 15, x2 = 40): Steps => ({ ...slotted(x1, 5), s3: drawn(box('m', x2, -5, 5, 50)), d: cut('s3', 30) }); // prettier-ignore
export const posts = (r1 = 5, r2 = 5): Steps => ({ s: drawn(both(circle('a', 0, 0, r1), circle('b', 30, 0, r2))), e: extrude('s', 20) }); // prettier-ignore
export const flush = (h1 = 10, h2 = 10): Steps => ({
  ...plate(40, 40, h1), s2: drawn(box('k', 30, 10, 40, 20)), j: extrude('s2', h2, { result: 'join' }),
}); // prettier-ignore
export const pin = (r1 = 10, r2 = 6, h = 30): Steps => ({
  s: drawn(polygon('l', [0, 0], [r1, 0], [r1, 10], [r2, 10], [r2, h], [0, h])), e: revolve('s'),
}); // prettier-ignore
export const sector = (angle = 180, more: Partial<Step> = {}): Steps => ({
  s: drawn(box('l', 10, 0, 15, 20)), e: revolve('s', { way: 'one_way', angle: `${angle} deg`, ...more }),
}); // prettier-ignore
export const bossed = (hx = 15, bx = 40): Steps => ({
  ...plate(), h: drawn(circle('hole', hx, 20, 5)), c: cut('h', 30),
  b: drawn(circle('boss', bx, 20, 8), { face: { name: 'e:end' } }), j: extrude('b', 6, { result: 'join' }),
}); // prettier-ignore
export const halved = (x = 30): Steps => ({
  s: drawn(both(box('l', 0, 0, 60, 40), { points: { n1: [x, -5], n2: [x, 45] }, curves: { n: line('n1', 'n2') } })),
  e: extrude('s', 10, {}, [{ outer: ['+l1', '+l2', '+l3', '-n'], at: [45, 20] }]),
}); // prettier-ignore
export const cup = (r = 8, depth = 15): Steps => ({
  s: drawn(circle('o', 0, 0, 20)), e: extrude('s', 30), s2: drawn(circle('i', 0, 0, r), { face: { name: 'e:end' } }), c: cut('s2', depth, { reversed: true }),
}); // prettier-ignore
export const bridged = (x = 20): Steps => ({
  s: drawn(both(box('l', 0, 0, 10, 10), box('k', 40, 0, 10, 10))), e: extrude('s', 20),
  s2: drawn(box('m', x - 15, 2, 30, 6)), j: extrude('s2', 5, { result: 'join' }),
}); // prettier-ignore
export const ell = (): Steps => ({ s: drawn(polygon('l', [0, 0], [40, 0], [40, 10], [10, 10], [10, 40], [0, 40])), e: extrude('s', 10) }); // prettier-ignore

// ---- what the geometry says ---------------------------------------------------------------

export type Says = (f: FaceFacts) => boolean;
export const near = (a: number, b: number) => Math.abs(a - b) < 1e-4;
export const faces = (n: V3, offset: number, where: (c: V3) => boolean = () => true): Says => (f) =>
  f.normal !== null && n.every((x, i) => near(x, f.normal![i]!)) && near(f.center.reduce((s, x, i) => s + x * n[i]!, 0), offset) && where(f.center); // prettier-ignore
export const up = (z: number, where?: (c: V3) => boolean) => faces([0, 0, 1], z, where);
export const down = (z: number, where?: (c: V3) => boolean) => faces([0, 0, -1], -z, where);
export const right = (x: number, where?: (c: V3) => boolean) => faces([1, 0, 0], x, where);
export const left = (x: number, where?: (c: V3) => boolean) => faces([-1, 0, 0], -x, where);
export const front = (y: number, where?: (c: V3) => boolean) => faces([0, -1, 0], -y, where);
export const back = (y: number, where?: (c: V3) => boolean) => faces([0, 1, 0], y, where);
export const round = (r: number, where: (c: V3) => boolean = () => true): Says => (f) => f.kind === 'cylinder' && near(f.radius!, r) && where(f.center); // prettier-ignore
export const x = (low: number, high: number) => (c: V3) => c[0] > low && c[0] < high;
export const none: Says = () => false;

/** The one face the geometry says is meant. */
export function faceSaid(bodies: readonly Body[], says: Says): { body: Body; face: number } | null {
  const found = bodies.flatMap((body) => body.facts.faces.flatMap((f, face) => (says(f) ? [{ body, face }] : [])));
  if (found.length > 1) throw new Error('the table names several faces where it means one');
  return found[0] ?? null;
}

export type Verdict = 'right' | 'told, right' | 'told, another' | 'told, lost' | 'SILENTLY WRONG';

export function judge<T>(finding: Finding<T>, isMeant: (found: T) => boolean): Verdict {
  if (finding.how === 'lost') return 'told, lost';
  const meant = isMeant(finding.found);
  if (finding.how === 'one') return meant ? 'right' : 'SILENTLY WRONG';
  return meant ? 'told, right' : 'told, another';
}

export interface Row {
  readonly edit: string;
  readonly what: 'face' | 'edge' | 'body' | 'region';
  readonly before: Steps;
  readonly after: Steps;
  /** Faces: the one meant before and after. Edges: the two faces it lies between. Bodies: a face only it has. */
  readonly picks: readonly Says[];
  readonly means: readonly Says[];
  /** The least that will do where the reference is beyond doubt. */
  readonly must?: Verdict;
}

export const row = (edit: string, before: Steps, after: Steps, pick: Says, mean: Says, must?: Verdict): Row => ({
  edit, what: 'face', before, after, picks: [pick], means: [mean], ...(must ? { must } : {}),
}); // prettier-ignore
export const edge = (edit: string, before: Steps, after: Steps, picks: [Says, Says], means: [Says, Says], must?: Verdict): Row => ({
  edit, what: 'edge', before, after, picks, means, ...(must ? { must } : {}),
}); // prettier-ignore
export const body = (edit: string, before: Steps, after: Steps, pick: Says, mean: Says, must?: Verdict): Row => ({
  edit, what: 'body', before, after, picks: [pick], means: [mean], ...(must ? { must } : {}),
}); // prettier-ignore

/** Add to, or change, what is drawn in a step. */
export function redraw(steps: Steps, id: string, change: (s: SketchGeometry) => void): Steps {
  const copy = structuredClone(steps);
  change(copy[id] as unknown as SketchGeometry);
  return copy;
}
export const but = (steps: Steps, id: string, more: Partial<Step>): Steps => ({ ...steps, [id]: { ...steps[id]!, ...more } as Step }); // prettier-ignore
export const without = (steps: Steps, ...ids: string[]): Steps => Object.fromEntries(Object.entries(steps).filter(([id]) => !ids.includes(id))); // prettier-ignore
export const inOrder = (steps: Steps, ...ids: string[]): Steps => Object.fromEntries(ids.map((id) => [id, steps[id]!]));
/** A corner between two lines cut by a third. */
export const bevelled = (steps: Steps) =>
  redraw(steps, 's', (s) => {
    Object.assign(s.points, { v1: [54, 0], v2: [60, 6] });
    s.curves.l1 = line('l1p', 'v1');
    s.curves.bevel = line('v1', 'v2');
    s.curves.l2 = line('v2', 'l3p');
  });
export const grooved = (steps: Steps): Steps => ({ ...steps, s3: drawn(box('g', -5, 18, 80, 4)), d: cut('s3', 30) });
