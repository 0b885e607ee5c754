/** Sections in steps, and views straight onto slanted faces. */
import { describe, expect, test } from '@jest/globals';
import {
  addSheet, addSheetView, axisBetween, brokenAlike, breakSheetViews, changeSheetView, composeSheet, emptyStretch, Known, newSheet, placeOn, PartEvaluator, putSize, removeSheetView, sheetGeometry,
  type Design, type DrawnView, type Look, type OnPaper, type SheetGeometry, type SheetSpot, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { block, designOf, edited, extruded, outline, round, type At } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

function onSheet(steps: Record<string, Step>, looks: readonly Look[]): Design {
  const sheet = { ...newSheet('Sheet', { part: 'p' }, null), views: {}, viewOrder: [] };
  return edited(designOf(steps), addSheet('h', sheet), ...looks.map((look) => addSheetView('h', look, { look })));
}
const geometryOf = (design: Design): Promise<SheetGeometry> => sheetGeometry(design, 'h', evaluator, kernel, new Known()); // prettier-ignore
const bored = (id: string, radius: number, at: At) => ({ [id]: round(radius, {}, at), [`${id}c`]: extruded(id, '100 mm', { name: id, result: 'cut' }) }); // prettier-ignore
/** The round of this radius in a view. */
function roundIn({ spots }: DrawnView, radius: number): SheetSpot {
  return spots.find((s) => s.piece.kind === 'circle' && Math.abs(s.piece.radius - radius) < 1e-6)!.spot;
}
const uprights = ({ lines }: DrawnView) => lines.flatMap(({ piece, style }) => (style === 'visible' && piece.kind === 'line' && Math.abs(piece.points[0][0] - piece.points[1][0]) < 1e-6 ? [piece.points[0][0]] : [])); // prettier-ignore
const strokes = (items: readonly OnPaper[]) => items.flatMap((i) => (i.is === 'curve' && i.pen === 'center' && i.piece.kind === 'line' ? [i.piece.points] : [])); // prettier-ignore

describe('a section in steps', () => {
  const plate = { ...block(90, 50, 14), ...bored('a', 4, [20, 13]), ...bored('b', 6, [47, 36]), ...bored('c', 5, [73, 22]) }; // prettier-ignore

  test('goes through each of what is picked, and draws no line where it steps', async () => {
    const design = onSheet(plate, ['top', 'front']);
    const top = (await geometryOf(design)).views.get('top')!;
    // Picked in any order.
    const cut = { at: roundIn(top, 5), more: [roundIn(top, 4), roundIn(top, 6)] };
    const stepped = edited(design, changeSheetView('h', 'front', { cut }));
    const geometry = await geometryOf(stepped);
    expect(geometry.cuts.get('front')).toEqual({ axis: 'x', strips: [{ to: expect.closeTo(33.5, 9), depth: expect.closeTo(-13, 9) }, { to: expect.closeTo(60, 9), depth: expect.closeTo(-36, 9) }, { to: Infinity, depth: expect.closeTo(-22, 9) }] }); // prettier-ignore
    const front = geometry.views.get('front')!;
    // The walls of all three bores at their full width, and no edge at 33.5 or 60.
    const at = [...new Set(uprights(front).map((x) => x.toFixed(3)))].map(Number).sort((x, y) => x - y);
    expect(at).toEqual([0, 16, 24, 41, 53, 68, 78, 90]);
    // 1,260 mm² of plate less what is bored, in all stretches together.
    const areas = front.cut.map(({ outline }) => boxArea(outline.flatMap((p) => p.points as readonly At[])));
    expect(areas.reduce((sum, a) => sum + a, 0)).toBeCloseTo(14 * (90 - 8 - 12 - 10), 6);
  });

  test('its line on the other view steps halfway between', async () => {
    const design = onSheet(plate, ['top', 'front']);
    const top = (await geometryOf(design)).views.get('top')!;
    const stepped = edited(design, changeSheetView('h', 'front', { cut: { at: roundIn(top, 4), more: [roundIn(top, 6)] } })); // prettier-ignore
    const composed = composeSheet(stepped.sheets!.h!, { name: 'Plate' }, await geometryOf(stepped), stepped.units);
    const on = composed.views.find((v) => v.id === 'top')!;
    const back = ([x, y]: At): At => [(x - on.move[0]) / on.by, (y - on.move[1]) / on.by];
    const path = strokes(on.items).map((ends) => ends.map((p) => back(p))).filter(([p, q]) => [p, q].every((e) => [13, 36].some((y) => Math.abs(e![1] - y) < 1e-6))); // prettier-ignore
    const step = path.find(([p, q]) => Math.abs(p![0] - q![0]) < 1e-6)!;
    expect(step.map((p) => p[0])).toEqual([expect.closeTo(33.5, 6), expect.closeTo(33.5, 6)]);
    // From before the plate to the step at one bore, and on beyond it at the other.
    expect(path.some(([p, q]) => p![0] < 0 && Math.abs(q![0] - 33.5) < 1e-6 && p![1] === q![1])).toBe(true);
    expect(path.some(([p, q]) => Math.abs(p![0] - 33.5) < 1e-6 && q![0] > 90)).toBe(true);
    // A view that does not show the steps bears no line.
    const right = edited(stepped, addSheetView('h', 'right', { look: 'right' }), removeSheetView('h', 'top'));
    const marked = composeSheet(right.sheets!.h!, { name: 'Plate' }, await geometryOf(right), right.units);
    const bare = marked.views.find((v) => v.id === 'right')!;
    expect(bare.items.some((i) => i.is === 'text')).toBe(false);
  });

  test('what lies one behind the other cannot be stepped between, and that is told', async () => {
    const design = onSheet({ ...block(90, 50, 14), ...bored('a', 4, [30, 13]), ...bored('b', 6, [30, 36]) }, ['top', 'front']); // prettier-ignore
    const top = (await geometryOf(design)).views.get('top')!;
    const { says, cuts } = await geometryOf(edited(design, changeSheetView('h', 'front', { cut: { at: roundIn(top, 6), more: [roundIn(top, 4)] } }))); // prettier-ignore
    expect(says).toEqual(['The front section is to go through things that lie one behind the other, and goes through the first of them; pick others.']); // prettier-ignore
    expect(cuts.get('front')!.strips).toEqual([{ to: Infinity, depth: expect.closeTo(-13, 9) }]);
  });

  test('one of what it goes through is gone: that is told, the rest is cut', async () => {
    const design = onSheet(plate, ['top', 'front']);
    const top = (await geometryOf(design)).views.get('top')!;
    const gone: SheetSpot = { edge: { faces: ['nothing:side:l9'], near: [0, 0, 0] } };
    const { says, views } = await geometryOf(edited(design, changeSheetView('h', 'front', { cut: { at: roundIn(top, 4), more: [gone] } }))); // prettier-ignore
    expect(says).toEqual(['The front section has lost some of what it goes through; pick it anew.']);
    expect(uprights(views.get('front')!).map((x) => Math.round(x))).toEqual(expect.arrayContaining([16, 24]));
  });
});

const boxArea = (points: readonly At[]): number => {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys));
};

