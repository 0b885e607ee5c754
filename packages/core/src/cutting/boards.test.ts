/** Boards as they are drawn and written, read back by readers that are not ours. */
import { describe, expect, test } from '@jest/globals';
import DxfParser from 'dxf-parser';
import { unzipSync } from 'fflate';
import type { LaidPlace } from '../document/outlines.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { boardDrawings, CUT_LAYERS, pieceDrawings } from './board-drawing.ts';
import { nameOn } from './names-on-pieces.ts';
import { geometryOf, outlinesOf, plate } from './sample-pieces.ts';
import { boardDxf, boardsFile, boardSvg } from './write-boards.ts';

const scratch: FlatPiece = { kind: 'line', points: [[10, 10], [20, 10]] }; // prettier-ignore
const pieces = { a: plate('Rib', [120, 60], [[[90, 30], 8]], [scratch]), b: plate('Peg', [9, 5]) };
const laid: LaidPlace[] = [
  { piece: 'a', board: 0, turn: 90, x: 70, y: 10 },
  { piece: 'b', board: 1, turn: 0, x: 5, y: 5 },
];
const drawn = (names: 'none' | 'engraving' | 'mark', as: 'engraving' | 'mark' = 'mark') => {
  const own = outlinesOf(pieces, { names, board: { width: 300, height: 200 }, pieces: { a: { part: 'a', sketch: { id: 's', as } }, b: { part: 'b' } } }); // prettier-ignore
  const drawings = pieceDrawings(own, geometryOf(pieces));
  return { drawings, boards: boardDrawings(own, drawings, laid) };
};
const points = (p: FlatPiece): readonly Vec2[] => p.points;

describe('a board as it is drawn', () => {
  test('what lies within is cut before what comes loose, and all stands where it lies', () => {
    const [board] = drawn('none').boards;
    expect(board!.title).toBe('Boards, board 1 of 2');
    const layers = board!.runs.map((r) => r.layer);
    expect(layers).toEqual(['mark', 'holes', 'outline', 'board']);
    expect(layers.map((l) => CUT_LAYERS.indexOf(l))).toEqual([...layers.map((l) => CUT_LAYERS.indexOf(l))].sort());
    const [mark, hole, outline] = board!.runs.map((r) => r.run[0]!.piece);
    // Turned by a quarter about its own corner, which then stands at (70, 10).
    expect(hole).toMatchObject({
      kind: 'circle',
      radius: 8,
      points: [[expect.closeTo(40, 9), expect.closeTo(100, 9)]],
    });
    expect(points(mark!)).toEqual([[expect.closeTo(60, 9), expect.closeTo(20, 9)], [expect.closeTo(60, 9), expect.closeTo(30, 9)]]); // prettier-ignore
    expect(points(outline!)).toEqual([[expect.closeTo(70, 9), expect.closeTo(10, 9)], [expect.closeTo(70, 9), expect.closeTo(130, 9)]]); // prettier-ignore
  });

  test('names stand in the piece, off its bore, no taller than can be read from afar; where there is no room none does', () => {
    const { drawings } = drawn('engraving');
    expect([drawings.get('a')!.nameless, drawings.get('b')!.nameless]).toEqual([false, true]);
    const lines = nameOn(pieces.a)!;
    const all = lines.flatMap(points);
    const heights = all.map(([, y]) => y);
    expect(Math.max(...heights) - Math.min(...heights)).toBeLessThan(11);
    for (const [x, y] of all) {
      expect(x > 0 && x < 120 && y > 0 && y < 60).toBe(true);
      expect(Math.hypot(x - 90, y - 30)).toBeGreaterThan(8);
    }
    expect(
      drawn('mark')
        .drawings.get('a')!
        .runs.filter((r) => r.layer === 'engraving'),
    ).toEqual([]);
  });
});

describe('boards as files', () => {
  test('DXF: circles stay circles, a layer for each kind of work', () => {
    const read = new DxfParser().parseSync(new TextDecoder().decode(boardDxf(drawn('none', 'engraving').boards[0]!)))!;
    const on = (layer: string) => read.entities.filter((e) => e.layer === layer);
    expect(CUT_LAYERS.map((l) => [l, on(l).length])).toEqual([['engraving', 1], ['mark', 0], ['holes', 1], ['outline', 4], ['board', 4]]); // prettier-ignore
    expect(on('holes')[0]).toMatchObject({ type: 'CIRCLE', radius: 8, center: { x: 40, y: 100 } });
  });

  test('SVG: millimetres, y running down, layers as groups', () => {
    const svg = new TextDecoder().decode(boardSvg(drawn('none').boards[1]!));
    expect(svg).toContain('width="300mm" height="200mm" viewBox="0 0 300 200"');
    expect(svg).toContain('<path d="M 5 195 L 14 195 L 14 190 L 5 190 L 5 195 Z"/>');
    expect([...svg.matchAll(/<g id="(\w+)"/g)].map((m) => m[1])).toEqual(['outline', 'board']);
  });

  test('one board by itself, several packed together', async () => {
    const { boards } = drawn('none');
    const make = () => {
      throw new Error('no PDF is asked for');
    };
    const one = await boardsFile(boards.slice(0, 1), 'Boards', 'dxf', make, new Date(0));
    expect([one.ending, new TextDecoder().decode(one.bytes).startsWith('0\nSECTION')]).toEqual(['dxf', true]);
    const two = await boardsFile(boards, 'Boards', 'svg', make, new Date(0));
    expect([two.ending, Object.keys(unzipSync(two.bytes))]).toEqual(['zip', ['board-1.svg', 'board-2.svg']]);
  });
});
