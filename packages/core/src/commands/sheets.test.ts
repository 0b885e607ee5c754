import { describe, expect, test } from '@jest/globals';
import type { SheetSize } from '../document/sheet.ts';
import { applyEdit } from '../document/change.ts';
import { emptyDesign } from '../document/schema.ts';
import { inverted, withTouches } from '../document/touches.ts';
import { newSheet } from '../sheet/new-sheet.ts';
import { edited, refusalOf } from './edited.ts';
import { addPart, addSheet, addSheetView, changeSheet, changeSheetView, deletePart, deleteSheet, issueSheet, putSize, removeSheetView, removeSize } from './index.ts'; // prettier-ignore

const box = { min: [0, 0, 0], max: [60, 40, 10] } as const;
const sheet = newSheet('Sheet', { part: 'p' }, box);
const [first] = sheet.viewOrder as [string, ...string[]];
const design = edited(emptyDesign('D'), addPart('p', 'Plate'), addSheet('h', sheet));
const size: SheetSize = {
  kind: 'note',
  view: first,
  of: [{ vertex: { faces: ['e:side:l'], near: [0, 0, 0] } }],
  text: 'Oiled',
};

describe('edits of sheets', () => {
  test('a sheet is proposed from the side that shows most; a second of its name gets a number', () => {
    expect(sheet.front).toBe('top');
    expect(newSheet('Sheet', { part: 'p' }, { min: [0, 0, 0], max: [60, 10, 40] }).front).toBe('front');
    const two = edited(design, addSheet('h2', sheet));
    expect(two.sheetOrder!.map((id) => two.sheets![id]!.name)).toEqual(['Sheet', 'Sheet 2']);
    expect(refusalOf(design, addSheet('h3', { ...sheet, of: { part: 'none' } }))).toBe('What was to be drawn is no longer there.'); // prettier-ignore
  });

  test('a view stands once; taken off, its sizes go along', () => {
    expect(refusalOf(design, addSheetView('h', 'w', { look: 'front' }))).toBe('This view stands on the sheet already.');
    const sized = edited(design, putSize('h', [['z', size]]));
    expect(edited(sized, removeSheetView('h', first)).sheets!.h!.sizes).toEqual({});
    expect(refusalOf(design, putSize('h', [['z', { ...size, view: 'gone' }]]))).toBe('This view no longer stands on the sheet.'); // prettier-ignore
    expect(edited(sized, removeSize('h', 'z')).sheets!.h!.sizes).toEqual({});
  });

  test('views taken from another stand beside it, and go with it, and with what is taken from them', () => {
    const face = { name: 'e:side:l1' };
    const onto = addSheetView('h', 'o', { look: 'front', onto: { of: first, face } });
    const detail = (of: string) => addSheetView('h', `d ${of}`, { look: 'front', detail: { of, at: size.of[0]!, radius: 5 } }); // prettier-ignore
    expect(refusalOf(design, detail('gone'))).toBe('The view this one is told from is not there any more.');
    const taken = edited(design, onto, detail('o'), detail(first));
    expect(refusalOf(taken, addSheetView('h', 'o2', { look: 'front', onto: { of: 'o', face } }))).toBe('The view this one is told from is not there any more.'); // prettier-ignore
    const { views } = edited(taken, removeSheetView('h', first)).sheets!.h!;
    expect(Object.keys(views).sort()).toEqual(Object.keys(sheet.views).filter((id) => id !== first).sort()); // prettier-ignore
    expect(Object.keys(edited(taken, removeSheetView('h', 'o')).sheets!.h!.views)).toContain(`d ${first}`);
  });

  test('paper, scale and sections are set and put back', () => {
    const set = edited(design, changeSheet('h', { upright: true, scale: [1, 2] }), changeSheetView('h', first, { cut: {}, tangent: true })); // prettier-ignore
    expect([set.sheets!.h!.upright, set.sheets!.h!.scale, set.sheets!.h!.views[first]!.cut]).toEqual([
      true,
      [1, 2],
      {},
    ]);
    const back = edited(set, changeSheet('h', { upright: false, scale: null }), changeSheetView('h', first, { cut: null, tangent: false })); // prettier-ignore
    expect(back.sheets!.h).toEqual(design.sheets!.h);
  });

  test('what is drawn may be deleted: the sheet stays and can be deleted itself', () => {
    const gone = edited(design, deletePart('p'));
    expect(gone.sheets!.h).toBeDefined();
    expect(edited(gone, deleteSheet('h')).sheetOrder).toEqual([]);
  });

  test('an issue is kept under its letter once', () => {
    const issue = { letter: 'A', revision: 1, date: '2026-11-27', sizes: { z: '12' } };
    const issued = edited(design, issueSheet('h', issue));
    expect(issued.sheets!.h!.issues).toEqual([issue]);
    expect(refusalOf(issued, issueSheet('h', issue))).toBe('Issue A is there already; issue it anew.');
  });

  test('each is taken back whole, and what another did on the same sheet stays', () => {
    const issue = { letter: 'A', revision: 1, date: '2026-11-27', sizes: {} };
    const other = putSize('h', [['other', size]]);
    for (const edit of [
      putSize('h', [['z', size]]),
      changeSheetView('h', first, { shift: [3, 4], cut: {} }),
      changeSheet('h', { paper: 'A1', upright: true }),
      issueSheet('h', issue),
      removeSheetView('h', sheet.viewOrder[1]!),
      addSheet('h2', sheet),
      deleteSheet('h'),
    ]) {
      const made = applyEdit(design, edit);
      if (!made.ok) throw new Error(made.message);
      expect(withTouches(made.design, inverted(made.touches), true)).toEqual(design);
      if (!made.design.sheets!.h) continue;
      const both = edited(made.design, other);
      expect(withTouches(both, inverted(made.touches), true)).toEqual(edited(design, other));
    }
  });
});
