/** The audit of a sheet: each needed size, taken away, is missed; with none taken away nothing is. */
import { describe, expect, test } from '@jest/globals';
import { addSheet, Known, Ledger, newSheet, PartEvaluator, putSize, removeSize, sheetGeometry, type Audit, type Design, type DrawnView, type SheetSize, type Step } from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import {
  block,
  designOf,
  edgeNear,
  edited,
  evaluated,
  extruded,
  faceLooking,
  outline,
  rectangle,
  round,
  type At,
} from './sample-parts.ts';
import { bracket, foot } from './twelve-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

const cut = (sketch: string, more: Partial<Step> = {}) =>
  extruded(sketch, '4 mm', { name: 'Pocket', result: 'cut', ...more });
const through = (sketch: string) => extruded(sketch, '100 mm', { name: 'Bore', result: 'cut' });
const bore = (at: At, radius: number) => round(radius, { name: `Bore at ${at.join()}` }, at);
const plateOf = (corners: At[], height = 8): Record<string, Step> => ({
  s: outline(corners),
  e: extruded('s', `${height} mm`),
});

async function rounded(): Promise<Record<string, Step>> {
  const [body] = (await evaluated(designOf(block(50, 30, 12)))).bodies;
  const corners = [[0, 0], [50, 0], [0, 30], [50, 30]].map(([x, y]) => ({ edge: edgeNear(body!, [x!, y!, 6]) })); // prettier-ignore
  return {
    ...block(50, 30, 12),
    f: { kind: 'fillet', name: 'Fillet', edges: corners.map((c) => c.edge), radius: '5 mm' } as Step,
  };
}
/** Slanted as for a mould, its corners cones. */
async function leaning(): Promise<Record<string, Step>> {
  const steps = await rounded();
  const [body] = (await evaluated(designOf(steps))).bodies;
  const sides = ([[0, -1, 0], [0, 1, 0], [1, 0, 0], [-1, 0, 0]] as const).map((n) => faceLooking(body!, n)); // prettier-ignore
  return { ...steps, d: { kind: 'draft', name: 'Draft', faces: sides, angle: '5 deg', neutral: { datum: 'floor' } } as Step }; // prettier-ignore
}
async function bevelled(): Promise<Record<string, Step>> {
  const [body] = (await evaluated(designOf(block(50, 30, 12)))).bodies;
  return { ...block(50, 30, 12), c: { kind: 'chamfer', name: 'Chamfer', edges: [edgeNear(body!, [25, 0, 12])], distance: '3 mm' } as Step }; // prettier-ignore
}

/** A disc of radius 20, its rims at these heights bevelled. */
async function disced(heights: readonly number[], more: Partial<Step> = {}): Promise<Record<string, Step>> {
  const steps = { s: round(20), e: extruded('s', `${Math.max(...heights)} mm`) };
  return 'distance' in more ? { ...steps, c: await bevelOf(steps, heights, more) } : steps;
}
async function bevelOf(steps: Record<string, Step>, heights: readonly number[], more: Partial<Step>): Promise<Step> {
  const [body] = (await evaluated(designOf(steps))).bodies;
  const edges = heights.map((z) => edgeNear(body!, [-20, 0, z]));
  return { kind: 'chamfer', name: 'Chamfer', edges, ...more } as Step;
}
/** With edges of it rounded: each by a place on it, all of one radius. */
async function roundedAt(steps: Record<string, Step>, edges: readonly (readonly [number, number, number])[], radius: string): Promise<Record<string, Step>> {
  const [body] = (await evaluated(designOf(steps))).bodies;
  const id = `f${Object.keys(steps).length}`;
  return { ...steps, [id]: { kind: 'fillet', name: 'Fillet', edges: edges.map((at) => edgeNear(body!, at)), radius } as Step };
} // prettier-ignore
const bossed = () => ({ ...block(60, 40, 10), b: round(8, {}, [22, 20]), c: extruded('b', '25 mm', { name: 'Boss', result: 'join' }) }); // prettier-ignore
const pin = (length: number) => ({ s: round(20), e: extruded('s', `${length} mm`) });
async function drilled(more: Partial<Step>, at: readonly At[]): Promise<Record<string, Step>> {
  const [body] = (await evaluated(designOf(block(60, 40, 20)))).bodies;
  const plane = { face: faceLooking(body!, [0, 0, 1]) };
  const marks: Step = { ...outline([], { plane, name: 'Marks' }), points: Object.fromEntries(at.map((p, i) => [`m${i}`, [...p]])) }; // prettier-ignore
  const hole = {
    kind: 'hole',
    name: 'Holes',
    places: [{ all_of: 'm' }],
    size: 'own',
    diameter: '5 mm',
    ...more,
  } as Step;
  return { ...block(60, 40, 20), m: marks, h: hole };
}

