/** Sizes taken at lines in which a section cuts faces. */
import { describe, expect, test } from '@jest/globals';
import {
  addSheet, addSheetView, changeSheetView, Known, newSheet, PartEvaluator, putSize, sheetGeometry, suppressStep,
  type Design, type DrawnView, type SheetGeometry, type SheetSize, type SizeSpot, type Step,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { designOf, edited, extruded, outline, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const geometryOf = (design: Design): Promise<SheetGeometry> => sheetGeometry(design, 'h', evaluator, kernel, new Known()); // prettier-ignore

/** A cup: a leaning outside of Ø44 at the foot, a bore that stops 9 mm above it; and a block beside it. */
const cup = (bore: number, taper: number): Design =>
  designOf({
    a: round(22),
    ae: extruded('a', '31 mm', { taper: `${taper} deg` } as Partial<Step>),
    b: round(bore),
    be: extruded('b', '60 mm', { start: '9 mm', result: 'cut' } as Partial<Step>),
    c: outline([[40, -6], [52, -6], [52, 6], [40, 6]]),
    ce: extruded('c', '20 mm', { result: 'new_body' } as Partial<Step>),
  }); // prettier-ignore
const sheet = { ...newSheet('Sheet', { part: 'p' }, null), views: {}, viewOrder: [] };
const onSheet = (design: Design) =>
  edited(design, addSheet('h', sheet), addSheetView('h', 'v', { look: 'front', cut: {} }));
const base = onSheet(cup(13, 8));
const withSizesOf = (design: Design, { sheets }: Design) =>
  edited(design, putSize('h', Object.entries(sheets!.h!.sizes)));

/** Upright lines at an x, and slanted ones, that the section makes. */
const cutAt = ({ cutSpots }: DrawnView, x: number): SizeSpot =>
  cutSpots.find(({ piece }) => piece.kind === 'line' && piece.points.every((p) => Math.abs(p[0] - x) < 1e-6))!.spot;
const slanted = ({ cutSpots }: DrawnView): SizeSpot[] =>
  cutSpots.filter(({ piece }) => piece.kind === 'line' && Math.abs(piece.points[0][0] - piece.points[1][0]) > 1 && Math.abs(piece.points[0][1] - piece.points[1][1]) > 1).map((s) => s.spot); // prettier-ignore
const withSize = (kind: SheetSize['kind'], ...of: SizeSpot[]) => edited(base, putSize('h', [['z', { kind, view: 'v', of }]])); // prettier-ignore
const read = async (design: Design) => (await geometryOf(design)).sizes.get('z')!;

describe('in a section', () => {
  test('walls of a bore and a taper are offered once each, and no line that is an edge as well', async () => {
    const view = (await geometryOf(base)).views.get('v')!;
    const spots = view.cutSpots.map((s) => JSON.stringify(s.spot));
    expect(spots).toHaveLength(new Set(spots).size);
    // Two of the bore, two of the taper; the block’s own outline is edges.
    expect(spots).toHaveLength(4);
  });

  test('a round that is cut through its middle has its centre line still, one that is cut away has none', async () => {
    const view = (await geometryOf(base)).views.get('v')!;
    expect(view.axes).toEqual([[[expect.closeTo(0, 9), expect.closeTo(0, 9)], [expect.closeTo(0, 9), expect.closeTo(31, 9)]]]); // prettier-ignore
    const both = edited(base, addSheetView('h', 't', { look: 'top' }));
    const top = (await geometryOf(both)).views.get('t')!;
    const through = async (y: number) => {
      const corner = top.spots.find(({ what, piece }) => what === 'corner' && Math.hypot(piece.points[0]![0] - 40, piece.points[0]![1] - y) < 1e-6)!; // prettier-ignore
      return (await geometryOf(edited(both, changeSheetView('h', 'v', { cut: { at: corner.spot } })))).views.get('v')!;
    };
    // The block’s near side lies before the cup’s middle, its far side behind that.
    expect([(await through(-6)).axes.length, (await through(6)).axes.length]).toEqual([1, 0]);
  });

  test('lengths, angles and what follows a change', async () => {
    const view = (await geometryOf(base)).views.get('v')!;
    const [left, right] = [cutAt(view, -13), cutAt(view, 13)];
    const wide = withSize('across', left, right);
    expect((await read(wide)).measured).toMatchObject({ value: expect.closeTo(26, 9), true: true });
    const wider = withSizesOf(onSheet(cup(17, 8)), wide);
    expect(await read(wider)).toMatchObject({ doubt: null, lost: null, measured: { value: expect.closeTo(34, 9) } });
    const [one, other] = slanted(view) as [SizeSpot, SizeSpot];
    const taper = (await read(withSize('angle', one, other))).measured as { value: number };
    // Both lean 8° inwards: they meet above at 16°, or below at what is left of a half turn.
    expect(Math.min(taper.value, Math.PI - taper.value)).toBeCloseTo((16 * Math.PI) / 180, 9);
    const apart = withSizesOf(onSheet(cup(13, 5)), withSize('angle', one, other));
    const leaner = (await read(apart)).measured as { value: number };
    expect(Math.min(leaner.value, Math.PI - leaner.value)).toBeCloseTo((10 * Math.PI) / 180, 9);
  });

  test('a wall of a bore tells its diameter, from wall to wall', async () => {
    const view = (await geometryOf(base)).views.get('v')!;
    const bore = withSize('diameter', cutAt(view, 13));
    expect((await read(bore)).measured).toMatchObject({ value: expect.closeTo(26, 9), whole: true, true: true, ends: [[expect.closeTo(13, 9), expect.closeTo(20, 6)], [expect.closeTo(-13, 9), expect.closeTo(20, 6)]] }); // prettier-ignore
    expect((await read(withSizesOf(onSheet(cup(17, 8)), bore))).measured).toMatchObject({ value: expect.closeTo(34, 9) }); // prettier-ignore
    // A leaning side has no one diameter.
    expect((await read(withSize('diameter', slanted(view)[0]!))).lost).toMatch(/is taken of a circle or an arc/);
  });

  test('what is no longer cut is lost, and what is cut in more or fewer places is doubted', async () => {
    const view = (await geometryOf(base)).views.get('v')!;
    const wide = withSize('across', cutAt(view, -13), cutAt(view, 13));
    const filled = edited(wide, suppressStep('p', 'be', true));
    expect((await read(filled)).lost).toMatch(/is gone/);
    const whole = edited(wide, changeSheetView('h', 'v', { cut: null }));
    expect((await read(whole)).lost).toMatch(/does not go through that face any more/);
    const once = { ...cutAt(view, -13), of: 1 } as SizeSpot;
    const { doubt } = await read(withSize('across', once, cutAt(view, 13)));
    expect(doubt!.says).toMatch(/cut in 2 places now, and was in 1/);
    // What it would be sure with.
    expect(doubt!.of[0]).toMatchObject({ nth: 0, of: 2 });
  });

  test('the audit hears them: a bore’s width is settled by a size between its walls, a taper by the angle of its sides', async () => {
    const settled = async (design: Design) => (await geometryOf(design)).audit!.settled;
    const none = await settled(base);
    const view = (await geometryOf(base)).views.get('v')!;
    const wide = withSize('across', cutAt(view, -13), cutAt(view, 13));
    const lean = withSize('angle', ...slanted(view));
    expect([await settled(wide), await settled(lean)]).toEqual([1, 1].map((more) => none + more));
  });
});

describe('a ring cut level through its middle', () => {
  test('tells its inner and its outer circle apart, though they are of one face and about one centre', async () => {
    const ring = designOf({
      s: { ...round(4, { plane: { datum: 'wall' } } as Partial<Step>, [20, 0]) },
      e: { kind: 'revolve', name: 'Ring', profile: { sketch: 's', regions: 'all' }, axis: { datum: 'z' }, way: 'whole', result: 'new_body' } as unknown as Step, // prettier-ignore
    });
    const cut = edited(ring, addSheet('h', sheet), addSheetView('h', 'v', { look: 'top', cut: {} }));
    const view = (await geometryOf(cut)).views.get('v')!;
    const rounds = view.cutSpots.filter((s) => s.piece.kind === 'circle').map((s) => s.spot);
    expect(rounds.map((s) => ('cut' in s ? [s.nth, s.of] : null)).sort()).toEqual([[0, 2], [1, 2]]); // prettier-ignore
    const sized = edited(cut, putSize('h', rounds.map((of, i): [string, SheetSize] => [`z${i}`, { kind: 'diameter', view: 'v', of: [of] }]))); // prettier-ignore
    const values = [...(await geometryOf(sized)).sizes.values()].map((s) => (s.measured as { value: number }).value);
    expect(values.sort((a, b) => a - b)).toEqual([expect.closeTo(32, 6), expect.closeTo(48, 6)]);
  });
});

describe('one view of a turned part', () => {
  const shaft = designOf({
    a: round(10),
    ae: extruded('a', '40 mm'),
    b: round(6),
    be: extruded('b', '70 mm', { result: 'join' } as Partial<Step>),
    c: round(4),
    ce: extruded('c', '15 mm', { result: 'cut' } as Partial<Step>),
  });
  const wanting = async (cut: boolean) => {
    let design = edited(shaft, addSheet('h', sheet), addSheetView('h', 'v', { look: 'front', ...(cut ? { cut: {} } : {}) })); // prettier-ignore
    const found: string[] = [];
    for (let i = 0; i < 9; i++) {
      const [next] = (await geometryOf(design)).audit!.findings.filter((f) => f.kind === 'missing');
      if (!next) break;
      found.push(next.says);
      if (!next.cure) break;
      design = edited(design, putSize('h', [[`z${i}`, next.cure]]));
    }
    return found;
  };

  test('from the side all diameters are offered that show there', async () => {
    const open = await wanting(true);
    expect(open.filter((s) => s.startsWith('The diameter'))).toHaveLength(3);
    expect(open.filter((s) => s.includes('none of these views shows'))).toEqual([]);
    // A blind bore is not seen from outside without its hidden lines.
    const whole = await wanting(false);
    expect(whole.filter((s) => s.startsWith('The diameter')).length).toBeGreaterThanOrEqual(2);
  });
});
