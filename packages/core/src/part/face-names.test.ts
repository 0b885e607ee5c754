import { describe, expect, test } from '@jest/globals';
import type { SolidFacts, SolidHandle, Vec3 } from '../solid/kernel.ts';
import type { Body } from './body.ts';
import { findFace, nameOfOrigin, numberEquals } from './face-names.ts';
import { frameOfFace, toSpace } from './planes.ts';

/** A body of flat faces, each with a name, a centre and a normal. */
function body(faces: [name: string, center: Vec3, normal: Vec3][]): Body {
  const facts = {
    faces: faces.map(([, center, normal]) => ({ kind: 'plane', area: 1, center, normal, radius: null })),
  } as unknown as SolidFacts;
  return { id: 'b', name: 'Block', solid: 1 as SolidHandle, faceNames: faces.map(([n]) => n), key: 'k', facts };
}

const UP: Vec3 = [0, 0, 1];

describe('durable names', () => {
  test('say step, role and what is behind', () => {
    expect(nameOfOrigin('plate', { role: 'side', curve: 'l3' }, 'r1')).toBe('plate:side:l3');
    expect(nameOfOrigin('plate', { role: 'end' }, 'r1')).toBe('plate:end:r1');
  });

  test('equals are numbered by where they lie, whatever their order', () => {
    const centers: Vec3[] = [[5, 0, 0], [1, 0, 0], [3, 0, 0]]; // prettier-ignore
    expect(numberEquals(['a', 'a', 'b'], (f) => centers[f]!)).toEqual(['a#2', 'a#1', 'b']);
    expect(
      numberEquals(['a', 'b'], () => {
        throw new Error('not needed');
      }),
    ).toEqual(['a', 'b']);
  });

  test('a face is found by its name; by its origin when it is the only one; by the nearest among several', () => {
    const one = body([['s:end:r1', [0, 0, 5], UP], ['s:side:l1', [5, 0, 2], [1, 0, 0]]]); // prettier-ignore
    expect(findFace({ name: 's:side:l1' }, [one])).toMatchObject({ face: 1, how: 'name' });
    expect(findFace({ name: 's:end' }, [one])).toMatchObject({ face: 0, how: 'name' });
    expect(findFace({ name: 's:end:otherregion' }, [one])).toMatchObject({ face: 0, how: 'name' });
    const split = body([['s:end:r1#1', [0, 0, 5], UP], ['s:end:r1#2', [9, 0, 5], UP]]); // prettier-ignore
    expect(findFace({ name: 's:end:r1', near: [8, 0, 5] }, [split])).toMatchObject({ face: 1, how: 'kin' });
  });

  test('a stranger is taken only at the very spot, and said to be', () => {
    const other = body([['t:end:r', [0, 0, 5], UP]]);
    expect(findFace({ name: 's:end:r', near: [0, 0, 5], normal: [0, 0, 1] }, [other])).toMatchObject({ how: 'place' });
    expect(findFace({ name: 's:end:r', near: [0, 1, 5], normal: [0, 0, 1] }, [other])).toBeNull();
    expect(findFace({ name: 's:end:r' }, [other])).toBeNull();
  });
});

describe('the plane of a face', () => {
  const normals: Vec3[] = [[0, 0, 1], [0, 0, -1], [1, 0, 0], [0, -1, 0], [0.6, 0, 0.8], [-0.6, 0.64, 0.48]]; // prettier-ignore
  test.each(normals)('with normal %d, %d, %d is right-handed, level in x, and holds its face', (...normal) => {
    const center: Vec3 = [3, 4, 5];
    const { origin, x, y } = frameOfFace(center, normal);
    const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    expect(Math.hypot(...x)).toBeCloseTo(1, 12);
    expect(dot(x, y)).toBeCloseTo(0, 12);
    expect(dot(x, normal)).toBeCloseTo(0, 12);
    expect(x[2]).toBeCloseTo(0, 12);
    expect(dot(origin, normal)).toBeCloseTo(dot(center, normal), 12);
    const at = toSpace({ origin, x, y, normal }, 2, 3, 4);
    expect(dot([at[0] - origin[0], at[1] - origin[1], at[2] - origin[2]], normal)).toBeCloseTo(4, 12);
  });
});
