/** What a sheet shows: an assembly at home, in a kept position, taken apart; a part as a variant has it. */
import { describe, expect, test } from '@jest/globals';
import {
  addAssembly, addDimension, addPart, addSheet, addSheetView, addStep, addVariant, addVariantColumn, bringSizes, changeSheet, composeSheet, emptyDesign, keepPose, Known, newSheet, PartEvaluator, placeInstances, putSize, removeInstances, setDimension, setVariantCell, sheetGeometry, wordsOfSize,
  type Design, type Edit, type SheetGeometry,
} from '@helb/core'; // prettier-ignore
import { loadKernel } from './load.ts';
import { edited, extruded, outline, rectangle } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const geometryOf = (design: Design): Promise<SheetGeometry> => sheetGeometry(design, 'h', evaluator, kernel, new Known()); // prettier-ignore
const pose = (x: number, y: number, z: number) => ({ at: [x, y, z] as [number, number, number], turn: [0, 0, 0, 1] as [number, number, number, number] }); // prettier-ignore

/** A base of 40 × 30 × 10 and a lid of 40 × 30 × 4 on it. */
const box: Edit[] = [
  addDimension('h', { name: 'height', value: '10 mm' }),
  addPart('base', 'Base'),
  addStep('base', 'bs', outline(rectangle(0, 0, 40, 30))),
  addStep('base', 'be', extruded('bs', 'height')),
  addPart('lid', 'Lid'),
  addStep('lid', 'ls', outline(rectangle(0, 0, 40, 30))),
  addStep('lid', 'le', extruded('ls', '4 mm')),
  addAssembly('a', 'Box'),
  placeInstances('a', [['b', { of: { part: 'base' }, home: pose(0, 0, 0), fixed: true }], ['l', { of: { part: 'lid' }, home: pose(0, 0, 10) }]]),
]; // prettier-ignore
const sheetOf = (of: Parameters<typeof newSheet>[1]): Edit[] => [
  addSheet('h', { ...newSheet('Sheet', of, null), views: {}, viewOrder: [] }),
  addSheetView('h', 'f', { look: 'front' }),
  addSheetView('h', 't', { look: 'top' }),
];
const assembly = edited(emptyDesign('Box'), ...box, ...sheetOf({ assembly: 'a' }));
const heightIn = ({ views }: SheetGeometry) => views.get('f')!.box[3] - views.get('f')!.box[1];

describe('how an assembly stands on its sheet', () => {
  test('at home, then in a position that was kept', async () => {
    expect(heightIn(await geometryOf(assembly))).toBeCloseTo(14, 6);
    const kept = edited(assembly, keepPose('a', 'k', { name: 'Lid up', at: { b: pose(0, 0, 0), l: pose(0, 0, 27) } }), changeSheet('h', { shown: { pose: 'k' } })); // prettier-ignore
    const geometry = await geometryOf(kept);
    expect([heightIn(geometry), geometry.shown, geometry.says]).toEqual([expect.closeTo(31, 6), 'Lid up', []]);
    const title = composeSheet(kept.sheets!.h!, { name: 'Box' }, geometry, kept.units).frame;
    expect(title.some((i) => i.is === 'text' && i.text === 'Box, Lid up')).toBe(true);
    expect(edited(kept, changeSheet('h', { shown: null })).sheets).toEqual(assembly.sheets);
  });

  test('taken apart, by itself and as it was kept, with a line along which each part goes', async () => {
    const apart = await geometryOf(edited(assembly, changeSheet('h', { shown: { apart: true } })));
    expect(apart.shown).toBe('taken apart');
    expect(heightIn(apart)).toBeGreaterThan(16);
    const [from, to] = apart.views.get('f')!.axes[0]!;
    expect([from[0], to[0]]).toEqual([expect.closeTo(20, 6), expect.closeTo(20, 6)]);
    expect(Math.abs(to[1] - from[1])).toBeCloseTo(heightIn(apart) - 14, 6);
    // From above the line is seen end-on.
    expect(apart.views.get('t')!.axes).toEqual([]);
    const kept = edited(assembly, keepPose('a', 'k', { name: 'Apart', exploded: true, at: { b: pose(0, 0, 0), l: pose(0, 0, 42) } }), changeSheet('h', { shown: { pose: 'k' } })); // prettier-ignore
    expect(heightIn(await geometryOf(kept))).toBeCloseTo(46, 6);
    // The same way off, whatever the height is now.
    expect(heightIn(await geometryOf(edited(kept, setDimension('h', '16 mm'))))).toBeCloseTo(46, 6);
  });

  test('a position that is kept no more is told, and home is drawn', async () => {
    const gone = await geometryOf(edited(assembly, changeSheet('h', { shown: { pose: 'gone' } })));
    expect([heightIn(gone), gone.says]).toEqual([expect.closeTo(14, 6), ['The position that was drawn is no longer kept; it is drawn at home.']]); // prettier-ignore
  });
});

