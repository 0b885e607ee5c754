import { describe, expect, test } from '@jest/globals';
import type { FaceRef } from '../references/references.ts';
import { borrowedName, isBorrowed } from './borrowed.ts';
import { faceKeys } from './face-keys.ts';
import { BODY_ROLE, findBody, refOfBody } from './find-body.ts';
import { findEdge, refOfEdge } from './find-edge.ts';
import { findFace, refOfFace } from './find-face.ts';
import { findVertex, refOfVertex } from './find-vertex.ts';
import { nameOf, readName } from './name.ts';
import type { NamedBody } from './neighbours.ts';
import { block, grooved, prism, type Side } from './sample-bodies.ts';

/** Which of a body's faces lies there. */
function faceAt(body: NamedBody, at: (center: readonly number[]) => boolean): number {
  const found = body.facts.faces.findIndex((f) => at(f.center));
  expect(found).toBeGreaterThanOrEqual(0);
  return found;
}
const topAt = (from: number, to: number) => ([x, , z]: readonly number[]) => z === 20 && x! > from && x! < to; // prettier-ignore
const edgeAt = (body: NamedBody, x: number, y: number, z: number) =>
  body.facts.edges.findIndex(({ middle: m }) => Math.hypot(m[0] - x, m[1] - y, m[2] - z) < 1e-9);
const renamed = (sides: readonly Side[], from: string, to: string) => sides.map((s) => (s.name === from ? { ...s, name: to } : s)); // prettier-ignore
const shifted = (sides: readonly Side[], by: number) => sides.map((s) => ({ ...s, from: [s.from[0] + by, s.from[1]] as const })); // prettier-ignore

