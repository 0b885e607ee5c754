import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { SolidMesh } from '../solid/kernel.ts';
import { pack, unpack } from './pack.ts';
import { writeStl } from './stl.ts';

describe('packed data', () => {
  const array = fc.oneof(
    fc.float32Array({ noNaN: true, maxLength: 20 }),
    fc.uint32Array({ maxLength: 20 }),
    fc.int32Array({ maxLength: 20 }),
    fc.float64Array({ noNaN: true, maxLength: 20 }),
  );

  test('comes back as it was, arrays and all, wherever it lies in memory', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), array), { maxLength: 6 }), fc.nat(7), (entries, offset) => {
        const value = { name: 'Plate', list: entries.map(([text, data]) => ({ text, data })), none: null };
        const bytes = pack(value);
        const moved = new Uint8Array(bytes.length + offset);
        moved.set(bytes, offset);
        expect(unpack(moved.subarray(offset))).toEqual(value);
      }),
    );
  });

  test('broken bytes throw and do no more', () => {
    const bytes = pack({ a: new Float32Array(4) });
    expect(() => unpack(bytes.subarray(0, 12))).toThrow();
    expect(() => unpack(new Uint8Array(3))).toThrow();
    expect(() => unpack(Uint8Array.from([255, 255, 255, 255, 0, 0, 0, 0, 1]))).toThrow();
  });
});

describe('STL', () => {
  const triangle: SolidMesh = {
    positions: Float32Array.from([0, 0, 0, 4, 0, 0, 0, 3, 0]),
    normals: new Float32Array(9),
    triangles: Uint32Array.from([0, 1, 2]),
    faceRanges: Uint32Array.from([0, 3]),
    edgePoints: new Float32Array(0),
    edgeRanges: new Uint32Array(0),
  };

  test('holds every triangle once with its outward normal, and is not taken for text', () => {
    const bytes = writeStl([triangle, triangle], 'solid'.repeat(30));
    const view = new DataView(bytes.buffer);
    expect(view.getUint32(80, true)).toBe(2);
    expect(bytes).toHaveLength(84 + 2 * 50);
    expect(new TextDecoder().decode(bytes.subarray(0, 5))).not.toBe('solid');
    expect([0, 4, 8].map((k) => view.getFloat32(84 + k, true))).toEqual([0, 0, 1]);
    expect(view.getFloat32(84 + 24, true)).toBe(4);
  });
});
