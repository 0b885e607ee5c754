/** What was made and let go of leaves no memory behind. */
import type { Frame, Loop, Vec2 } from '@helb/core';
import { expect, test } from '@jest/globals';
import type { OpenCascadeInstance } from 'replicad-opencascadejs';
import { loadKernel } from './load.ts';

const kernel = await loadKernel();
const { oc } = kernel as unknown as { oc: OpenCascadeInstance };
const FLOOR: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };

const heap = () => oc.wasmMemory.buffer.byteLength;
/** Takes all that is free, so that the next of any size makes the heap grow by about a quarter. */
function fill(): void {
  const { ___libc_malloc: malloc } = oc as unknown as { ___libc_malloc: (bytes: number) => number };
  for (const before = heap(); heap() === before;) malloc(16 * 1024);
}

const polygon = (corners: readonly Vec2[]): Loop =>
  ({ pieces: corners.map((from, i) => ({ kind: 'line', from, to: corners[(i + 1) % corners.length]! })) }) as unknown as Loop; // prettier-ignore
const square = (x: number, y: number, side: number): Vec2[] => [[x, y], [x + side, y], [x + side, y + side], [x, y + side]]; // prettier-ignore
const sieve = (holes: number): Loop[] => [
  polygon(square(0, 0, 300)),
  ...Array.from({ length: holes }, (_, i) => polygon(square(5 + 20 * (i % 14), 5 + 20 * Math.floor(i / 14), 10).reverse())), // prettier-ignore
];

test('a surface knows itself alone again once all that was made on it is gone', () => {
  const made = [new oc.gp_Pnt(0, 0, 0), new oc.gp_Dir(0, 0, 1)] as const;
  const surface = new oc.Geom_CylindricalSurface(new oc.gp_Ax3(...made), 5);
  const maker = new oc.BRepBuilderAPI_MakeFace(surface, 0, 1, 0, 1, 1e-6);
  const [face, shape] = [maker.Face(), maker.Shape()];
  const list = new oc.NCollection_List_TopoDS_Shape();
  const copy = list.Append(face) as unknown as { delete(): void };
  for (const object of [maker, shape, copy, list]) object.delete();
  expect(surface.GetRefCount()).toBeGreaterThan(1);
  face.delete();
  expect(surface.GetRefCount()).toBe(1);
  // Twice is said, as it always was.
  expect(() => face.delete()).toThrow(/deleted/);
});

test('a plate made, cut, copied, measured and drawn leaves nothing behind', () => {
  const once = () => {
    const plate = kernel.extrude(FLOOR, sieve(50), 0, 5).solid;
    const tool = kernel.extrude(FLOOR, [polygon(square(-10, 50, 400))], 2, 9).solid;
    const [cut] = kernel.combine('cut', [plate], [tool]);
    const copy = kernel.placed(cut!.solid, [[1, 0, 0, 5], [0, 1, 0, 0], [0, 0, 1, 0]]).solid; // prettier-ignore
    kernel.bulk(copy);
    kernel.faces(copy);
    kernel.mesh(copy, { linear: 0.1, angular: 0.3 });
    expect(() => kernel.fillet(copy, [{ edge: 0, from: 400, to: 400 }])).toThrow();
    for (const solid of [plate, tool, cut!.solid, copy]) kernel.free(solid);
  };
  fill();
  for (let i = 0; i < 3; i++) once();
  const before = heap();
  for (let i = 0; i < 15; i++) once();
  expect(heap()).toBe(before);
});
