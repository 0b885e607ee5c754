import { describe, expect, test } from '@jest/globals';
import {
  addDimension,
  applyEdit,
  editShared,
  emptyDesign,
  faultOfShared,
  followProject,
  giveToProject,
  Ledger,
  renameDimension,
  setDimension,
  tryDimensions,
  withShared,
  withTitleField,
  type Shared,
} from '../index.ts';
import { newSheet } from '../sheet/new-sheet.ts';
import { frameAndTitle } from '../sheet/title-block.ts';
import { edited, refusalOf } from './edited.ts';

const shared = (value: string, name = 'stock'): Shared => ({
  dimensions: { x1: { name, value } },
  dimensionOrder: ['x1'],
});
const following = edited(
  emptyDesign('Tray'),
  followProject(shared('12 mm')),
  addDimension('slot', { name: 'slot', value: 'stock + 0.2 mm' }),
);

describe('a dimension shared by a project', () => {
  test('is used like any other and followed when the project changes it, by whatever name', () => {
    expect(Ledger.of(following).number('slot')).toBeCloseTo(12.2, 12);
    const later = edited(following, followProject(shared('15 mm', 'sheet')));
    expect(Ledger.of(later).number('slot')).toBeCloseTo(15.2, 12);
    expect(Ledger.of(later).shown(Ledger.of(later).index.byReference('slot')!)).toBe('sheet + 0.2 mm');
  });

  test('is not changed from one design, but may be tried there', () => {
    expect(refusalOf(following, setDimension('x1', '20'))).toMatch(/stock is shared by the designs of this project/);
    expect(refusalOf(following, renameDimension('x1', 'sheet'))).toMatch(/is shared/);
    expect(Ledger.of(edited(following, tryDimensions([['x1', '20']]))).number('slot')).toBeCloseTo(20.2, 12);
  });

  test('stays while it is used when the project drops it, and goes when it is not', () => {
    const nothing: Shared = { dimensions: {}, dimensionOrder: [] };
    expect(Ledger.of(edited(following, followProject(nothing))).number('slot')).toBeCloseTo(12.2, 12);
    const unused = edited(emptyDesign('Other'), followProject(shared('12 mm')), followProject(nothing));
    expect(unused.shared).toEqual(nothing);
  });

  test('gives way to a dimension of the design with the same name, and is then named in full', () => {
    const own = edited(following, addDimension('own', { name: 'stock', value: '3 mm' }));
    const ledger = Ledger.of(edited(own, addDimension('two', { name: 'two', value: 'stock + project.stock' })));
    expect(ledger.number('two')).toBe(15);
    expect(ledger.shown(ledger.index.byReference('slot')!)).toBe('project.stock + 0.2 mm');
  });

  test('may come from a design, where all that used it still does', () => {
    const design = edited(emptyDesign('A'), addDimension('thk', { name: 'thk', value: '6 mm' }), addDimension('w', { name: 'w', value: '2 * thk' })); // prettier-ignore
    const given = withShared({ dimensions: {}, dimensionOrder: [] }, design, 'thk');
    const after1 = edited(design, giveToProject('thk'));
    expect([after1.shared, after1.dimensionOrder]).toEqual([given, ['w']]);
    expect(Ledger.of(after1).number('w')).toBe(12);
    const undone = applyEdit(design, giveToProject('thk'));
    expect(undone.ok && undone.touches.length).toBeGreaterThan(0);
  });

  test('stands on its own: what hangs on a design cannot be shared', () => {
    const design = edited(emptyDesign('A'), addDimension('a', { name: 'a', value: '6 mm' }), addDimension('b', { name: 'b', value: '2 * a' })); // prettier-ignore
    expect(() => withShared({ dimensions: {}, dimensionOrder: [] }, design, 'b')).toThrow(
      /b cannot be shared as it is/,
    );
    expect(faultOfShared(shared('6 mm', 'ft'))).toMatch(/is a unit/);
  });

  test('are edited as a design’s own are, and refused with the same words', () => {
    const made = editShared(shared('6 mm'), addDimension('gap', { name: 'gap', value: '$x1 / 2' }));
    expect(made).toEqual({
      shared: {
        dimensions: { x1: { name: 'stock', value: '6 mm' }, gap: { name: 'gap', value: '$x1 / 2' } },
        dimensionOrder: ['x1', 'gap'],
      },
    });
    expect(editShared(shared('6 mm'), setDimension('x1', '6 +'))).toEqual({ message: expect.stringMatching(/\S/) });
    expect(editShared(shared('6 mm'), setDimension('x1', '$x1'))).toEqual({ message: expect.stringMatching(/circle/) });
  });
});

describe('the title block of a project', () => {
  const titled = withTitleField(withTitleField(shared('12 mm'), 'firm', ' Fernhill Glass '), 'drawn', 'R. Alder');

  test('is followed by its designs beside the dimensions, and stays through edits of these', () => {
    expect(titled.titleBlock).toEqual({ firm: 'Fernhill Glass', drawn: 'R. Alder' });
    const design = edited(following, followProject(titled));
    expect(design.shared!.titleBlock).toEqual(titled.titleBlock);
    const later = editShared(titled, setDimension('x1', '14 mm'));
    expect('shared' in later && later.shared.titleBlock).toEqual(titled.titleBlock);
    expect(withShared(titled, edited(emptyDesign('B'), addDimension('g', { name: 'gap', value: '2 mm' })), 'g').titleBlock).toEqual(titled.titleBlock); // prettier-ignore
  });

  test('taken off, it is gone from the designs as well', () => {
    const bare = withTitleField(withTitleField(titled, 'firm', ''), 'drawn', '  ');
    expect(bare).toEqual(shared('12 mm'));
    expect(edited(following, followProject(titled), followProject(bare)).shared).toEqual(shared('12 mm'));
  });

  test('stands on a sheet that does not say it itself', () => {
    const own = { ...newSheet('Sheet', { part: 'p' }, null), fields: { drawn: 'M. Oak' } };
    const told = { project: titled.titleBlock!, title: 'Post', material: '', mass: '', scale: '1 : 1', units: 'mm' };
    const texts = frameAndTitle(own, told).flatMap((i) => (i.is === 'text' ? [i.text] : []));
    expect(texts).toEqual(expect.arrayContaining(['Fernhill Glass', 'M. Oak', 'General tolerances ISO 2768-m']));
    expect(texts).not.toContain('R. Alder');
  });
});
