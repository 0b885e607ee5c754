/** Chamfers called out, and surface marks. */
import { describe, expect, test } from '@jest/globals';
import { addSheet, addSheetView, composeSheet, Known, newSheet, PartEvaluator, putSize, sheetGeometry, wordsOfSize, type Design, type SheetSize, type Step, type ViewSpot } from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { block, designOf, edgeNear, edited, evaluated, extruded, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const geometryOf = (design: Design) => sheetGeometry(design, 'h', evaluator, kernel, new Known());

function onSheet(steps: Record<string, Step>): Design {
  const bare = { ...newSheet('Sheet', { part: 'p' }, null), views: {}, viewOrder: [] };
  return edited(designOf(steps), addSheet('h', bare), addSheetView('h', 'right', { look: 'right' }), addSheetView('h', 'top', { look: 'top' })); // prettier-ignore
}
async function read(
  design: Design,
  view: string,
  pick: (s: ViewSpot) => boolean,
  kind: SheetSize['kind'],
  more: Partial<SheetSize> = {},
) {
  // prettier-ignore
  const spot = (await geometryOf(design)).views.get(view)!.spots.find(pick)!;
  const sized = edited(design, putSize('h', [['z', { kind, view, of: [spot.spot], ...more }]]));
  const geometry = await geometryOf(sized);
  const { measured, lost } = geometry.sizes.get('z')!;
  return { sized, geometry, words: measured ? wordsOfSize(sized.sheets!.h!.sizes.z!, measured, sized.units) : lost! };
}
const [body] = (await evaluated(designOf(block(52, 34, 13)))).bodies;
const chamfered = (more: object) => onSheet({ ...block(52, 34, 13), c: { kind: 'chamfer', name: 'Bevel', edges: [edgeNear(body!, [26, 0, 13])], ...more } as Step }); // prettier-ignore

describe('a chamfer is called out', () => {
  test('at a slanted edge: alike on both sides, and not', async () => {
    expect((await read(chamfered({ distance: '2.5 mm' }), 'right', (s) => s.slanted !== null, 'chamfer')).words).toBe('2.5 × 45°'); // prettier-ignore
    const uneven = chamfered({ distance: '2.5 mm', way: 'two', other_distance: '4 mm' });
    const { words } = await read(uneven, 'right', (s) => s.slanted !== null, 'chamfer');
    expect(words.split(' × ').map(Number).sort()).toEqual([2.5, 4]);
  });

  test('at the rim of a cone, by its height and how far it goes out', async () => {
    const turned = onSheet({ s: round(11), e: extruded('s', '30 mm'), c: { kind: 'chamfer', name: 'Bevel', edges: [edgeNear((await evaluated(designOf({ s: round(11), e: extruded('s', '30 mm') }))).bodies[0]!, [0, 0, 30])], distance: '1.5 mm' } as Step }); // prettier-ignore
    const isTop = (s: ViewSpot) => s.what === 'side' && s.piece.kind === 'line' && s.piece.points.every(([, y]) => Math.abs(y - 30) < 1e-6); // prettier-ignore
    expect((await read(turned, 'right', isTop, 'chamfer')).words).toBe('1.5 × 45°');
  });

  test('it settles both of its sizes; a straight edge is no chamfer', async () => {
    const { geometry } = await read(chamfered({ distance: '2.5 mm' }), 'right', (s) => s.slanted !== null, 'chamfer');
    expect(geometry.audit!.settled).toBe(2);
    const level = await read(onSheet(block(52, 34, 13)), 'right', (s) => s.what === 'line', 'chamfer');
    expect(level.words).toBe('A chamfer is told of an edge that stands at a slant in its view, or of the rim of a cone; pick one.'); // prettier-ignore
  });
});

test('a surface mark stands on a leader with what is asked of the surface, and says nothing of sizes', async () => {
  const { sized, geometry, words } = await read(onSheet(block(52, 34, 13)), 'top', (s) => s.what === 'line', 'surface', { text: 'Ra 0.8' }); // prettier-ignore
  expect([words, geometry.audit!.settled]).toEqual(['Ra 0.8', 0]);
  const { sizes } = composeSheet(sized.sheets!.h!, { name: 'Block' }, geometry, sized.units);
  const [mark] = sizes.map((s) => s.items);
  expect(mark!.flatMap((i) => (i.is === 'text' ? [i.text] : []))).toContain('Ra 0.8');
  // Leader, shelf, both legs and the bar.
  expect(mark!.filter((i) => i.is === 'curve')).toHaveLength(5);
  expect(geometry.audit!.findings.filter((f) => f.kind !== 'missing')).toEqual([]);
});

test('a pitch circle is told across, drawn as a centre line, and only between rounds that lie apart', async () => {
  const bored = { s: round(40), e: extruded('s', '6 mm'), b: round(8, { name: 'Bore' }), c: extruded('b', '9 mm', { result: 'cut' }), d: round(3, { name: 'Hole' }, [21, 20]), f: extruded('d', '9 mm', { result: 'cut' }) }; // prettier-ignore
  const bare = onSheet(bored);
  const { spots } = (await geometryOf(bare)).views.get('top')!;
  const rim = (radius: number) => spots.find((s) => s.piece.kind === 'circle' && Math.abs(s.piece.radius - radius) < 1e-9)!.spot; // prettier-ignore
  const pitch = (...of: SheetSize['of']): SheetSize => ({ kind: 'pitch', view: 'top', of });
  const sized = edited(bare, putSize('h', [['a', pitch(rim(3), rim(8))], ['b', pitch(rim(40), rim(8))], ['c', pitch(rim(3))]])); // prettier-ignore
  const geometry = await geometryOf(sized);
  const told = (id: string) => geometry.sizes.get(id)!;
  expect(wordsOfSize({}, told('a').measured!, sized.units)).toBe('Ø58');
  expect([told('b').lost, told('c').lost]).toEqual([
    'Both rounds lie about one centre; pick one that lies aside.',
    'A pitch circle is told of a round and of the one about which it lies; pick both.',
  ]);
  const { views, sizes } = composeSheet(sized.sheets!.h!, { name: 'Disc' }, geometry, sized.units);
  const circles = (items: (typeof sizes)[number]['items'], pen: string) => items.flatMap((i) => (i.is === 'curve' && i.pen === pen && i.piece.kind === 'circle' ? [i.piece.radius] : [])); // prettier-ignore
  const disc = Math.max(...circles(views.find((v) => v.id === 'top')!.items, 'visible'));
  expect(circles(sizes.find((s) => s.id === 'a')!.items, 'center').map((r) => r / disc)).toEqual([expect.closeTo(29 / 40, 9)]); // prettier-ignore
});
