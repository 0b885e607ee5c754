import { describe, expect, test } from '@jest/globals';
import { applyEdit } from '../document/change.ts';
import { newOutlines } from '../document/outlines.ts';
import { emptyDesign } from '../document/schema.ts';
import { inverted, withTouches } from '../document/touches.ts';
import { edited, refusalOf } from './edited.ts';
import { addOutlines, addPart, changeOutlines, deleteOutlines, deletePart, keepLaid, putCutPieces, removeCutPieces } from './index.ts'; // prettier-ignore

const design = edited(emptyDesign('D'), addPart('p', 'Plate'), addPart('q', 'Lid'), addOutlines('o', newOutlines('Boards')), putCutPieces('o', [['c', { part: 'p', count: 3 }]])); // prettier-ignore
const lie = { piece: 'c', board: 0, turn: 90, x: 100, y: 20 };

describe('edits of outlines', () => {
  test('pieces are added, changed and taken off; of what is gone none is added', () => {
    const two = edited(design, putCutPieces('o', [['c', { part: 'p', count: 5 }], ['d', { part: 'q' }]])); // prettier-ignore
    expect([two.outlines!.o!.pieces.c!.count, two.outlines!.o!.pieceOrder]).toEqual([5, ['c', 'd']]);
    expect(edited(two, removeCutPieces('o', ['c'])).outlines!.o!.pieceOrder).toEqual(['d']);
    expect(refusalOf(design, removeCutPieces('o', ['x']))).toBe('This piece is no longer among the outlines.');
    expect(refusalOf(design, putCutPieces('o', [['d', { part: 'none' }]]))).toBe('The part that was to be cut is no longer there.'); // prettier-ignore
    expect(edited(design, deletePart('p')).outlines!.o!.pieceOrder).toEqual(['c']);
  });

  test('boards are set, limited in number and set free again', () => {
    const set = edited(design, changeOutlines('o', { board: { width: 700, boards: 2 }, turns: 'none', of: 'a' }));
    expect(set.outlines!.o!.board).toEqual({ width: 700, height: 600, boards: 2 });
    const free = edited(set, changeOutlines('o', { board: { boards: null }, of: null }));
    expect([free.outlines!.o!.board.boards, free.outlines!.o!.of]).toEqual([undefined, undefined]);
    expect(refusalOf(design, changeOutlines('o', { name: '  ' }))).toBe('Outlines need a name.');
    expect(edited(design, addOutlines('o2', newOutlines('Boards'))).outlines!.o2!.name).toBe('Boards 2');
  });

  test('each is taken back whole, and what another did on the same boards stays', () => {
    const other = putCutPieces('o', [['other', { part: 'q' }]]);
    for (const edit of [
      putCutPieces('o', [['d', { part: 'q', count: 2 }]]),
      changeOutlines('o', { board: { height: 500 }, gap: 7 }),
      keepLaid('o', [lie]),
      removeCutPieces('o', ['c']),
      addOutlines('o2', newOutlines('More')),
      deleteOutlines('o'),
    ]) {
      const made = applyEdit(design, edit);
      if (!made.ok) throw new Error(made.message);
      expect(withTouches(made.design, inverted(made.touches), true)).toEqual(design);
      if (!made.design.outlines!.o) continue;
      const both = edited(made.design, other);
      expect(withTouches(both, inverted(made.touches), true)).toEqual(edited(design, other));
    }
  });
});
