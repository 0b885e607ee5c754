/** Parts for the tests: an outline of straight lines extruded from the floor, and steps upon it. */
import {
  addDimension, addPart, addStep, applyEdit, emptyDesign, Ledger, PartEvaluator, refOfEdge, refOfFace,
  type Body, type Design, type Edit, type EdgeRef, type FaceRef, type Inertia, type PartOutcome, type SolidMesh, type Step, type StepOutcome, type Vec3,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

export type At = readonly [number, number];

/** A closed outline through these points; its lines are l0, l1, … from each point to the next. */
export function outline(points: readonly At[], more: Partial<Step> = {}): Step {
  return {
    kind: 'sketch',
    name: 'Outline',
    plane: { datum: 'floor' },
    points: Object.fromEntries(points.map((p, i) => [`p${i}`, [...p]])),
    curves: Object.fromEntries(points.map((_, i) => [`l${i}`, { kind: 'line', from: `p${i}`, to: `p${(i + 1) % points.length}` }])), // prettier-ignore
    constraints: {},
    ...more,
  };
}

export const extruded = (sketch: string, distance: string, more: Partial<Step> = {}): Step => ({
  kind: 'extrude',
  name: 'Block',
  profile: { sketch, regions: 'all' },
  way: 'one_way',
  distance,
  result: 'new_body',
  ...more,
});

export const rectangle = (x: number, y: number, width: number, depth: number): At[] => [
  [x, y],
  [x + width, y],
  [x + width, y + depth],
  [x, y + depth],
];

/** A design of one part `p` with these steps, by their ids, in order. */
export function designOf(
  steps: Readonly<Record<string, Step>>,
  numbers: Readonly<Record<string, string>> = {},
): Design {
  const edits: Edit[] = [
    ...Object.entries(numbers).map(([name, value]) => addDimension(name, { name, value })),
    addPart('p', 'Part'),
    ...Object.entries(steps).map(([id, step]) => addStep('p', id, step)),
  ];
  return edited(emptyDesign('Sample'), ...edits);
}

export function edited(design: Design, ...edits: Edit[]): Design {
  return edits.reduce((now, edit) => {
    const outcome = applyEdit(now, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, design);
}

export const evaluated = (design: Design): Promise<PartOutcome> => evaluator.evaluate(design, Ledger.of(design), 'p');

/** A block on the floor of these sizes, its sketch `s` and its step `e`. */
export const block = (width: number, depth: number, height: number): Record<string, Step> => ({
  s: outline(rectangle(0, 0, width, depth)),
  e: extruded('s', `${height} mm`),
});

export const last = (outcome: PartOutcome): StepOutcome => outcome.steps.at(-1)!;

/** The one flat face that looks this way, the farthest that way where there are several. */
export function faceLooking(body: Body, way: Vec3): FaceRef {
  const along = (v: Vec3) => v[0] * way[0] + v[1] * way[1] + v[2] * way[2];
  const looking = body.facts.faces.flatMap((f, i) => (f.normal && along(f.normal) > 0.999 ? [i] : []));
  const [first] = looking.sort((a, b) => along(body.facts.faces[b]!.center) - along(body.facts.faces[a]!.center));
  if (first === undefined) throw new Error(`no face looks ${way.join()}`);
  return refOfFace(body, first);
}

/** The edge whose middle is nearest. */
export function edgeNear(body: Body, at: Vec3): EdgeRef {
  const away = (p: Vec3) => Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]);
  const all = body.facts.edges.map((e, i) => ({ i, away: away(e.middle) }));
  return refOfEdge(body, all.sort((a, b) => a.away - b.away)[0]!.i);
}

/** Every name of every face, as texts. */
export const namesIn = (body: Body): string[] => body.faceNames.flat().map((n) => n.text);

/** A STEP file with these bodies in it. */
export const stepFileOf = (bodies: readonly Body[]): Uint8Array =>
  kernel.exportStep([{ name: 'Sample', color: '#9DBFB8', opacity: 1, solids: bodies.map((b) => b.solid) }]);

export const inertiaOf = ({ solid }: Body): Inertia => kernel.inertia(solid);

/** A circle, or with another about its centre. */
export const round = (radius: number, more: Partial<Step> = {}, at: At = [0, 0], inner?: number): Step => ({
  ...outline([], { name: 'Disc', ...more }),
  points: { c: [...at] },
  curves: { o: { kind: 'circle', center: 'c', radius }, ...(inner ? { i: { kind: 'circle', center: 'c', radius: inner } } : {}) }, // prettier-ignore
});
/** A path drawn on the wall: x along, y up. */
export const drawn = (points: Record<string, At>, curves: Record<string, unknown>): Step => ({ ...outline([], { name: 'Path', plane: { datum: 'wall' } }), points: Object.fromEntries(Object.entries(points).map(([k, p]) => [k, [...p]])), curves } as Step); // prettier-ignore
export const straight = (height: number) =>
  drawn({ a: [0, 0], b: [0, height] }, { l: { kind: 'line', from: 'a', to: 'b' } });
/** Along the path `q`. */
export const swept = (profile: unknown, more: Partial<Step> = {}): Step => ({ kind: 'sweep', name: 'Pipe', profile, path: { sketch: 'q' }, result: 'new_body', ...more }) as Step; // prettier-ignore
/** All regions of the sketch `s`. */
export const all = { sketch: 's', regions: 'all' };
/** Of the last body, which is sound and made without a word. */
export async function volume(steps: Record<string, Step>): Promise<number> {
  const outcome = await evaluated(designOf(steps));
  const { status, message, doubts } = last(outcome);
  if (status !== 'ok' || message !== null || doubts.length > 0)
    throw new Error(`not made without a word: ${status} ${message}`);
  const { facts } = outcome.bodies.at(-1)!;
  if (!facts.valid) throw new Error('not a sound solid');
  return facts.volume;
}

/** How often each side of a triangle is there each way, by where its ends are. */
function sidesOf({ positions, triangles }: SolidMesh): Map<string, number> {
  const at = (p: number) => [0, 1, 2].map((k) => positions[3 * p + k]!.toFixed(4)).join();
  const sides = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const side = `${at(triangles[t + k]!)} ${at(triangles[t + ((k + 1) % 3)]!)}`;
      sides.set(side, (sides.get(side) ?? 0) + 1);
    }
  return sides;
}

/** Is every side of a triangle met by another that runs the other way? */
export const isClosed = (mesh: SolidMesh): boolean => {
  const sides = sidesOf(mesh);
  return [...sides].every(([side, n]) => n === sides.get(side.split(' ').toReversed().join(' ')));
};