describe('a face', () => {
  const plain = prism(block());
  const right = refOfFace(plain, 1);

  test('is stored by its name, its neighbours, its centre and where it looks', () => {
    expect(right).toEqual({
      name: 'e:side:right',
      beside: ['e:end', 'e:side:floor', 'e:side:top', 'e:start'],
      near: [60, 5, 10],
      normal: [1, 0, 0],
    });
  });

  test('with a name of its own is the one, wherever it went', () => {
    expect(findFace(right, [prism(shifted(block(), 500))])).toMatchObject({ how: 'one', found: { face: 1 } });
    const also = renamed(block(), 'e:side:right', 'x:side:new').map((s, i) => (i === 1 ? { ...s, also: ['e:side:right'] } : s)); // prettier-ignore
    expect(findFace(right, [plain, prism(also)].slice(1))).toMatchObject({ how: 'one', found: { face: 1 } });
  });

  test('that was flat and is not any more is only probable', () => {
    const bent = prism(block());
    const faces = bent.facts.faces.map((f, i) => (i === 1 ? { ...f, normal: null } : f));
    const body = { ...bent, facts: { ...bent.facts, faces } };
    expect(findFace(right, [body])).toMatchObject({ how: 'probably', found: { face: 1 }, why: 'it was flat and is not any more' }); // prettier-ignore
    const { normal, ...round } = right;
    expect(normal).toBeDefined();
    expect(findFace(round, [body]).how).toBe('one');
  });

  describe('that is a piece', () => {
    const two = prism(grooved([20, 30]));
    const [left, rightOne] = [faceAt(two, topAt(0, 20)), faceAt(two, topAt(30, 60))];
    const refs = [refOfFace(two, left), refOfFace(two, rightOne)] as const;

    test('says so, and is told from the other by its neighbours, however it moves', () => {
      expect(refs.map((r) => r.piece)).toEqual([true, true]);
      const moved = prism(grooved([45, 50]));
      expect(findFace(refs[0], [moved])).toMatchObject({ how: 'one', found: { face: faceAt(moved, topAt(0, 45)) } });
      expect(findFace(refs[1], [moved])).toMatchObject({ how: 'one', found: { face: faceAt(moved, topAt(50, 60)) } });
    });

    test('in another body counts as well', () => {
      expect(refOfFace(plain, 2).piece).toBeUndefined();
      expect(refOfFace(plain, 2, [plain, prism(shifted(block(), 100))]).piece).toBe(true);
    });

    test('left alone is the one only with all its neighbours', () => {
      const alone = prism(block());
      const finding = findFace(refs[1], [alone]);
      expect(finding).toMatchObject({ how: 'probably', found: { face: 2 } });
      expect(finding.how === 'probably' && finding.why).toMatch(/only this one is left/);
      const { beside, ...bare } = refs[1];
      expect(beside!.length).toBe(4);
      expect(findFace(bare, [alone]).how).toBe('one');
      // The left one was all cut away; of the right one nothing changed.
      const still = prism(renamed(grooved([20, 30]), 'nothing', 'x').map((s) => (s.from[0] === 20 && s.name === 'e:side:top' ? { ...s, name: 'q:side:x' } : s))); // prettier-ignore
      expect(findFace(refs[1], [still])).toMatchObject({ how: 'one', found: { face: faceAt(still, topAt(30, 60)) } });
    });

    test('cut once more is the likest, then the nearest, and it is said', () => {
      const three = prism(grooved([20, 30], [40, 50]));
      const finding = findFace(refs[1], [three]);
      // Both halves share three of its four neighbours; its centre was at 45, theirs are at 35 and 55: none is nearer.
      expect(finding).toMatchObject({ how: 'lost', why: expect.stringMatching(/split, and nothing tells which/) });
      const nearer: FaceRef = { ...refs[1], near: [36, 5, 20] };
      expect(findFace(nearer, [three])).toMatchObject({ how: 'probably', found: { face: faceAt(three, topAt(30, 40)) }, why: 'it was split into 3 pieces' }); // prettier-ignore
      const likest: FaceRef = { ...refs[1], beside: ['g1:side:right', 'e:side:right'], near: [10, 5, 20] };
      expect(findFace(likest, [three])).toMatchObject({ how: 'one', found: { face: faceAt(three, topAt(50, 60)) } });
      const most: FaceRef = { ...refs[1], beside: ['g1:side:right', 'e:side:right', 'gone:side:x'], near: [10, 5, 20] };
      expect(findFace(most, [three])).toMatchObject({ how: 'probably', found: { face: faceAt(three, topAt(50, 60)) } });
      const { near, ...placeless } = most;
      expect(near).toBeDefined();
      expect(findFace(placeless, [three])).toMatchObject({ how: 'probably', found: { face: faceAt(three, topAt(50, 60)) } }); // prettier-ignore
    });

    test('without neighbours stored is the nearest, if one is', () => {
      const bare: FaceRef = { name: 'e:side:top', near: [50, 5, 20] };
      expect(findFace(bare, [two])).toMatchObject({ how: 'probably', found: { face: rightOne }, why: 'it is the nearest of 2 pieces' }); // prettier-ignore
      expect(findFace({ name: 'e:side:top' }, [two]).how).toBe('lost');
      expect(findFace({ ...bare, near: [27.5, 5, 20] }, [two])).toMatchObject({ how: 'lost' });
      expect(findFace({ ...bare, near: [27.502, 5, 20] }, [two])).toMatchObject({ how: 'probably' });
    });

    test('with the same neighbours twice is the nearest of those', () => {
      const twins = [prism(block()), prism(shifted(block(), 100))];
      const ref = refOfFace(twins[1]!, 2, twins);
      expect(findFace(ref, twins)).toMatchObject({ how: 'probably', found: { body: twins[1], face: 2 }, why: 'it was split into 2 pieces' }); // prettier-ignore
      expect(findFace({ ...ref, near: [80, 5, 20] }, twins)).toMatchObject({ how: 'lost' });
    });
  });

  test('by a short name is the one where only one answers', () => {
    const caps = prism(renamed(block(), 'e:side:right', 'k:end:(+a +b)'));
    expect(findFace({ name: 'k:end' }, [caps])).toMatchObject({ how: 'one', found: { face: 1 } });
    expect(findFace({ name: 'k:start' }, [caps]).how).toBe('lost');
  });

  test('made from nearly the same is probable, from less than half lost', () => {
    const body = prism(renamed(block(), 'e:side:right', 'k:end:(+a +b +c)'));
    const ref = { name: 'k:end:(+a +b +d)' };
    expect(findFace(ref, [body])).toMatchObject({ how: 'probably', found: { face: 1 }, why: 'what it was made from has changed' }); // prettier-ignore
    expect(findFace({ name: 'k:end:(+a +d +f)' }, [body])).toMatchObject({ how: 'lost', why: 'nothing that made it is there any more' }); // prettier-ignore
    // Two are as like; the third less.
    const names = ['e:side:floor', 'k:end:(+a +b +c)', 'k:end:(+a +b +d)', 'k:end:(+a +b +c +x)'];
    const several = prism(block().map((s, i) => ({ ...s, name: names[i]! })));
    const finding = findFace({ name: 'k:end:(+a +b +c +d)', near: [59, 5, 10] }, [several]);
    expect(finding).toMatchObject({ how: 'probably', found: { face: 1 }, why: 'it is the nearest of 2 that came from the same' }); // prettier-ignore
    expect(findFace({ name: 'k:end:(+a +b +c +d)' }, [several])).toMatchObject({ how: 'lost', why: expect.stringMatching(/^2 faces came from the same/) }); // prettier-ignore
  });

  test('whose maker is gone is probable only where another lies just there and looks there', () => {
    const other = prism(renamed(block(), 'e:side:right', 'x:side:new'));
    expect(findFace(right, [other])).toMatchObject({ how: 'probably', found: { face: 1 }, why: expect.stringMatching(/another step made it/) }); // prettier-ignore
    expect(findFace({ ...right, near: [60.01, 5, 10] }, [other]).how).toBe('lost');
    expect(findFace({ ...right, normal: [-1, 0, 0] }, [other]).how).toBe('lost');
    const { normal, near, ...bare } = right;
    expect(findFace({ ...bare, near: near! }, [other]).how).toBe('lost');
    expect(findFace({ ...bare, normal: normal! }, [other]).how).toBe('lost');
    const there = [other, prism(renamed(block(), 'e:side:right', 'y:side:new'))];
    expect(findFace(right, there).how).toBe('lost');
  });

  test('that is lost comes with three that lie near, those that look the same way first', () => {
    const finding = findFace({ ...right, name: 'gone:side:x', near: [58, 5, 19] }, [plain]);
    expect(finding).toMatchObject({ how: 'lost' });
    if (finding.how !== 'lost') return;
    expect(finding.candidates).toHaveLength(3);
    expect(finding.candidates[0]).toEqual({ body: plain, face: 1 });
    const { normal, ...round } = right;
    expect(normal).toBeDefined();
    const near = findFace({ ...round, name: 'gone:side:x', near: [30, 5, 19] }, [plain]);
    expect(near.how === 'lost' && near.candidates.map((c) => c.face)).toEqual([2, 4, 5]);
    // Flat ones that look the same way before nearer ones; for a round one, round ones.
    const left = findFace({ name: 'gone:side:x', near: [0, 5, 10], normal: [1, 0, 0] }, [plain]);
    expect(left.how === 'lost' && left.candidates[0]!.face).toBe(1);
    const faces = plain.facts.faces.map((f, i) => (i === 1 ? { ...f, normal: null } : f));
    const bent = { ...plain, facts: { ...plain.facts, faces } };
    const likeIt = findFace({ name: 'gone:side:x', near: [0, 5, 10] }, [bent]);
    expect(likeIt.how === 'lost' && likeIt.candidates[0]!.face).toBe(1);
    const flat = findFace({ name: 'gone:side:x', near: [60, 5, 10], normal: [0, 0, 1] }, [bent]);
    expect(flat.how === 'lost' && flat.candidates[0]!.face).toBe(2);
    expect(flat.how === 'lost' && flat.candidates.some((c) => c.face === 1)).toBe(false);
    expect(findFace({ ...right, name: 'gone:side:x' }, [bent]).how).toBe('lost');
    expect(findFace({ name: 'no name:(' }, [plain])).toMatchObject({ how: 'lost', why: 'its name cannot be read' });
    expect(findFace(right, [])).toMatchObject({ how: 'lost', candidates: [] });
  });

  test('has a key that no other has', () => {
    const two = prism(grooved([20, 30]));
    const [keys] = faceKeys([two]);
    expect(new Set(keys).size).toBe(two.faceNames.length);
    expect(keys).toContain('e:side:left');
    expect(keys!.filter((k) => k.startsWith('e:side:top/'))).toHaveLength(2);
    expect(faceKeys([prism(grooved([40, 45]))])).toEqual([keys]);
    const both = faceKeys([plain, prism(renamed(block(), 'e:side:left', 'e:side:other'))]);
    expect(both[0]![3]).toBe('e:side:left');
    expect(both[1]![2]).toMatch(/^e:side:top\//);
    expect(both[0]![2]).not.toBe(both[1]![2]);
  });
});

describe('an edge', () => {
  const plain = prism(block());
  const foot = edgeAt(plain, 60, 5, 0);
  const ref = refOfEdge(plain, foot);

  test('is stored by the faces it lies between, those at its ends, and its middle', () => {
    expect(ref).toEqual({ faces: ['e:side:floor', 'e:side:right'], ends: ['e:end', 'e:start'], near: [60, 5, 0] });
  });

  test('between its two faces is the one, in either order, wherever it went', () => {
    const moved = prism(shifted(block(), 500));
    for (const faces of [ref.faces, [...ref.faces].reverse()])
      expect(findEdge({ ...ref, faces }, [moved])).toMatchObject({ how: 'one', found: { edge: foot } });
    expect(findEdge({ ...ref, faces: [ref.faces[0]!, ref.faces[0]!] }, [moved]).how).toBe('lost');
    expect(findEdge({ ...ref, faces: [ref.faces[1]!, ref.faces[1]!] }, [moved]).how).toBe('lost');
    expect(findEdge({ ...ref, faces: ['e:side:floor', 'e:side:top'] }, [moved]).how).toBe('lost');
    expect(findEdge({ ...ref, faces: [ref.faces[0]!] }, [moved]).how).toBe('lost');
  });

  describe('that is one of several between the same faces', () => {
    const two = prism(grooved([20, 30]));
    const [left, right] = [refOfEdge(two, edgeAt(two, 10, 0, 20)), refOfEdge(two, edgeAt(two, 45, 0, 20))];

    test('says so, and is told by the faces at its ends', () => {
      expect([left.piece, right.piece]).toEqual([true, true]);
      expect(right.ends).toEqual(['e:side:right', 'g0:side:right']);
      const moved = prism(grooved([45, 50]));
      expect(findEdge(left, [moved])).toMatchObject({ how: 'one', found: { edge: edgeAt(moved, 22.5, 0, 20) } });
      expect(findEdge(right, [moved])).toMatchObject({ how: 'one', found: { edge: edgeAt(moved, 55, 0, 20) } });
    });

    test('in another body counts as well', () => {
      expect(refOfEdge(plain, foot, [plain, prism(shifted(block(), 100))]).piece).toBe(true);
    });

    test('left alone is only probable, unless nothing at its ends changed', () => {
      const finding = findEdge(right, [plain]);
      expect(finding).toMatchObject({ how: 'probably', found: { edge: edgeAt(plain, 30, 0, 20) } });
      expect(finding.how === 'probably' && finding.why).toMatch(/only this one is left/);
      const { piece, ...whole } = right;
      expect(piece).toBe(true);
      expect(findEdge(whole, [plain]).how).toBe('one');
      const gone = prism(grooved([20, 30]).map((s) => (s.from[0] === 20 && s.name === 'e:side:top' ? { ...s, name: 'q:side:x' } : s))); // prettier-ignore
      expect(findEdge(right, [gone])).toMatchObject({ how: 'one', found: { edge: edgeAt(gone, 45, 0, 20) } });
    });

    test('with other ends is the nearest, if one is, and it is said', () => {
      const three = prism(grooved([20, 30], [40, 50]));
      expect(findEdge(right, [three])).toMatchObject({
        how: 'lost',
        why: expect.stringMatching(/^3 edges lie between/),
      });
      expect(findEdge({ ...right, near: [44, 0, 20] }, [three])).toMatchObject({ how: 'probably', found: { edge: edgeAt(three, 35, 0, 20) }, why: 'it is the nearest of 3 edges between the same faces' }); // prettier-ignore
      const { ends, ...bare } = right;
      expect(ends).toBeDefined();
      expect(findEdge(bare, [two])).toMatchObject({ how: 'probably', found: { edge: edgeAt(two, 45, 0, 20) } });
      const twins = [prism(block()), prism(shifted(block(), 100))];
      expect(findEdge(refOfEdge(twins[1]!, foot, twins), twins)).toMatchObject({ how: 'probably', found: { body: twins[1] } }); // prettier-ignore
    });
  });

  test('one of whose faces changed is the nearest of those between such, and it is said', () => {
    const ref = { faces: ['k:end:(+a +b +d)', 'e:side:floor'], near: [60, 5, 0] as [number, number, number] };
    const kin = prism(renamed(block(), 'e:side:right', 'k:end:(+a +b +c)'));
    expect(findEdge(ref, [kin])).toMatchObject({ how: 'probably', found: { edge: foot }, why: 'a face beside it has changed' }); // prettier-ignore
    const far = prism(renamed(block(), 'e:side:right', 'k:end:(+a +f +g)'));
    expect(findEdge(ref, [far])).toMatchObject({ how: 'lost', why: 'the faces it lay between no longer meet' });
    const both = [kin, prism(shifted(renamed(block(), 'e:side:right', 'k:end:(+a +b +c)'), 0))];
    expect(findEdge(ref, both).how).toBe('lost');
  });

  test('of a seam lies on one face; within a face of two pieces it has one name too', () => {
    const seam = { ...plain.facts.edges[0]!, faces: [1, 1], ends: [], middle: [60, 5, 7] as [number, number, number] };
    const body = { ...plain, faceNames: [...plain.faceNames], facts: { ...plain.facts, edges: [...plain.facts.edges, seam] } }; // prettier-ignore
    const own = refOfEdge(body, body.facts.edges.length - 1);
    expect(own).toEqual({ faces: ['e:side:right'], ends: [], near: [60, 5, 7] });
    expect(findEdge(own, [body])).toMatchObject({ how: 'one', found: { edge: body.facts.edges.length - 1 } });
    const halves = prism(renamed(block(), 'e:side:floor', 'e:side:right'));
    const between = refOfEdge(halves, foot);
    expect(between.faces).toEqual(['e:side:right']);
    expect(findEdge(between, [halves])).toMatchObject({ how: 'one', found: { edge: foot } });
  });

  test('at which more than two faces meet, or none, is between no two', () => {
    const odd = (faces: readonly number[]) => {
      const edges = plain.facts.edges.map((e, i) => (i === foot ? { ...e, faces } : e));
      return { ...plain, faceNames: [...plain.faceNames], facts: { ...plain.facts, edges } };
    };
    for (const faces of [[0, 3, 1], []]) expect(findEdge(ref, [odd(faces)]).how).toBe('lost');
    expect(findEdge({ ...ref, faces: ['e:side:right'] }, [odd([1, 1])])).toMatchObject({ how: 'one' });
    expect(findEdge(ref, [odd([1, 1])]).how).toBe('lost');
  });

  test('that is lost comes with the three nearest', () => {
    const finding = findEdge({ faces: ['gone:side:x', 'e:end'], near: [60, 5, 1] }, [plain]);
    expect(finding.how === 'lost' && finding.candidates[0]).toEqual({ body: plain, edge: foot });
    expect(finding.how === 'lost' && finding.candidates).toHaveLength(3);
    expect(findEdge({ ...ref, faces: ['no name:('] }, [plain])).toMatchObject({ how: 'lost', why: 'its name cannot be read' }); // prettier-ignore
  });
});

describe('a corner', () => {
  const plain = prism(block());
  const ref = refOfVertex(plain, 2);

  test('is stored by the faces that meet there, and its place', () => {
    expect(ref).toEqual({ faces: ['e:side:floor', 'e:side:right', 'e:start'], near: [60, 0, 0] });
  });

  test('where its faces meet is the one, wherever it went', () => {
    expect(findVertex(ref, [prism(shifted(block(), 500))])).toMatchObject({ how: 'one', found: { vertex: 2 } });
    const { faces } = refOfVertex(plain, 3);
    expect(findVertex({ ...ref, faces }, [plain])).toMatchObject({ how: 'one', found: { vertex: 3 } });
  });

  test('of several where the same faces meet is the nearest, and it is said', () => {
    const twins = [prism(block()), prism(shifted(block(), 100))];
    const own = refOfVertex(twins[0]!, 2, twins);
    expect(own.piece).toBe(true);
    expect(findVertex(own, twins)).toMatchObject({ how: 'probably', found: { body: twins[0], vertex: 2 }, why: expect.stringMatching(/nearest of 2 corners/) }); // prettier-ignore
    expect(findVertex({ ...own, near: [110, 0, 0] }, twins)).toMatchObject({ how: 'lost', why: expect.stringMatching(/meet at 2 corners/) }); // prettier-ignore
    // One is left: the same, where it still stands; else it may be the other.
    expect(findVertex(own, [twins[0]!]).how).toBe('one');
    expect(findVertex(own, [twins[1]!])).toMatchObject({ how: 'probably', why: expect.stringMatching(/only this one is left/) }); // prettier-ignore
  });

  test('where no other face comes in is meant by few faces', () => {
    const wanted = { faces: ['e:side:floor', 'e:start'], near: [0, 0, 0] as [number, number, number] };
    expect(findVertex(wanted, [plain])).toMatchObject({ how: 'probably', found: { vertex: 0 } });
    const sharp = prism(block());
    // At this corner a fourth face comes in.
    const edges = [...sharp.facts.edges, { ...sharp.facts.edges[0]!, faces: [2, 1], ends: [0, 9] }];
    const more = { ...sharp, faceNames: [...sharp.faceNames], facts: { ...sharp.facts, edges } };
    expect(findVertex(wanted, [more])).toMatchObject({ how: 'one', found: { vertex: 2 } });
  });

  test('one of whose faces changed is probable, with none of them lost', () => {
    const faces = ['k:end:(+a +b +d)', 'e:side:floor', 'e:start'];
    const kin = prism(renamed(block(), 'e:side:right', 'k:end:(+a +b +c)'));
    expect(findVertex({ ...ref, faces }, [kin])).toMatchObject({ how: 'probably', found: { vertex: 2 }, why: 'a face beside it has changed' }); // prettier-ignore
    expect(findVertex({ ...ref, faces }, [kin, kin]).how).toBe('lost');
    const finding = findVertex({ ...ref, faces: ['gone:side:x'], near: [59, 0, 0] }, [plain]);
    expect(finding).toMatchObject({ how: 'lost', why: 'the faces that met there no longer meet' });
    expect(finding.how === 'lost' && finding.candidates.map((c) => c.vertex)).toEqual([2, 3, 4]);
    expect(findVertex({ ...ref, faces: ['no name:('] }, [plain])).toMatchObject({ how: 'lost', why: 'its name cannot be read' }); // prettier-ignore
  });
});

describe('a body', () => {
  const of = (name: string, by = 0, sides = block()) => prism(shifted(sides, by), 10, readName(name)!);
  const a = of('e:body:+one');

  test('is named in stored designs by this role', () => expect(BODY_ROLE).toBe('body'));

  test('is stored by its step where that made one, else by its name; of pieces also by the faces only it has', () => {
    expect(refOfBody(a, [a])).toEqual({ name: 'e', near: [30, 5, 10] });
    const b = of('e:body:+two', 100);
    expect(refOfBody(a, [a, b])).toEqual({ name: 'e:body:+one', near: [30, 5, 10] });
    const piece = of('e:body:+one', 100, renamed(block(), 'e:side:left', 'e:side:cut'));
    expect(refOfBody(a, [a, piece, of('f:body:+x')])).toEqual({ name: 'e:body:+one', has: ['e:side:left'], near: [30, 5, 10] }); // prettier-ignore
  });

  test('of its step, or of its name, is the one', () => {
    const [b, c] = [of('e:body:+two', 100), of('f:body:+one', 200)];
    expect(findBody({ name: 'f' }, [a, c])).toEqual({ how: 'one', found: c });
    expect(findBody({ name: 'e:body:+two' }, [a, b, c])).toEqual({ how: 'one', found: b });
    expect(findBody({ name: 'g' }, [a, b])).toMatchObject({ how: 'lost', candidates: [a, b] });
    expect(findBody({ name: 'no name:(' }, [a])).toMatchObject({ how: 'lost', why: 'its name cannot be read' });
    expect(findBody({ name: 'g' }, [a, b, c, a])).toMatchObject({ candidates: [a, b, c] });
  });

  test('in pieces is the one with the faces only it had; else the nearest, if one is', () => {
    const piece = of('e:body:+one', 100, renamed(block(), 'e:side:left', 'e:side:cut'));
    const ref = refOfBody(piece, [a, piece]);
    expect(findBody(ref, [a, piece])).toEqual({ how: 'one', found: piece });
    expect(findBody({ ...ref, has: ['gone:side:x'] }, [a, piece])).toMatchObject({ how: 'probably', found: piece, why: 'it is the nearest of 2 pieces' }); // prettier-ignore
    expect(findBody({ name: 'e', near: [31, 5, 10] }, [a, piece])).toMatchObject({ how: 'probably', found: a });
    expect(findBody({ name: 'e', near: [80, 5, 10] }, [a, piece])).toMatchObject({ how: 'lost', why: expect.stringMatching(/in 2 pieces/) }); // prettier-ignore
    expect(findBody({ name: 'e' }, [a, piece]).how).toBe('lost');
    const twin = of('e:body:+one', 200);
    expect(findBody({ name: 'e', has: ['e:side:left'], near: [229, 5, 10] }, [a, piece, twin])).toMatchObject({ how: 'probably', found: twin }); // prettier-ignore
    expect(findBody({ name: 'e', has: ['e:side:left'], near: [129, 5, 10] }, [a, piece])).toEqual({ how: 'one', found: a }); // prettier-ignore
  });

  test('left of several pieces is the one only with a face only it had', () => {
    expect(findBody({ name: 'e', has: ['e:side:left', 'gone:side:x'] }, [a])).toEqual({ how: 'one', found: a });
    expect(findBody({ name: 'e', has: ['gone:side:x'] }, [a])).toMatchObject({ how: 'probably', found: a, why: expect.stringMatching(/only this one is left/) }); // prettier-ignore
  });

  test('begun from a region that changed a little is probable', () => {
    const own = of('e:body:(+a +b +c)');
    expect(findBody({ name: 'e:body:(+a +b +d)' }, [own])).toEqual({ how: 'probably', found: own, why: 'the region it began from has changed' }); // prettier-ignore
    expect(findBody({ name: 'e:body:(+a +d +f)' }, [own])).toMatchObject({ how: 'lost', why: 'what began it is not there any more' }); // prettier-ignore
    expect(findBody({ name: 'e:body:(+a +b +d)' }, [own, of('e:body:(+a +b +f)')]).how).toBe('lost');
  });

  test('of another part is known by its name', () => {
    const name = borrowedName('b', nameOf('e', 'body', ['+one']));
    expect(name.text).toBe('b:borrowed:(e:body:+one)');
    expect([isBorrowed({ name }), isBorrowed(a)]).toEqual([true, false]);
  });
});