describe('a view straight onto a slanted face', () => {
  /** A wedge: its slanted face runs from (62, 0) to (14, 36), 60 long, 27 deep. */
  const wedge = { s: outline([[0, 0], [62, 0], [14, 36], [0, 36]], { plane: { datum: 'wall' } }), e: extruded('s', '27 mm') }; // prettier-ignore
  const slantedIn = ({ spots }: DrawnView) => spots.find((s) => s.slanted !== null)!;

  test('shows it in its true size, where another foreshortens it; a length on it is true', async () => {
    const design = onSheet(wedge, ['front', 'top']);
    const spot = slantedIn((await geometryOf(design)).views.get('front')!);
    const onto = edited(design, addSheetView('h', 'o', { look: 'front', onto: { of: 'front', face: spot.slanted! } }));
    const view = (await geometryOf(onto)).views.get('o')!;
    const [x, , normal] = [view.frame.x, view.frame.y, view.frame.normal];
    expect(normal.map((n) => Number(n.toFixed(9)))).toEqual([0.6, 0, 0.8]);
    expect(x[0]).toBeGreaterThan(0);
    const edge = view.spots.find((s) => s.what === 'line' && s.piece.kind === 'line' && Math.abs(Math.hypot(s.piece.points[1][0] - s.piece.points[0][0], s.piece.points[1][1] - s.piece.points[0][1]) - 60) < 1e-6)!; // prettier-ignore
    const sized = edited(onto, putSize('h', [['z', { kind: 'straight', view: 'o', of: [edge.spot] }], ['f', { kind: 'across', view: 'top', of: [edge.spot] }]])); // prettier-ignore
    const { sizes } = await geometryOf(sized);
    expect(sizes.get('z')!.measured).toMatchObject({ is: 'length', value: expect.closeTo(60, 6), true: true });
    expect(sizes.get('f')!.measured).toMatchObject({ value: expect.closeTo(48, 6), true: false });
  });

  test('an arrow and a letter tell on the other view where one looks; without that view it goes as well', async () => {
    const design = onSheet(wedge, ['front', 'top']);
    const spot = slantedIn((await geometryOf(design)).views.get('front')!);
    const onto = edited(design, addSheetView('h', 'o', { look: 'front', onto: { of: 'front', face: spot.slanted! } }));
    const composed = composeSheet(onto.sheets!.h!, { name: 'Wedge' }, await geometryOf(onto), onto.units);
    const letters = composed.views.map((v) => [v.id, v.items.flatMap((i) => (i.is === 'text' ? [i.text] : []))]);
    expect(letters).toEqual([
      ['front', ['Z']],
      ['top', []],
      ['o', [expect.stringMatching(/^Z/), '36.9°']],
    ]);
    const front = composed.views.find((v) => v.id === 'front')!;
    const tip = front.items.flatMap((i) => (i.is === 'filled' ? [i.points[0]!] : []))[0]!;
    // Outside the face, on the normal of its middle: (38, 18) + t (0.6, 0.8).
    const [u, v] = [(tip[0] - front.move[0]) / front.by - 38, (tip[1] - front.move[1]) / front.by - 18];
    expect([u * 0.8 - v * 0.6, u * 0.6 + v * 0.8 > 0]).toEqual([expect.closeTo(0, 6), true]);
    expect(Object.keys(edited(onto, removeSheetView('h', 'front')).sheets!.h!.views)).toEqual(['top']);
  });

  test('a face that is gone is told, and so is a size on that view', async () => {
    const design = onSheet(wedge, ['front']);
    const onto = edited(design, addSheetView('h', 'o', { look: 'front', onto: { of: 'front', face: { name: 'nothing:end' } } }), putSize('h', [['z', { kind: 'note', view: 'o', of: [{ edge: { faces: ['e:side:l1'], near: [0, 0, 0] } }] }]])); // prettier-ignore
    const { says, views, sizes } = await geometryOf(onto);
    expect(says).toEqual(['A view onto a slanted face has lost its face; take it off, or anew.']);
    expect([views.has('o'), sizes.get('z')!.lost]).toEqual([
      false,
      'its view cannot be drawn; see what is said of it.',
    ]);
  });
});

