import { STAY, followedBy, shiftBy, turnAbout, type Axis, type Transform, type Vec3 } from '@helb/core';
import fc from 'fast-check';
import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { combineSolids } from './combine.ts';
import { isSound } from './describe.ts';
import { volumeOf } from './exact-measures.ts';
import type { Made } from './extrude.ts';
import { facesOf } from './explore.ts';
import { placesOf } from './face-places.ts';
import { loadKernel } from './load.ts';
import { combineLocally, type LocalTool, type LocallyMade } from './local-combine.ts';
import { moved } from './place.ts';
import { Scope } from './scope.ts';

const { oc } = (await loadKernel()) as unknown as { oc: Parameters<typeof combineSolids>[0] };
let scope: Scope;
beforeEach(() => (scope = new Scope()));
afterEach(() => scope.end());

const at = ([x, y, z]: Vec3) => scope.keep(new oc.gp_Pnt(x, y, z));
const block = (low: Vec3, high: Vec3) => scope.keep(new oc.BRepPrimAPI_MakeBox(at(low), at(high))).Shape();
const rod = (from: Vec3, way: Vec3, radius: number, length: number) => {
  const axes = scope.keep(new oc.gp_Ax2(at(from), scope.keep(new oc.gp_Dir(...way))));
  return scope.keep(new oc.BRepPrimAPI_MakeCylinder(axes, radius, length)).Shape();
};
const alone = (shape: TopoDS_Shape, origin: number): LocalTool => ({ shape, origin, moved: STAY });

type Kind = 'join' | 'cut';
const locally = (kind: Kind, body: TopoDS_Shape, tools: readonly LocalTool[]): LocallyMade | null =>
  combineLocally(oc, scope, body, placesOf(oc, scope, body), tools, (b, t) => combineSolids(oc, scope, kind, [b], [t]));
const wholly = (kind: Kind, body: TopoDS_Shape, tools: readonly LocalTool[]): Made[] =>
  combineSolids(oc, scope, kind, [body], tools.map((t) => t.shape)); // prettier-ignore

/** What each face came from, in no order; which way what was merged looked is not told by the kernel. */
const origins = ({ faces }: Made) =>
  faces
    .map((own) =>
      own
        .map((p) => `${p.argument}.${p.index}${p.turned && own.length === 1 ? '-' : ''}`)
        .sort()
        .join(' '),
    ) // prettier-ignore
    .sort();

function expectAlike(local: LocallyMade, body: TopoDS_Shape, whole: readonly Made[]): void {
  expect(whole).toHaveLength(1);
  expect(isSound(oc, local.shape)).toBe(true);
  const [own, other, before] = [volumeOf(oc, scope, local.shape), volumeOf(oc, scope, whole[0]!.shape), volumeOf(oc, scope, body)]; // prettier-ignore
  // Faces that meet along no simple curve are measured to so much.
  expect(Math.abs(own.volume - other.volume)).toBeLessThan(1e-9 * own.volume);
  expect(Math.abs(before.volume + local.gained.volume - other.volume)).toBeLessThan(1e-9 * own.volume);
  own.center.forEach((c, k) => {
    expect(c).toBeCloseTo(other.center[k]!, 7);
    expect((before.center[k]! * before.volume + local.gained.moment[k]!) / own.volume).toBeCloseTo(c, 7);
  });
  expect(origins(local)).toEqual(origins(whole[0]!));
  expect(facesOf(oc, scope, local.shape)).toHaveLength(local.faces.length);
  // Where its faces are is told in their order, and never as less than it is.
  const looked = placesOf(oc, scope, local.shape);
  expect(local.places).toHaveLength(looked.length);
  looked.forEach(({ extent }, f) =>
    extent.forEach((x, k) => expect((x - local.places[f]!.extent[k]!) * (k < 3 ? 1 : -1)).toBeGreaterThan(-1e-6)),
  );
}

const plate = () => block([0, 0, 0], [100, 60, 10]);

