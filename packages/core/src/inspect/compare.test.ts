import { expect, test } from '@jest/globals';
import { addDimension, addPart, addStep, compareDesigns, deletePart, editSketch, emptyDesign, setDimension, setMaterial, type Step } from '../index.ts'; // prettier-ignore
import { edited } from '../commands/edited.ts';

const sketch = { kind: 'sketch', name: 'Line', plane: { datum: 'floor' }, points: { a: [0, 0], b: [9, 0] }, curves: { l: { kind: 'line', from: 'a', to: 'b' } }, constraints: {} } as unknown as Step; // prettier-ignore

test('two states are told apart by their numbers, steps and parts, and not by where loose points lie', () => {
  const before = edited(
    emptyDesign('A'),
    addDimension('t', { name: 'thk', value: '6 mm' }),
    addDimension('d', { name: 'twice', value: '2 * thk' }),
    addPart('p', 'Plate'),
    addPart('q', 'Pin'),
    addStep('p', 's', sketch),
    addStep('q', 'u', { ...sketch, name: 'Gone' }),
  );
  expect(compareDesigns(before, before)).toEqual({ numbers: [], steps: [], parts: [] });
  const dragged = edited(before, editSketch('p', 's', 'Drag', (s) => void (s.points.b = [12, 3]))); // prettier-ignore
  expect(compareDesigns(before, dragged).steps).toEqual([]);
  const after = edited(
    dragged,
    setDimension('t', '8 mm'),
    deletePart('q'),
    setMaterial('p', 'steel'),
    editSketch('p', 's', 'Level', (s) => void (s.constraints.h = { kind: 'horizontal', of: ['l'] })),
    addStep('p', 'n', { ...sketch, name: 'New' }),
    addDimension('e', { name: 'extra', value: '1 mm' }),
  );
  expect(compareDesigns(before, after)).toEqual({
    numbers: [
      { name: 'thk', before: '6 mm', after: '8 mm', follows: false },
      { name: 'twice', before: '12 mm', after: '16 mm', follows: true },
      { name: 'extra', before: null, after: '1 mm', follows: false },
    ],
    steps: [
      { part: 'Plate', name: 'Line', how: 'changed' },
      { part: 'Pin', name: 'Gone', how: 'removed' },
      { part: 'Plate', name: 'New', how: 'added' },
    ],
    parts: [
      { id: 'p', name: 'Plate', how: 'changed' },
      { id: 'q', name: 'Pin', how: 'removed' },
    ],
  });
});