describe('a view that is broken off', () => {
  // A bar of 400 with a bore near each end.
  const bar = { ...block(400, 30, 12), ...bored('a', 4, [22, 15]), ...bored('b', 6, [365, 15]) };

  /** Both long edges of the view, which go on over the break. */
  const edgesAlong = ({ spots }: DrawnView): SheetSpot[] =>
    spots.filter((s) => s.what === 'line' && s.piece.kind === 'line' && Math.abs(s.piece.points[0][1] - s.piece.points[1][1]) < 1e-6).map((s) => s.spot).slice(0, 2); // prettier-ignore

  test('leaves out most of the empty stretch, and its sizes stay true', async () => {
    const design = onSheet(bar, ['top', 'front']);
    const top = (await geometryOf(design)).views.get('top')!;
    const [from, to] = emptyStretch(top)!;
    const centres = [from, to].map((s) => (s.what === 'round' ? s.piece.points[0]![0] : NaN));
    expect(centres).toEqual([22, 365]);
    const size = { kind: 'across', view: 'top', of: [roundIn(top, 4), roundIn(top, 6)] } as const;
    const broken = edited(design, breakSheetViews('h', ['top'], { from: from.spot, to: to.spot, axis: axisBetween([from, to]) }), putSize('h', [['z', size], ['w', { kind: 'up', view: 'top', of: edgesAlong(top) }]]), addSheetView('h', 'right', { look: 'right' })); // prettier-ignore
    const geometry = await geometryOf(broken);
    const drawn = geometry.views.get('top')!;
    // 12 % of the 343 between the centres stay on both sides; the gap is 3 % of what is left.
    const left = 343 * 0.76;
    expect(drawn.broken).toEqual({ axis: 'x', from: expect.closeTo(22 + 41.16, 6), to: expect.closeTo(365 - 41.16, 6), gap: expect.closeTo(0.03 * (400 - left), 6) }); // prettier-ignore
    expect(geometry.says).toEqual([]);
    // What stands above it shows the same length, what stands beside it does not.
    expect(brokenAlike(broken.sheets!.h!, geometry.views, 'top', 'x')).toEqual(['top', 'front']);
    expect(geometry.sizes.get('z')!.measured).toMatchObject({ value: expect.closeTo(343, 6), true: true });
    const composed = composeSheet(broken.sheets!.h!, { name: 'Bar' }, geometry, broken.units);
    const view = composed.views.find((v) => v.id === 'top')!;
    expect((view.box[2] - view.box[0]) / view.by).toBeCloseTo((400 - left) * 1.03, 6);
    // Nothing of the bar is drawn in the gap, and all of it lies within the box.
    const [g0, g1] = [placeOn(view, [drawn.broken!.from, 0])[0], placeOn(view, [drawn.broken!.to, 0])[0]];
    expect(g1 - g0).toBeCloseTo(drawn.broken!.gap * view.by, 6);
    for (const item of view.items)
      if (item.is === 'curve' && item.pen === 'visible' && item.piece.kind === 'line')
        for (const [x] of item.piece.points) expect(x <= g0 + 1e-6 || x >= g1 - 1e-6).toBe(true);
    // Its words say what is true, over a line that is shorter.
    const said = composed.sizes.find((s) => s.id === 'z')!.items.filter((i) => i.is === 'text').map((i) => i.text); // prettier-ignore
    expect(said).toEqual(['343']);
  });

  test('views in line leave out the same, though in one of them its ends lie farther apart another way', async () => {
    // Bored from above near its front and its rear, 60 apart along and 100 across.
    const plate = { ...block(120, 140, 12), ...bored('a', 4, [30, 20]), ...bored('b', 6, [90, 120]) };
    const design = onSheet(plate, ['front', 'top']);
    const top = (await geometryOf(design)).views.get('top')!;
    const broken = { from: roundIn(top, 4), to: roundIn(top, 6), axis: 'x' as const };
    const { views } = await geometryOf(edited(design, breakSheetViews('h', ['front', 'top'], broken)));
    expect(views.get('top')!.broken).toEqual(views.get('front')!.broken);
    expect(views.get('top')!.broken).toMatchObject({ axis: 'x', from: expect.closeTo(37.2, 6) });
  });

  test('a section is hatched on both sides of it', async () => {
    const design = onSheet(bar, ['front']);
    const front = (await geometryOf(design)).views.get('front')!;
    const ends = emptyStretch(front)!;
    const broken = edited(design, changeSheetView('h', 'front', { cut: {} }), breakSheetViews('h', ['front'], { from: ends[0].spot, to: ends[1].spot, axis: 'x' })); // prettier-ignore
    const geometry = await geometryOf(broken);
    const view = composeSheet(broken.sheets!.h!, { name: 'Bar' }, geometry, broken.units).views[0]!;
    const { from, to } = geometry.views.get('front')!.broken!;
    const [g0, g1] = [placeOn(view, [from, 0])[0], placeOn(view, [to, 0])[0]];
    const hatching = view.items.flatMap((i) => (i.is === 'curve' && i.pen === 'smooth' && i.piece.kind === 'line' ? [i.piece.points] : [])); // prettier-ignore
    expect(hatching.filter(([p, q]) => Math.max(p[0], q[0]) <= g0 + 1e-6).length).toBeGreaterThan(5);
    expect(hatching.filter(([p, q]) => Math.min(p[0], q[0]) >= g1 - 1e-6).length).toBeGreaterThan(5);
    expect(hatching.every(([p, q]) => Math.max(p[0], q[0]) <= g0 + 1e-6 || Math.min(p[0], q[0]) >= g1 - 1e-6)).toBe(true); // prettier-ignore
  });

  test('what is taken where it is broken off is told, as are ends that are gone or lie at one place', async () => {
    const middle = { ...bar, ...bored('c', 3, [200, 15]) };
    const design = onSheet(middle, ['top']);
    const top = (await geometryOf(design)).views.get('top')!;
    const of = [roundIn(top, 4), roundIn(top, 3)];
    const broken = { from: roundIn(top, 4), to: roundIn(top, 6), axis: 'x' as const };
    const left = await geometryOf(edited(design, breakSheetViews('h', ['top'], broken), putSize('h', [['z', { kind: 'across', view: 'top', of }]]))); // prettier-ignore
    expect(left.says).toEqual(['A size is taken where the top view is broken off; break it elsewhere, or take it in another view.']); // prettier-ignore
    expect(left.views.get('top')!.spots.some((s) => s.piece.kind === 'circle' && s.piece.radius === 3)).toBe(false);
    const same = await geometryOf(edited(design, breakSheetViews('h', ['top'], { ...broken, to: broken.from }))); // prettier-ignore
    expect(same.says).toEqual(['The top view was to be broken where there is next to nothing to leave out, and is drawn whole; break it anew.']); // prettier-ignore
    const gone: SheetSpot = { edge: { faces: ['nothing:side:l9'], near: [0, 0, 0] } };
    const lost = await geometryOf(edited(design, breakSheetViews('h', ['top'], { ...broken, to: gone })));
    expect(lost.says).toEqual(['The top view has lost what it was broken between, and is drawn whole; break it anew.']);
    expect(lost.views.get('top')!.broken).toBeNull();
  });
});