test.each<[string, Kind, () => TopoDS_Shape, number]>([
  ['a pocket from the face', 'cut', () => block([10, 10, 4], [30, 20, 10]), -1200],
  ['a pocket from above the face', 'cut', () => block([10, 10, 4], [30, 20, 17]), -1200],
  ['a pocket from below', 'cut', () => block([10, 10, -3], [30, 20, 4]), -800],
  ['a way through', 'cut', () => rod([50, 30, -2], [0, 0, 1], 5, 14), -250 * Math.PI],
  ['a blind bore in a side', 'cut', () => rod([-1, 30, 5], [1, 0, 0], 3, 21), -180 * Math.PI],
  ['a leaning bore', 'cut', () => rod([50, 30, -4], [0.6, 0, 0.8], 5, 22.5), -312.5 * Math.PI],
  ['a boss on the face', 'join', () => rod([50, 30, 10], [0, 0, 1], 5, 7), 175 * Math.PI],
  ['a boss from within', 'join', () => rod([50, 30, 6], [0, 0, 1], 5, 11), 175 * Math.PI],
  ['a pin on both sides', 'join', () => rod([50, 30, -6], [0, 0, 1], 5, 23), 325 * Math.PI],
])('%s', (_, kind, tool, gained) => {
  const body = plate();
  const tools = [alone(tool(), 0)];
  const local = locally(kind, body, tools)!;
  expect(local.gained.volume).toBeCloseTo(gained, 6);
  expectAlike(local, body, wholly(kind, body, tools));
});

test('what a groove leaves standing is a piece of the face it was cut into', () => {
  const body = plate();
  const ring = combineSolids(oc, scope, 'cut', [rod([50, 30, 6], [0, 0, 1], 20, 8)], [rod([50, 30, 5], [0, 0, 1], 12, 10)]); // prettier-ignore
  const tools = [alone(ring[0]!.shape, 0)];
  const local = locally('cut', body, tools)!;
  expect(local.gained.volume).toBeCloseTo(-4 * (400 - 144) * Math.PI, 6);
  expectAlike(local, body, wholly('cut', body, tools));
});

test.each<[string, Kind, () => TopoDS_Shape]>([
  ['crosses an edge', 'cut', () => block([90, 10, 4], [110, 20, 12])],
  ['comes as near as rounding to an edge', 'cut', () => block([10, 1e-6, 4], [30, 20, 12])],
  ['stands beside the body', 'join', () => block([110, 10, 4], [120, 20, 12])],
  ['lies wholly within', 'cut', () => block([10, 10, 4], [30, 20, 6])],
  ['parts a core from the body', 'cut', () => combineSolids(oc, scope, 'cut', [rod([50, 30, -1], [0, 0, 1], 20, 12)], [rod([50, 30, -2], [0, 0, 1], 12, 14)])[0]!.shape], // prettier-ignore
])('is left to the kernel what %s', (_, kind, tool) => {
  expect(locally(kind, plate(), [alone(tool(), 0)])).toBeNull();
});

test('two tools that meet are left to the kernel', () => {
  const tools = [alone(rod([50, 30, 5], [0, 0, 1], 5, 9), 0), alone(rod([58, 30, 5], [0, 0, 1], 5, 9), 1)];
  expect(locally('cut', plate(), tools)).toBeNull();
});

test('a tool in an earlier gap is left to the kernel, and so is one that meets a face that is not square', () => {
  const body = locally('cut', plate(), [alone(block([10, 10, 4], [40, 40, 12]), 0)])!.shape;
  expect(locally('join', body, [alone(rod([25, 25, 4], [0, 0, 1], 5, 12), 0)])).toBeNull();
  const axis: Axis = { origin: [0, 0, 0], direction: [0, 1, 0] };
  const leaning = moved(oc, scope, plate(), turnAbout(axis, 0.1));
  expect(locally('join', leaning, [alone(rod([50, 30, 0], [0, 0, 1], 5, 12), 0)])).toBeNull();
});