describe('sizes on the sheet of an assembly', () => {
  const edgesAt = ({ views }: SheetGeometry, z: number) => views.get('f')!.spots.filter((s) => s.what === 'line' && s.piece.kind === 'line' && s.piece.points.every(([, y]) => Math.abs(y - z) < 1e-6)); // prettier-ignore
  const overAll = (geometry: SheetGeometry): Edit => putSize('h', [['z', { kind: 'up', view: 'f', of: [edgesAt(geometry, 0)[0]!.spot, edgesAt(geometry, 14)[0]!.spot] }]]); // prettier-ignore

  test('from one part to another, following both; parts alike are told apart', async () => {
    const sized = edited(assembly, overAll(await geometryOf(assembly)));
    const read = async (design: Design) => (await geometryOf(design)).sizes.get('z')!;
    expect((await read(sized)).measured).toMatchObject({ is: 'length', value: expect.closeTo(14, 6), true: true });
    // Two lids: the size stays with the one it was taken at.
    const two = edited(sized, placeInstances('a', [['l2', { of: { part: 'lid' }, home: pose(0, 0, 14) }]]));
    expect(await read(two)).toMatchObject({ lost: null, doubt: null, measured: { value: expect.closeTo(14, 6) } });
    const taller = edited(two, setDimension('h', '16 mm'));
    expect((await read(taller)).measured).toMatchObject({ value: expect.closeTo(14, 6) });
    const apart = edited(sized, keepPose('a', 'k', { name: 'Lid up', at: { l: pose(0, 0, 27) } }), changeSheet('h', { shown: { pose: 'k' } })); // prettier-ignore
    expect((await read(apart)).measured).toMatchObject({ value: expect.closeTo(31, 6) });
  });

  test('what is lost is told though nothing else is judged; solids are let go of', async () => {
    const sized = edited(assembly, overAll(await geometryOf(assembly)));
    const held = kernel.held;
    const gone = await geometryOf(edited(sized, removeInstances('a', ['l'])));
    expect(gone.audit).toBeNull();
    expect(gone.faults).toMatchObject([{ kind: 'lost', sizes: ['z'] }]);
    expect(kernel.held).toBe(held);
  });
});

describe('a variant on a sheet', () => {
  const varied = edited(
    emptyDesign('Box'),
    ...box,
    ...sheetOf({ part: 'base' }),
    addVariantColumn('dimension:h'),
    addVariant('v', 'Tall'),
    setVariantCell('v', 'dimension:h', '23 mm'),
    changeSheet('h', { variant: 'v' }),
  );

  test('is drawn and measured as the variant is, while the design stays as it is', async () => {
    const geometry = await geometryOf(varied);
    expect([heightIn(geometry), geometry.shown]).toEqual([expect.closeTo(23, 6), 'Tall']);
    const { sizes } = await bringSizes(varied, 'h', evaluator, kernel, new Known());
    const drawn = await geometryOf({ ...varied, sheets: { h: { ...varied.sheets!.h!, sizes: Object.fromEntries(sizes) } } }); // prettier-ignore
    expect(sizes.map(([id, s]) => wordsOfSize(s, drawn.sizes.get(id)!.measured!, varied.units))).toEqual(['23']);
    expect(heightIn(await geometryOf(edited(varied, changeSheet('h', { variant: null }))))).toBeCloseTo(10, 6);
  });

  test('one that is gone is refused in a sentence', async () => {
    await expect(geometryOf(edited(varied, changeSheet('h', { variant: 'gone' })))).rejects.toThrow('The variant that was drawn here is no longer there; choose another.'); // prettier-ignore
  });
});
