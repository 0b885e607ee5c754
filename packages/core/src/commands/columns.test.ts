import { expect, test } from '@jest/globals';
import { emptyDesign } from '../document/schema.ts';
import { edited, refusalOf } from './edited.ts';
import { partsCsv, type PartsRow } from '../assembly/parts-list.ts';
import { setCell, setColumn } from './columns.ts';
import { addPart } from './parts.ts';

test('columns of one’s own stand in the list and its file, and go with what stands in them', () => {
  const design = edited(
    emptyDesign('Bench'),
    addPart('leg', 'Leg'),
    addPart('top', 'Top'),
    setColumn('c1', 'Supplier'),
    setColumn('c2', 'Finish'),
    setCell('leg', 'c1', '  Yard by the river '),
    setCell('top', 'c2', '=oiled'),
  );
  const row = (part: string): PartsRow => ({ part, name: design.parts[part]!.name, count: 2, material: null, each: null, size: null }); // prettier-ignore
  expect(partsCsv([row('leg'), row('top')], design).split('\r\n')).toEqual([
    'item,name,count,material,mass_each_kg,mass_kg,x_mm,y_mm,z_mm,Supplier,Finish',
    '1,Leg,2,,,,,,,Yard by the river,',
    `2,Top,2,,,,,,,,"'=oiled"`,
  ]);
  const fewer = edited(design, setColumn('c1', null), setColumn('c2', 'Surface'));
  expect(fewer.columns).toEqual([{ id: 'c2', name: 'Surface' }]);
  expect(fewer.parts.leg!.cells).toEqual({});
  expect(refusalOf(design, setColumn('c3', 'Count'))).toMatch(/There is a column called Count already/);
  expect(refusalOf(design, setColumn('c3', 'Finish'))).toMatch(/already/);
  expect(refusalOf(design, setColumn('c3', ' '))).toMatch(/needs a name/);
  expect(refusalOf(design, setCell('leg', 'gone', 'x'))).toMatch(/not there any more/);
});