/** Points spread evenly about the middle, the first of them turned. */
const ring = (n: number, radius: number, first = 0): At[] =>
  Array.from({ length: n }, (_, i): At => [radius * Math.cos(first + (i * 2 * Math.PI) / n), radius * Math.sin(first + (i * 2 * Math.PI) / n)]); // prettier-ignore
const bores = (at: readonly At[], radius: number) =>
  drawnOf(Object.fromEntries(at.map((p, i) => [`c${i}`, p])), Object.fromEntries(at.map((_, i) => [`o${i}`, { kind: 'circle', center: `c${i}`, radius }]))); // prettier-ignore
const drawnOf = (points: Record<string, At>, curves: Record<string, unknown>, more: Partial<Step> = {}): Step => ({ ...outline([], { name: 'Drawn', ...more }), points: Object.fromEntries(Object.entries(points).map(([k, p]) => [k, [...p]])), curves } as Step); // prettier-ignore
/** A slot from one centre to the other, level. */
const slot = (from: number, to: number, radius: number) =>
  drawnOf(
    { a: [from, 0], b: [to, 0], p: [from, -radius], q: [to, -radius], s: [to, radius], t: [from, radius] },
    { l: { kind: 'line', from: 'p', to: 'q' }, e: { kind: 'arc', center: 'b', from: 'q', to: 's' }, m: { kind: 'line', from: 's', to: 't' }, f: { kind: 'arc', center: 'a', from: 't', to: 'p' } }, // prettier-ignore
  );
const hexagon = (acrossFlats: number) => outline(ring(6, acrossFlats / Math.sqrt(3)));
const flange = () => ({ s: round(48), e: extruded('s', '9 mm'), b: round(21), c: extruded('b', '27 mm', { name: 'Hub', result: 'join' }), d: round(11), f: through('d'), g: bores(ring(6, 36), 4.5), h: through('g'), k: outline(rectangle(-3, 0, 6, 13.3)), m: through('k') }); // prettier-ignore
const turned = (points: At[]) => ({ s: outline(points), e: { kind: 'revolve', name: 'Turned', profile: { sketch: 's', regions: 'all' }, axis: { sketch: 's', line: 'x_axis' }, way: 'whole', result: 'new_body' } as Step }); // prettier-ignore

