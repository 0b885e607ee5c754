import { addStep, exportFace, exportParts, PartEvaluator, readDxf, refOfFace, setMaterial, Ledger, type Design, type FaceFacts, type Step } from '@helb/core'; // prettier-ignore
import { getBounds, WebIO } from '@gltf-transform/core';
import { describe, expect, test } from '@jest/globals';
import { validateBytes } from 'gltf-validator';
import { strFromU8, unzipSync } from 'fflate';
import { loadKernel } from './load.ts';
import { block, designOf, edited, extruded, outline, rectangle } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);

/** A plate 60 × 40 × 6, its corner at (5, 7), with a bore, a slot and an oval hole. */
const holes: Step = {
  ...outline([]),
  points: { a: [20, 20], p: [35, 34], q: [45, 34], r: [45, 40], s: [35, 40], m: [35, 37], n: [45, 37], o: [50, 20], t: [50, 26] }, // prettier-ignore
  curves: {
    k: { kind: 'circle', center: 'a', radius: 6 },
    l1: { kind: 'line', from: 'p', to: 'q' },
    r1: { kind: 'arc', center: 'n', from: 'q', to: 'r' },
    l2: { kind: 'line', from: 'r', to: 's' },
    r2: { kind: 'arc', center: 'm', from: 's', to: 'p' },
    e: { kind: 'ellipse', center: 'o', major: 't', minor: 4 },
  },
};
const plate = designOf({
  s: outline(rectangle(5, 7, 60, 40)),
  b: extruded('s', '6 mm'),
  h: { ...holes, name: 'Holes' },
  c: extruded('h', '6 mm', { result: 'cut' }),
});

async function written(
  design: Design,
  format: 'dxf' | 'svg',
  grown: number,
  is: (f: FaceFacts) => boolean,
  engraving: string | null = null,
) {
  // prettier-ignore
  const [body] = (await evaluator.evaluate(design, Ledger.of(design), 'p')).bodies;
  const face = refOfFace(body!, body!.facts.faces.findIndex(is));
  return exportFace(design, 'p', face, format, grown, engraving, evaluator, kernel);
}
const top = (f: FaceFacts) => (f.normal?.[2] ?? 0) > 0.9;
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

describe('a face as a drawing to cut by', () => {
  test('DXF: true arcs in mm, outline and holes on layers of their own', async () => {
    const { bytes, free } = await written(plate, 'dxf', 0, top);
    const { layers, unit } = readDxf(text(bytes));
    expect([unit, free]).toEqual([1, 0]);
    const of = (name: string) => layers.find((l) => l.name === name)!.pieces;
    expect(of('outline').map((p) => p.kind)).toEqual(['line', 'line', 'line', 'line']);
    const corners = of('outline').flatMap((p) => p.points.map((q) => q.join()));
    expect(new Set(corners)).toEqual(new Set(['0,0', '60,0', '60,40', '0,40']));
    expect(
      of('holes')
        .map((p) => p.kind)
        .sort(),
    ).toEqual(['arc', 'arc', 'circle', 'ellipse', 'line', 'line']);
    expect(of('holes').find((p) => p.kind === 'circle')).toMatchObject({ radius: 6, points: [[15, 13]] });
  });

  test('what is drawn in a sketch on the face is engraved, on a layer of its own', async () => {
    const drawn: Step = {
      ...outline([], { name: 'Marks', plane: { face: { name: 'b:end:(+l0 +l1 +l2 +l3)' } } }),
      points: { a: [0, 0], b: [10, 5], c: [-8, 3] },
      curves: { l: { kind: 'line', from: 'a', to: 'b' }, k: { kind: 'circle', center: 'c', radius: 2 }, x: { kind: 'line', from: 'a', to: 'c', construction: true } }, // prettier-ignore
    } as Step;
    const marked = edited(plate, addStep('p', 'm', drawn));
    const { steps } = await evaluator.evaluate(marked, Ledger.of(marked), 'p');
    const { frame } = steps.find((s) => s.id === 'm')!.sketch!;
    // The outline's lowest corner, (5, 7), is the drawing's origin.
    const at = (u: number, v: number) => [0, 1].map((k) => frame.origin[k]! + u * frame.x[k]! + v * frame.y[k]! - [5, 7][k]!); // prettier-ignore
    const { layers } = readDxf(text((await written(marked, 'dxf', 0.1, top, 'm')).bytes));
    const engraved = layers.find((l) => l.name === 'engraving')!.pieces;
    expect(engraved.map((p) => p.kind).sort()).toEqual(['circle', 'line']);
    // What is engraved does not grow with the outline, but moves with its corner.
    const near = (p: readonly number[]) => p.map((c) => expect.closeTo(c + 0.1, 6));
    expect(engraved.find((p) => p.kind === 'line')!.points).toEqual([near(at(0, 0)), near(at(10, 5))]);
    expect(engraved.find((p) => p.kind === 'circle')).toMatchObject({ radius: expect.closeTo(2, 9), points: [near(at(-8, 3))] }); // prettier-ignore
    expect(text((await written(marked, 'svg', 0, top, 'm')).bytes)).toMatch(/<g id="engraving" stroke="#00a000">\n {4}<path d="M [^Z]*"\/>/); // prettier-ignore
    await expect(written(marked, 'dxf', 0, top, 's')).rejects.toThrow('The sketch to engrave does not lie on this face; choose one that does.'); // prettier-ignore
  });

  test('grown by half a cut, the part comes out as it is: larger outside, smaller holes', async () => {
    const { layers } = readDxf(text((await written(plate, 'dxf', 0.1, top)).bytes));
    const of = (name: string) => layers.find((l) => l.name === name)!.pieces;
    const xs = of('outline').flatMap((p) => p.points.map((q) => q[0]));
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(60.2, 6);
    expect(of('outline').filter((p) => p.kind === 'arc')).toHaveLength(4);
    const circle = of('holes').find((p) => p.kind === 'circle' || (p.kind === 'arc' && Math.abs(Math.hypot(p.points[1][0] - p.points[0][0], p.points[1][1] - p.points[0][1]) - 5.9) < 1e-6)); // prettier-ignore
    expect(circle).toBeDefined();
  });

  test('SVG: one unit a mm, paths that close and arcs that are arcs', async () => {
    const svg = text((await written(plate, 'svg', 0, top)).bytes);
    expect(svg).toContain('width="60mm" height="40mm" viewBox="0 0 60 40"');
    expect(svg.match(/<path /g)).toHaveLength(4);
    // The bore, 13 up from the lower edge, 27 down from the upper.
    expect(svg).toContain('M 21 27 A 6 6 0 0 0 9 27 A 6 6 0 0 0 21 27 Z');
    expect(svg).toMatch(/A 3 3 0 0 [01] \S+ \S+ L/);
  });

  test('a face that is not flat is refused in a sentence', async () => {
    await expect(written(plate, 'dxf', 0, (f) => f.kind === 'cylinder')).rejects.toThrow('Only a flat face has an outline to cut by; pick a flat one.'); // prettier-ignore
  });
  test('a cut of less than nothing is refused in a sentence', async () => {
    await expect(written(plate, 'dxf', -0.1, top)).rejects.toThrow(
      'The width of a cut is 0 or more; give one that is.',
    );
  });
  test('holes narrower than the cut go, and are counted', async () => {
    expect((await written(plate, 'dxf', 2.9, top)).closed).toBe(0);
    expect((await written(plate, 'dxf', 3.1, top)).closed).toBe(1);
    expect((await written(plate, 'dxf', 7, top)).closed).toBe(3);
  });
  test.each([0.15, 1.5])('whatever step made a hole, it shrinks by %f', async (grown) => {
    const [body] = (await evaluator.evaluate(plate, Ledger.of(plate), 'p')).bodies;
    const bore = body!.facts.faces.findIndex((f) => f.radius === 6);
    for (const inward of [false, true]) {
      const other = edited(plate, addStep('p', 'o', { kind: 'offset', name: 'Offset', faces: [refOfFace(body!, bore)], distance: '0.5 mm', inward })); // prettier-ignore
      for (const is of [top, (f: FaceFacts) => (f.normal?.[2] ?? 0) < -0.9]) {
        const { layers } = readDxf(text((await written(other, 'dxf', grown, is)).bytes));
        const circle = layers.find((l) => l.name === 'holes')!.pieces.find((p) => p.kind === 'circle') as { radius: number }; // prettier-ignore
        expect(circle.radius).toBeCloseTo((inward ? 6.5 : 5.5) - grown, 6);
      }
    }
  });
});

