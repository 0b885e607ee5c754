/** The model’s own dimensions, brought to a sheet: each where it is seen true, none twice, and what no view shows is named. */
import { describe, expect, test } from '@jest/globals';
import { addAssembly, addSheet, addSheetView, bringSizes, Known, Ledger, newSheet, PartEvaluator, putSize, removeSheetView, setDimension, sheetGeometry, wordsOfSize, type Brought, type Design, type Look, type Step } from '@helb/core'; // prettier-ignore
import fc from 'fast-check';
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
} from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

const bring = (design: Design) => bringSizes(design, 'h', evaluator, kernel, new Known());
const drawn = (design: Design) => sheetGeometry(design, 'h', evaluator, kernel, new Known());

/** On a sheet with these views; the front of the part is its front. */
function onSheet(design: Design, looks: readonly Look[] = ['front', 'top', 'right']): Design {
  const sheet = newSheet('Sheet', { part: 'p' }, null);
  const bare = { ...sheet, views: {}, viewOrder: [] };
  return edited(design, addSheet('h', bare), ...looks.map((look) => addSheetView('h', look, { look })));
}

/** View and words of each. */
async function read(design: Design, { sizes }: Pick<Brought, 'sizes'>): Promise<string[]> {
  const { sizes: states } = await drawn(design);
  return sizes.map(([id, size]) => `${size.view}: ${wordsOfSize(size, states.get(id)!.measured!, design.units)}`);
}

async function brought(design: Design): Promise<{ says: string[]; found: Brought; design: Design }> {
  const found = await bring(design);
  const after = found.sizes.length > 0 ? edited(design, putSize('h', found.sizes)) : design;
  return { says: await read(after, found), found, design: after };
}

const number = (kind: string, value: string, of: string[], more = {}) => ({ kind, of, value, ...more });

/** A plate with a bore off its middle, every number a dimension. */
const plate = (w: number, d: number, h: number, x: number, y: number, bore: number): Record<string, Step> => ({
  s: {
    ...outline(rectangle(0, 0, w, d)),
    constraints: {
      a: { kind: 'fixed', of: ['p0'] },
      b: { kind: 'horizontal', of: ['l0'] },
      c: { kind: 'vertical', of: ['l1'] },
      d: { kind: 'horizontal', of: ['l2'] },
      e: { kind: 'vertical', of: ['l3'] },
      w: number('distance', `${w} mm`, ['l0']),
      d1: number('vertical_distance', `${d} mm`, ['p1', 'p2'], { tolerance: '±0.2' }),
    },
  } as Step,
  e: extruded('s', `${h} mm`),
  b: {
    ...round(bore / 2, {}, [x, y]),
    constraints: {
      x: number('horizontal_distance', `${x} mm`, ['origin', 'c']),
      y: number('vertical_distance', `${y} mm`, ['origin', 'c']),
      o: number('diameter', `${bore} mm`, ['o'], { tolerance: 'H7' }),
    },
  } as Step,
  c: extruded('b', '100 mm', { name: 'Bore', result: 'cut' }),
});