/** What each is, how many sizes whoever draws it by hand gives it, and how it is made. */
const PARTS: readonly (readonly [string, number, () => Record<string, Step> | Promise<Record<string, Step>>])[] = [
  ['a block', 3, () => block(60, 40, 10)],
  ['bored in its middle', 4, () => ({ ...block(60, 40, 10), b: bore([30, 20], 5), c: through('b') })],
  ['bored off its middle', 6, () => ({ ...block(60, 40, 10), b: bore([17, 12], 5), c: through('b') })],
  ['two bores', 5, () => ({ ...block(60, 40, 10), b: bore([15, 20], 4), c: through('b'), b2: bore([45, 20], 4), c2: through('b2') })],
  ['two unlike bores', 9, () => ({ ...block(60, 40, 10), b: bore([15, 13], 4), c: through('b'), b2: bore([45, 29], 6), c2: through('b2') })],
  ['an L', 5, () => plateOf([[0, 0], [60, 0], [60, 15], [20, 15], [20, 50], [0, 50]])],
  ['a T', 5, () => plateOf([[0, 0], [20, 0], [20, 30], [35, 30], [35, 42], [-15, 42], [-15, 30], [0, 30]])],
  ['a U', 5, () => plateOf([[0, 0], [60, 0], [60, 40], [48, 40], [48, 10], [12, 10], [12, 40], [0, 40]])],
  ['an uneven U', 7, () => plateOf([[0, 0], [60, 0], [60, 40], [51, 40], [51, 10], [12, 10], [12, 33], [0, 33]])],
  ['one side at a slant', 4, () => plateOf([[0, 0], [60, 0], [45, 30], [0, 30]])],
  ['a wedge', 3, () => plateOf([[0, 0], [40, 0], [0, 25]], 15)],
  ['two sides at a slant', 5, () => plateOf([[0, 0], [60, 0], [50, 30], [13, 30]])],
  ['a disc', 2, () => ({ s: round(20), e: extruded('s', '6 mm') })],
  ['a ring', 3, () => ({ s: round(20), e: extruded('s', '6 mm'), b: bore([0, 0], 8), c: through('b') })],
  ['a boss', 6, () => ({ ...block(60, 40, 10), b: round(8, {}, [22, 20]), c: extruded('b', '25 mm', { name: 'Boss', result: 'join' }) })],
  ['a stepped pin', 4, () => ({ s: round(10), e: extruded('s', '6 mm'), b: round(6), c: extruded('b', '30 mm', { name: 'Shank', result: 'join' }) })],
  ['a pocket', 8, () => ({ ...block(60, 40, 10), b: outline(rectangle(10, 8, 25, 20)), c: cut('b') })],
  ['a step', 5, () => ({ ...block(60, 40, 10), b: outline(rectangle(40, 0, 20, 40)), c: cut('b') })],
  ['a bored L', 8, () => ({ ...plateOf([[0, 0], [60, 0], [60, 15], [20, 15], [20, 50], [0, 50]]), b: bore([9, 38], 4), c: through('b') })],
  ['rounded corners', 4, rounded],
  ['rounded corners that lean', 5, leaning],
  ['a bevel', 5, bevelled],
  ['a disc with a bevelled rim', 3, () => disced([6], { distance: '2 mm' })],
  ['a pin bevelled alike at both ends', 3, () => disced([50, 0], { distance: '1.5 mm' })],
  ['a pin that tapers', 4, () => disced([34], { distance: '26 mm', way: 'two', other_distance: '9 mm' })],
  ['a pin with unlike bevels', 4, async () => ({ ...(await disced([50], { distance: '2 mm' })), c2: await bevelOf(await disced([50]), [0], { distance: '3 mm', way: 'two', other_distance: '1 mm' }) })],
  ['a disc with a rounded rim', 3, () => roundedAt(pin(6), [[-20, 0, 6]], '2 mm')],
  ['a pin rounded alike at both ends', 3, () => roundedAt(pin(50), [[-20, 0, 50], [-20, 0, 0]], '3 mm')],
  ['a pin rounded otherwise at its other end', 4, async () => roundedAt(await roundedAt(pin(50), [[-20, 0, 50]], '3 mm'), [[-20, 0, 0]], '1.5 mm')],
  ['a boss, its root and its top rounded', 8, async () => roundedAt(await roundedAt(bossed(), [[14, 20, 10]], '3 mm'), [[14, 20, 25]], '2 mm')],
  ['a bore with a rounded mouth', 5, () => roundedAt({ ...block(60, 40, 10), b: bore([30, 20], 5), c: through('b') }, [[25, 20, 10]], '2 mm')],
  ['drilled to a point', 5, () => drilled({ through: false, depth: '7 mm' }, [[30, 20]])],
  ['a link with a slot', 7, () => ({ s: slot(0, 90, 17), e: extruded('s', '12 mm'), b: bores([[0, 0], [90, 0]], 7), c: through('b'), d: slot(30, 62, 5), f: through('d') })],
  ['a bar of six flats', 2, () => ({ s: hexagon(24), e: extruded('s', '60 mm') })],
  ['a nut', 3, () => ({ s: hexagon(30), e: extruded('s', '13 mm'), b: round(8.5), c: through('b') })],
  ['a bar of five flats', 2, () => ({ s: outline(ring(5, 20)), e: extruded('s', '9 mm') })],
  ['a flange with a keyed bore', 9, flange],
  ['a disc with two rings of bores', 6, () => ({ s: round(50), e: extruded('s', '8 mm'), b: bores(ring(8, 40), 3), c: through('b'), d: bores(ring(4, 25, Math.PI / 4), 5), f: through('d') })],
  ['bores at the corners of a square', 6, () => ({ ...block(50, 50, 8), b: bores([[10, 10], [40, 10], [10, 40], [40, 40]], 3), c: through('b') })],
  ['five bores about the middle of a plate', 6, () => ({ ...block(80, 80, 6), b: bores(ring(5, 25).map(([x, y]): At => [x + 40, y + 40]), 3), c: through('b') })],
  ['a dovetail', 6, () => plateOf([[0, 0], [80, 0], [80, 26], [58, 26], [64, 14], [16, 14], [22, 26], [0, 26]], 55)],
  ['a keyhole', 7, () => ({ ...block(60, 40, 5), b: bore([30, 14], 7), c: through('b'), d: outline(rectangle(27, 14, 6, 16)), f: through('d') })],
  ['a stepped shaft with a cross bore', 8, () => ({ ...turned([[0, 0], [90, 0], [90, 8], [60, 8], [60, 13], [22, 13], [22, 10], [0, 10]]), b: bore([75, 0], 3), c: extruded('b', '100 mm', { name: 'Cross bore', way: 'symmetric', result: 'cut' }) })],
  ['a pipe bored through one wall where its seam is', 4, () => ({ s: round(20), e: extruded('s', '70 mm'), h: round(16), g: through('h'), b: { ...round(4), plane: { datum: 'side' }, points: { c: [0, 35] } } as Step, c: extruded('b', '100 mm', { name: 'Cross bore', result: 'cut' }) })],
  ['sunk for screws', 6, () => drilled({ form: 'countersunk', head_diameter: '10 mm' }, [[15, 20], [45, 20]])],
]; // prettier-ignore