test('where an outline has a bay, nothing is cut through the gap', () => {
  const comb = combineSolids(oc, scope, 'cut', [plate()], [block([20, -1, -1], [80, 40, 11])])[0]!.shape;
  expect(locally('cut', comb, [alone(rod([50, 20, -1], [0, 0, 1], 5, 14), 0)])).toBeNull();
  const tools = [alone(rod([10, 20, -1], [0, 0, 1], 5, 14), 0), alone(rod([50, 50, -1], [0, 0, 1], 5, 14), 1)];
  expectAlike(locally('cut', comb, tools)!, comb, wholly('cut', comb, tools));
});

/** Copies are made once, and moved: along the face, and turned in it. */
test('a ring and a row of copies are what each would be alone', () => {
  const body = block([-100, -100, 0], [100, 100, 8]);
  const one = combineSolids(oc, scope, 'join', [rod([20, 5, -1], [0, 0, 1], 3, 10)], [block([20, 4, 3], [30, 6, 20])])[0]!.shape; // prettier-ignore
  const axis: Axis = { origin: [0, 0, 0], direction: [0, 0, 1] };
  const moves: Transform[] = [
    ...Array.from({ length: 7 }, (_, i) => turnAbout(axis, (i * Math.PI * 2) / 7)),
    ...Array.from({ length: 5 }, (_, i) => shiftBy([-80 + 30 * i, 60, 0])),
    followedBy(turnAbout({ origin: [0, 0, 4], direction: [1, 0, 0] }, Math.PI), shiftBy([0, -70, 0])),
  ];
  const tools = moves.map((to) => ({ shape: moved(oc, scope, one, to), origin: 3, moved: to }));
  for (const kind of ['cut', 'join'] as const) {
    let combined = 0;
    const local = combineLocally(oc, scope, body, placesOf(oc, scope, body), tools, (b, t) => {
      combined++;
      return combineSolids(oc, scope, kind, [b], [t]);
    })!;
    // The one turned over is another.
    expect(combined).toBe(2);
    expectAlike(local, body, wholly(kind, body, tools));
  }
});

/** Step after step on one body, each tool anywhere: what is taken locally is what the kernel makes of the whole. */
test('whatever is met, the outcome is the kernel’s own', () => {
  let [taken, left] = [0, 0];
  const tool = fc.record({ kind: fc.constantFrom<Kind>('join', 'cut'), round: fc.boolean(), axis: fc.nat(2), from: fc.tuple(fc.integer({ min: -5, max: 100 }), fc.integer({ min: -5, max: 60 }), fc.integer({ min: -5, max: 12 })), size: fc.tuple(fc.integer({ min: 2, max: 14 }), fc.integer({ min: 2, max: 14 }), fc.integer({ min: 2, max: 14 })), lean: fc.constantFrom(0, 0, 0, 0.3) }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(tool, { minLength: 3, maxLength: 6 }), (steps) => {
      const own = new Scope();
      const outer = scope;
      scope = own;
      try {
        let body = plate();
        for (const { kind, round, axis, from, size, lean } of steps) {
          const way = [0, 1, 2].map((k) => (k === axis ? 1 : 0)) as unknown as Vec3;
          const straight = round
            ? rod(from, way, size[0] / 2, size[2] + 4)
            : block(from, from.map((x, k) => x + size[k]!) as unknown as Vec3);
          const shape = lean === 0 ? straight : moved(oc, own, straight, turnAbout({ origin: from, direction: [0, 1, 0] }, lean)); // prettier-ignore
          const tools = [alone(shape, 0)];
          const whole = wholly(kind, body, tools);
          const local = locally(kind, body, tools);
          if (local) {
            taken++;
            expectAlike(local, body, whole);
          } else left++;
          if (whole.length !== 1 || !isSound(oc, whole[0]!.shape)) break;
          body = local?.shape ?? whole[0]!.shape;
        }
      } finally {
        own.end();
        scope = outer;
      }
    }),
    { numRuns: 40 },
  );
  expect(taken).toBeGreaterThan(20);
  expect(left).toBeGreaterThan(20);
});
