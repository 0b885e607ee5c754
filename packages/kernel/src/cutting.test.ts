/** Outlines to cut: the right face, at the right size, and what no outline can say is told. */
import { addOutlines, addPart, addStep, boardDrawings, boardSvg, cutCounts, cutGeometry, cutTotals, faultsOfLaid, Known, lengthOf, nestAsk, Nesting, newOutlines, PartEvaluator, pieceDrawings, putCutPieces, type CutPiece, type Design, type LaidPlace, type Outlines } from '@helb/core'; // prettier-ignore
import { describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import { designOf, edited, extruded, outline, rectangle, round } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

/** A plate 80 by 50 by 4 with a bore of 12, and what else is said. */
const plate = designOf({
  s: outline(rectangle(0, 0, 80, 50)),
  e: extruded('s', '4 mm'),
  h: round(6, {}, [30, 25]),
  c: extruded('h', '4 mm', { result: 'cut', bodies: 'all' } as never),
});

async function cut(design: Design, pieces: Readonly<Record<string, CutPiece>>, more: Partial<Outlines> = {}) {
  const whole = edited(design, addOutlines('o', { ...newOutlines('Boards'), ...more }), putCutPieces('o', Object.entries(pieces))); // prettier-ignore
  const own = whole.outlines!.o!;
  return {
    own,
    geometry: await cutGeometry(whole, 'o', evaluator, kernel, new Known()),
    counts: cutCounts(whole, own),
  };
}

describe('what is cut of a part', () => {
  test('its largest flat face, its bore in it, and its thickness', async () => {
    const { geometry } = await cut(plate, { c: { part: 'p' } });
    const { drawing, thickness, area, says } = geometry.pieces.get('c')!;
    expect(drawing.size).toEqual([80, 50]);
    expect(thickness).toBeCloseTo(4, 9);
    expect(area).toBeCloseTo(80 * 50 - Math.PI * 36, 6);
    expect(says).toEqual([]);
    expect(lengthOf(drawing.outline)).toBeCloseTo(260, 9);
    expect(lengthOf(drawing.holes[0]!)).toBeCloseTo(2 * Math.PI * 6, 1);
  });

  test('is larger by half the cut outside, smaller inside', async () => {
    const { geometry } = await cut(plate, { c: { part: 'p' } }, { cut: 0.4 });
    const { drawing } = geometry.pieces.get('c')!;
    expect(drawing.size[0]).toBeCloseTo(80.4, 9);
    expect(drawing.holes[0]![0]!.piece).toMatchObject({ kind: 'circle', radius: expect.closeTo(5.8, 9) });
  });

  test('what no outline can say is told: a step, several bodies, nothing flat, a part that is gone', async () => {
    const stepped = edited(plate, addStep('p', 't', outline(rectangle(60, 10, 10, 10))), addStep('p', 'u', extruded('t', '9 mm', { result: 'join', bodies: 'all' } as never))); // prettier-ignore
    expect((await cut(stepped, { c: { part: 'p' } })).geometry.pieces.get('c')!.says.join()).toMatch(/not cut straight through/); // prettier-ignore
    const two = edited(plate, addStep('p', 't', outline(rectangle(100, 0, 10, 10))), addStep('p', 'u', extruded('t', '4 mm'))); // prettier-ignore
    expect((await cut(two, { c: { part: 'p' } })).geometry.pieces.get('c')!.says).toEqual(['has 2 bodies; only the one of this face is cut']); // prettier-ignore
    const gone = await cut(edited(plate, addPart('q', 'Empty')), { c: { part: 'q' } });
    expect(gone.geometry.faults.get('c')).toBe('Empty has no body yet.');
  });
});

describe('boards', () => {
  const lie = (x: number, y: number, more: Partial<LaidPlace> = {}): LaidPlace => ({ piece: 'c', board: 0, turn: 0, x, y, ...more }); // prettier-ignore

  test('a kept layout is looked over: overlaps, gaps too small, off the board, too few and too many', async () => {
    const { own, geometry, counts } = await cut(plate, { c: { part: 'p', count: 2 } }, { gap: 3, margin: 5 });
    const found = (...laid: LaidPlace[]) => {
      const { bad, missing } = faultsOfLaid(own, geometry, counts, laid);
      return [[...bad], missing.get('c') ?? 0];
    };
    expect(found(lie(5, 5), lie(88, 5))).toEqual([[], 0]);
    expect(found(lie(5, 5), lie(87, 5))).toEqual([[0, 1], 0]);
    expect(found(lie(5, 5), lie(87, 5, { board: 1 }))).toEqual([[], 0]);
    expect(found(lie(4, 5))).toEqual([[0], 1]);
    expect(found(lie(55, 5, { turn: 90 }), lie(58, 5), lie(5, 300))).toEqual([[], -1]);
    // In its bore nothing of it lies: a piece there would.
    expect(found(lie(5, 5), lie(20, 20))).toEqual([[0, 1], 0]);
  });

  test('what is drawn stands where it lies, at 1:1, holes before outlines', async () => {
    const { own, geometry, counts } = await cut(plate, { c: { part: 'p' } }, { names: 'engraving' });
    const ask = nestAsk(own, geometry, counts);
    if (ask === null || typeof ask === 'string') throw new Error('nothing to lay');
    const nesting = new Nesting(ask);
    const work = nesting.once();
    while (!work.next().done);
    const { laid } = nesting.found!;
    expect(cutTotals(own, geometry, laid).filled).toEqual([expect.closeTo((4000 - 36 * Math.PI) / 720_000, 9)]);
    const [board] = boardDrawings(own, pieceDrawings(own, geometry), laid);
    const order = [...new Set(board!.runs.map((r) => r.layer))];
    expect(order).toEqual(['engraving', 'holes', 'outline', 'board']);
    const svg = new TextDecoder().decode(boardSvg(board!));
    expect(svg).toContain('width="1200mm" height="600mm" viewBox="0 0 1200 600"');
    const bore = board!.runs.find((r) => r.layer === 'holes')!.run[0]!.piece;
    const corners = board!.runs.find((r) => r.layer === 'outline')!.run.flatMap((r) => r.piece.points);
    const corner = [0, 1].map((i) => Math.min(...corners.map((p) => p[i]!)));
    expect(corner).toEqual([expect.closeTo(5, 1), expect.closeTo(5, 1)]);
    const off = bore.points[0]!.map((v, i) => Math.round((v - corner[i]!) * 1e6) / 1e6);
    // However it is turned.
    expect([[30, 25], [50, 25], [25, 30], [25, 50]]).toContainEqual(off); // prettier-ignore
    expect(bore).toMatchObject({ kind: 'circle', radius: expect.closeTo(6, 9) });
  });
});