/** Views stay as they are while sizes come and go. */
const known = new Known<DrawnView>();
async function auditOf(design: Design): Promise<Audit> {
  return (await sheetGeometry(design, 'h', evaluator, kernel, known)).audit!;
}

/** The part on a sheet with all sizes that are missing on it, and nothing else. */
async function sized(design: Design): Promise<{ design: Design; sizes: readonly string[]; audit: Audit }> {
  const { bodies } = await evaluator.evaluate(design, Ledger.of(design), 'p');
  let own = edited(design, addSheet('h', newSheet('Sheet', { part: 'p' }, bodies[0]!.facts.box)));
  const cures = (await auditOf(own)).findings.flatMap((f) => f.cure ?? []);
  const sizes = cures.map((size, i): readonly [string, SheetSize] => [`z${i}`, size]);
  own = edited(own, putSize('h', sizes));
  return { design: own, sizes: sizes.map(([id]) => id), audit: await auditOf(own) };
}

describe('the audit of a sheet', () => {
  test.each(PARTS)('%s: %i sizes settle it, and each of them is needed', async (_, count, steps) => {
    const { design, sizes, audit } = await sized(designOf(await steps()));
    expect(audit.findings.map((f) => f.says)).toEqual([]);
    expect([sizes.length, audit.settled]).toEqual([count, audit.freedoms]);
    for (const id of sizes) {
      const { findings, freedoms, settled } = await auditOf(edited(design, removeSize('h', id)));
      expect([id, findings.map((f) => f.kind)]).toEqual([id, expect.arrayContaining(['missing'])]);
      expect(settled).toBeLessThan(freedoms);
    }
  });

  test.each([
    ['the bracket', bracket],
    ['the foot', foot],
  ] as const)('%s: nothing is said twice when all is given', async (_, part) => {
    // prettier-ignore
    const { steps, numbers } = await part();
    const { audit } = await sized(designOf(steps, numbers));
    expect(audit.findings.filter((f) => f.kind !== 'missing').map((f) => f.says)).toEqual([]);
  });

  test('what is said twice, a radius of a full circle, a wrong count and a number by hand are told, with what mends them', async () => {
    const { design } = await sized(designOf({ ...block(60, 40, 10), b: bore([15, 20], 4), c: through('b'), b2: bore([45, 20], 4), c2: through('b2') })); // prettier-ignore
    const { sizes } = design.sheets!.h!;
    const [across] = Object.entries(sizes).find(([, s]) => s.kind === 'across')!;
    const [holes, of] = Object.entries(sizes).find(([, s]) => s.kind === 'diameter')!;
    const twice = await auditOf(edited(design, putSize('h', [['again', sizes[across]!]])));
    expect(twice.findings).toMatchObject([{ kind: 'twice', sizes: ['again', across] }]);
    const radius = await auditOf(edited(design, putSize('h', [[holes, { ...of, kind: 'radius' }]])));
    expect(radius.findings).toMatchObject([{ kind: 'wrong', sizes: [holes], cure: { kind: 'diameter' } }]);
    const count = await auditOf(edited(design, putSize('h', [[holes, { ...of, text: '3× <>' }]])));
    expect(count.findings[0]).toMatchObject({ kind: 'wrong', cure: { text: '2× <>' } });
    const byHand = await auditOf(edited(design, putSize('h', [[across, { ...sizes[across]!, text: '61' }]])));
    expect(byHand.findings.map((f) => f.kind)).toEqual(['wrong']);
  });

  test('a call-out settles width and depth of all holes alike, and is missed as a whole', async () => {
    const blind = (at: At) => ({ b: bore(at, 4), c: extruded('b', '6 mm', { name: 'Hole', result: 'cut' }) });
    const [one, other] = [blind([15, 20]), blind([45, 20])];
    const part = designOf({ ...block(60, 40, 10), ...one, b2: other.b, c2: { ...other.c, profile: { sketch: 'b2', regions: 'all' } } as Step }); // prettier-ignore
    const { design } = await sized(part);
    const of = design.sheets!.h!;
    const diameter = Object.entries(of.sizes).find(([, s]) => s.kind === 'diameter')!;
    const { views } = await sheetGeometry(design, 'h', evaluator, kernel, new Known());
    const [view, drawn] = [...views].find(([, v]) => v.spots.some((s) => s.what === 'round'))!;
    const spot = drawn.spots.find((s) => s.what === 'round')!;
    // Without its width and its depth; then called out.
    const without = Object.keys(of.sizes).map((id) => edited(design, removeSize('h', diameter[0]), ...(id === diameter[0] ? [] : [removeSize('h', id)]))); // prettier-ignore
    const called = (d: Design) => edited(d, putSize('h', [['call', { kind: 'hole', view, of: [spot.spot] }]]));
    const missing = async (d: Design) => (await auditOf(d)).findings.filter((f) => f.kind === 'missing').length;
    const settled = await Promise.all(without.map(async (d) => [await missing(d), await missing(called(d))] as const));
    // Width alone: one missing, none when called out; and either of what says height and depth, as the other stays.
    expect(settled.every(([before]) => before >= 1)).toBe(true);
    expect(settled.map(([before, after]) => `${before} ${after}`).sort()).toEqual([
      '1 0',
      '2 0',
      '2 0',
      '2 1',
      '2 1',
      '2 1',
    ]);
  });

  test.each([
    ['to a point', { through: false, depth: '7 mm' }, [[30, 20]], 3],
    ['sunk', { form: 'countersunk', head_diameter: '10 mm' }, [[15, 20], [45, 20]], 4],
    ['bored', { form: 'counterbored', head_diameter: '10 mm', head_depth: '4 mm' }, [[15, 20], [45, 20]], 4],
  ] as const)('a hole drilled %s is settled by its call-out alone', async (_, more, at, left) => {
    const { design } = await sized(designOf(await drilled(more, at)));
    const bare = edited(design, ...Object.keys(design.sheets!.h!.sizes).map((id) => removeSize('h', id)));
    const { views } = await sheetGeometry(bare, 'h', evaluator, kernel, new Known());
    const [view, drawn] = [...views].find(([, v]) => v.spots.some((s) => s.what === 'round'))!;
    const { spot } = drawn.spots.find((s) => s.what === 'round')!;
    const { findings } = await auditOf(edited(bare, putSize('h', [['call', { kind: 'hole', view, of: [spot] }]])));
    // Of the block its three, and how far apart two of them are.
    expect(findings.map((f) => f.kind)).toEqual(Array.from({ length: left }, () => 'missing'));
    expect(findings.some((f) => f.cure === null)).toBe(false);
  }); // prettier-ignore

  test('what is not judged is counted, and said', async () => {
    const cornered = await roundedAt(block(50, 30, 12), [[25, 0, 12], [0, 15, 12], [0, 0, 6]], '3 mm'); // prettier-ignore
    const { audit } = await sized(designOf(cornered));
    expect(audit.unjudged).toBe(1);
    expect(audit.taken).toContain('One face is neither flat, a cylinder, a cone nor the rounding of a turned edge; whether sizes settle it is not judged.'); // prettier-ignore
  });

  test('a length in an oblique view is told not to be true, and settles nothing', async () => {
    const { design } = await sized(designOf(block(60, 40, 10)));
    const sheet = design.sheets!.h!;
    const oblique = sheet.viewOrder.find((id) => sheet.views[id]!.look === 'oblique')!;
    const [across, size] = Object.entries(sheet.sizes).find(([, s]) => s.kind === 'across')!;
    const moved = await auditOf(edited(design, putSize('h', [[across, { ...size, view: oblique }]])));
    expect(moved.findings.map((f) => f.kind).sort()).toEqual(['missing', 'wrong']);
  });

  test('a size at a face that is gone is told lost, and is missing', async () => {
    const { design } = await sized(designOf({ ...block(60, 40, 10), b: bore([17, 12], 5), c: through('b') }));
    const gone = edited(design, { command: 'x', args: {}, label: 'x', run: (draft) => { draft.parts.p!.steps.c!.suppressed = true; } }); // prettier-ignore
    const { findings } = await auditOf(gone);
    expect(findings.filter((f) => f.kind === 'lost').length).toBeGreaterThan(0);
    expect(findings.some((f) => f.kind === 'missing')).toBe(false);
  });
});
