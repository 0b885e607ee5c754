/** What is cut for an assembly: blanks alike counted together, whichever way they were drawn. */
import { expect, test } from '@jest/globals';
import { cutList, cutsCsv, type PartsRow } from './parts-list.ts';

const row = (name: string, count: number, size: [number, number, number] | null, material: PartsRow['material'] = 'acetal'): PartsRow => ({ part: name, name, count, material, each: null, size }); // prettier-ignore

test('blanks of one size are one row, drawn flat or upright; others apart, by stuff, thickness and length', () => {
  const cuts = cutList([
    row('Side', 2, [300, 12, 180]),
    row('Back', 1, [12, 180, 300.0002]),
    row('Floor', 1, [300, 200, 12]),
    row('Shelf', 3, [250, 200, 9]),
    row('Plate', 1, [300, 180, 12], 'steel'),
    row('Coming', 4, null),
  ]);
  expect(cuts.map((c) => [c.material, c.thickness, c.width, c.length, c.count, c.names.join(' ')])).toEqual([
    ['acetal', 9, 200, 250, 3, 'Shelf'],
    ['acetal', 12, 200, 300, 1, 'Floor'],
    ['acetal', 12, 180, 300, 3, 'Side Back'],
    ['steel', 12, 180, 300, 1, 'Plate'],
  ]);
});

test('as a file, a name that begins as a formula stays a name', () => {
  const csv = cutsCsv(cutList([row('=A1+1', 1, [4, 30, 20], null)]));
  expect(csv.split('\r\n')).toEqual(['material,thickness_mm,width_mm,length_mm,count,parts', `,4,20,30,1,"'=A1+1"`]);
});