test('3MF: closed meshes in mm with names and colours', async () => {
  const design = edited(designOf(block(30, 20, 10)), setMaterial('p', 'oak'));
  const files = unzipSync(await exportParts(design, '3mf', ['p'], evaluator, kernel));
  expect(Object.keys(files)).toEqual(['[Content_Types].xml', '_rels/.rels', '3D/3dmodel.model']);
  const model = strFromU8(files['3D/3dmodel.model']!);
  expect(model).toContain('unit="millimeter"');
  expect(model).toMatch(/<base name="Part" displaycolor="#[0-9A-F]{6}FF"\/>/);
  const vertices = [...model.matchAll(/<vertex x="(\S+)" y="(\S+)" z="(\S+)"\/>/g)].map((m) => m.slice(1).map(Number));
  const triangles = [...model.matchAll(/<triangle v1="(\d+)" v2="(\d+)" v3="(\d+)"\/>/g)].map((m) => m.slice(1).map(Number)); // prettier-ignore
  expect(vertices).toHaveLength(8);
  const edges = triangles.flatMap(([a, b, c]) => [`${a} ${b}`, `${b} ${c}`, `${c} ${a}`]);
  // Each edge once each way.
  expect(new Set(edges).size).toBe(edges.length);
  expect(edges.every((e) => edges.includes(e.split(' ').reverse().join(' ')))).toBe(true);
  const volume = triangles.reduce((sum, [a, b, c]) => {
    const [p, q, r] = [vertices[a!]!, vertices[b!]!, vertices[c!]!] as [number[], number[], number[]];
    return sum + (p[0]! * (q[1]! * r[2]! - q[2]! * r[1]!) - p[1]! * (q[0]! * r[2]! - q[2]! * r[0]!) + p[2]! * (q[0]! * r[1]! - q[1]! * r[0]!)) / 6; // prettier-ignore
  }, 0);
  expect(volume).toBeCloseTo(6000, 6);
});

test('glTF: valid by another’s validator, in metres and Y up', async () => {
  const design = edited(designOf(block(30, 20, 10)), setMaterial('p', 'oak'));
  const bytes = await exportParts(design, 'glb', ['p'], evaluator, kernel);
  const report = (await validateBytes(bytes)) as { issues: { numErrors: number; numWarnings: number }; info: { totalTriangleCount: number; materialCount: number } }; // prettier-ignore
  expect(report.issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
  expect(report.info).toMatchObject({ totalTriangleCount: 12, materialCount: 1 });
  const file = await new WebIO().readBinary(bytes);
  const { min, max } = getBounds(file.getRoot().listScenes()[0]!);
  expect(max.map((x, i) => x - min[i]!)).toEqual([0.03, 0.01, 0.02].map((x) => expect.closeTo(x, 8)));
  expect(max[1]).toBeCloseTo(0.01, 8);
});