describe('dimensions of the model on a sheet', () => {
  test('a plate: those of its sketches from above, its thickness from the side, with their tolerances', async () => {
    const { says, found, design } = await brought(onSheet(designOf(plate(73, 46, 6.5, 19, 12.5, 9))));
    expect(says.sort()).toEqual(['front: 6.5', 'top: 12.5', 'top: 19', 'top: 46 ±0.2', 'top: 73', 'top: Ø9 H7']);
    // A cut that goes on past the plate ends at nothing that is seen.
    expect(found.missed).toEqual(['bore.distance']);
    const { audit } = await drawn(design);
    expect([audit!.settled, audit!.findings]).toEqual([audit!.freedoms, []]);
  });

  test('brought again nothing comes twice, and the sizes follow the model', async () => {
    const first = await brought(onSheet(designOf(plate(73, 46, 6.5, 19, 12.5, 9))));
    const again = await bring(first.design);
    expect([again.sizes, again.known]).toEqual([[], first.found.sizes.length]);
    const wider = edited(first.design, setDimension('s.w', '88.25 mm'));
    expect(await read(wider, first.found)).toContain('top: 88.25');
  });

  test('any plate: each dimension reads as it was typed', async () => {
    const half = (least: number, most: number) => fc.integer({ min: 2 * least, max: 2 * most }).map((n) => n / 2);
    await fc.assert(
      fc.asyncProperty(half(60, 90), half(40, 55), half(2, 9), half(10, 25), half(12, 20), half(4, 8), async (w, d, h, x, y, bore) => {
        const { says } = await brought(onSheet(designOf(plate(w, d, h, x, y, bore))));
        const read = says.map((s) => s.replace(/^\w+: |Ø| .*/g, '').replace(/^\w+: Ø?/, '')).map(Number);
        const wanted = [w, d, h, x, y, bore];
        // What is alike by chance may be said by one alone; never anything else.
        expect(read.every((n) => wanted.includes(n))).toBe(true);
        expect(read.length).toBeLessThanOrEqual(6);
        expect(new Set(read).size).toBeGreaterThanOrEqual(Math.min(5, new Set(wanted).size));
      }),
      { numRuns: 4 },
    ); // prettier-ignore
  });

  test('the radius of a fillet round a rim is given at its outline, with its count, and says what it is', async () => {
    const pin: Record<string, Step> = { s: { ...round(14), constraints: { o: number('diameter', '28 mm', ['o']) } } as Step, e: extruded('s', '40 mm') }; // prettier-ignore
    const [body] = (await evaluated(designOf(pin))).bodies;
    const edges = [0, 40].map((z) => edgeNear(body!, [-14, 0, z]));
    const { says, found, design } = await brought(onSheet(designOf({ ...pin, f: { kind: 'fillet', name: 'Fillet', edges, radius: '3.5 mm' } as Step }))); // prettier-ignore
    expect([says.sort(), found.missed]).toEqual([['front: 2× R3.5', 'front: 40', 'top: Ø28'], []]);
    const { audit } = await drawn(design);
    expect([audit!.settled, audit!.findings, audit!.unjudged]).toEqual([audit!.freedoms, [], 0]);
    expect(await read(edited(design, setDimension('f.radius', '2 mm')), found)).toContain('front: 2× R2');
  });

  test('what was turned is given by diameters seen from the side', async () => {
    const half: Step = {
      ...outline([[0, 0], [11, 0], [11, 8], [6.5, 8], [6.5, 31], [0, 31]]), // prettier-ignore
      plane: { datum: 'wall' },
      constraints: {
        r: number('distance', '11 mm', ['l1', 'y_axis']),
        d: number('across', '13 mm', ['l3', 'y_axis']),
        h: number('distance', '8 mm', ['l1']),
        l: number('vertical_distance', '31 mm', ['p0', 'p5']),
      },
    };
    const turned = { kind: 'revolve', name: 'Turned', profile: { sketch: 's', regions: 'all' }, axis: { sketch: 's', line: 'y_axis' }, way: 'whole', result: 'new_body' } as unknown as Step; // prettier-ignore
    const { says, found } = await brought(onSheet(designOf({ s: half, t: turned })));
    expect([says.sort(), found.missed]).toEqual([['front: 31', 'front: 8', 'front: Ø13', 'front: Ø22'], []]);
  });

  test('the numbers of steps: a radius with how many have it, a bevel', async () => {
    const [body] = (await evaluated(designOf(block(52, 34, 13)))).bodies;
    const corners = [[0, 0], [52, 0], [0, 34], [52, 34]].map(([x, y]) => edgeNear(body!, [x!, y!, 6.5])); // prettier-ignore
    const steps = {
      ...block(52, 34, 13),
      f: { kind: 'fillet', name: 'Corners', edges: corners, radius: '4.5 mm' } as Step,
    };
    const { says } = await brought(onSheet(designOf(steps)));
    expect(says.sort()).toEqual(['front: 13', 'top: 4× R4.5']);
    const bevelled = { ...block(52, 34, 13), f: { kind: 'chamfer', name: 'Bevel', edges: [edgeNear(body!, [26, 0, 13])], distance: '2.75 mm' } as Step }; // prettier-ignore
    expect((await brought(onSheet(designOf(bevelled)))).says).toContain('right: 2.75 × 45°');
  });

  test('both distances of a bevelled rim in one call-out, with how many are alike', async () => {
    const disc = { s: round(18), e: extruded('s', '15 mm') };
    const [body] = (await evaluated(designOf(disc))).bodies;
    const edges = [0, 15].map((z) => edgeNear(body!, [-18, 0, z]));
    const bevel = (more: object) => onSheet(designOf({ ...disc, c: { kind: 'chamfer', name: 'Bevel', edges, ...more } as Step })); // prettier-ignore
    const alike = await brought(bevel({ distance: '1.5 mm' }));
    expect(alike.says.sort()).toEqual(['front: 15', 'front: 2× 1.5 × 45°']);
    const uneven = await brought(bevel({ distance: '3 mm', way: 'two', other_distance: '1.25 mm' }));
    expect(uneven.says).toContain('front: 2× 3 × 1.25');
    expect(uneven.found.missed).toEqual([]);
  });

  test('all numbers of a hole stand in one call-out', async () => {
    const [body] = (await evaluated(designOf(block(52, 34, 13)))).bodies;
    const marks: Step = { ...outline([], { plane: { face: faceLooking(body!, [0, 0, 1]) }, name: 'Marks' }), points: { a: [14, 9], b: [38, 21] } }; // prettier-ignore
    const hole = { kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], size: 'own', diameter: '5.5 mm', form: 'counterbored', head_diameter: '10 mm', head_depth: '5.25 mm' } as Step; // prettier-ignore
    const { says, found } = await brought(onSheet(designOf({ ...block(52, 34, 13), m: marks, hole })));
    expect([says.sort(), found.missed]).toEqual([['front: 13', 'top: 2× Ø5.5 THRU, bored Ø10 × 5.25'], []]);
  });

  test('a view that shows nothing of it: its name is told; one that is added shows it', async () => {
    const design = onSheet(designOf(plate(73, 46, 6.5, 19, 12.5, 9)), ['front']);
    const { missed } = await bring(design);
    expect(missed).toEqual(['outline.length', 'outline.rise', 'disc.across', 'disc.rise', 'disc.diameter', 'bore.distance']); // prettier-ignore
    const more = edited(design, addSheetView('h', 't', { look: 'top' }), removeSheetView('h', 'front'));
    expect((await brought(more)).says).toContain('t: 46 ±0.2');
  });

  test('an assembly has no recipe to bring sizes of', async () => {
    const design = edited(
      designOf(block(10, 10, 10)),
      addAssembly('a', 'Together'),
      addSheet('h', newSheet('Sheet', { assembly: 'a' }, null)),
    );
    await expect(bring(design)).rejects.toThrow(/assembly|Nothing solid/);
    expect(Ledger.of(design).entries.length).toBeGreaterThan(0);
  });
});
