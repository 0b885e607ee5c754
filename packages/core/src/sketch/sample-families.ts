/** Families of sketches that grow with n, for measuring and testing the solver. Dimensions carry plain numbers. */
import { toolNamed } from './draw/tools.ts';
import { SketchPen } from './draw/pen.ts';
import { isDimension, type Constraint, type SketchGeometry } from './schema.ts';

const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
const empty = (): SketchGeometry => ({ points: {}, curves: {}, constraints: {} });

/** A small repeatable random source (Numerical Recipes' constants). */
export function repeatable(seed: number): () => number {
  let x = seed;
  return () => (x = (Math.imul(x, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

/** Rectangles in a row, each dimensioned and hung on the one before: seven constraints apiece. */
export function chainedRectangles(n: number): SketchGeometry {
  const s = empty();
  for (let i = 0; i < n; i++) {
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((k) => `${k}${i}`) as [string, string, string, string];
    const x = i * 12;
    Object.assign(s.points, { [a]: [x, 0], [b]: [x + 10, 0], [c]: [x + 10, 8], [d]: [x, 8] });
    Object.assign(s.curves, {
      [`l${i}`]: line(a, b),
      [`m${i}`]: line(b, c),
      [`n${i}`]: line(c, d),
      [`o${i}`]: line(d, a),
    });
    const add = (k: string, constraint: Constraint) => (s.constraints[`${k}${i}`] = constraint);
    add('h1', { kind: 'horizontal', of: [`l${i}`] });
    add('h2', { kind: 'horizontal', of: [`n${i}`] });
    add('v1', { kind: 'vertical', of: [`m${i}`] });
    add('v2', { kind: 'vertical', of: [`o${i}`] });
    add('w', { kind: 'distance', of: [`l${i}`], value: '10' });
    add('t', { kind: 'distance', of: [`m${i}`], value: '8' });
    if (i > 0) add('g', { kind: 'distance', of: [`b${i - 1}`, a], value: '2' });
  }
  return s;
}

/** Lines and arcs running into each other in a wave: each line of given length, each arc of given radius. */
export function tangentChain(n: number): SketchGeometry {
  const s = empty();
  s.points.p0 = [0, 0];
  s.constraints.f = { kind: 'fixed', of: ['p0'] };
  let before: string | null = null;
  for (let i = 0; i < n; i++) {
    const x = i * 20;
    const up = i % 2 === 0;
    Object.assign(s.points, { [`q${i}`]: [x + 10, 0], [`c${i}`]: [x + 15, 0], [`p${i + 1}`]: [x + 20, 0] });
    s.curves[`l${i}`] = line(`p${i}`, `q${i}`);
    // Half turns up and down by turns would stand square to the lines; quarter bulges keep them level.
    const [cx, cy] = [x + 15, up ? -5 : 5];
    s.points[`c${i}`] = [cx, cy];
    s.points[`q${i}`] = [x + 10, 0];
    s.points[`p${i + 1}`] = [x + 20, 0];
    s.curves[`a${i}`] = {
      kind: 'arc',
      center: `c${i}`,
      ...(up ? { from: `p${i + 1}`, to: `q${i}` } : { from: `q${i}`, to: `p${i + 1}` }),
    };
    s.constraints[`r${i}`] = { kind: 'radius', of: [`a${i}`], value: String(Math.hypot(5, 5)) };
    s.constraints[`d${i}`] = { kind: 'distance', of: [`l${i}`], value: '10' };
    s.constraints[`w${i}`] = { kind: 'distance', of: [`q${i}`, `p${i + 1}`], value: '10' };
    if (before) s.constraints[`y${i}`] = { kind: 'parallel', of: ['l0', `l${i}`] };
    else s.constraints[`y${i}`] = { kind: 'horizontal', of: ['l0'] };
    // A small tangent bead on each line ties round and straight together.
    s.points[`b${i}`] = [x + 5, 2];
    s.curves[`k${i}`] = { kind: 'circle', center: `b${i}`, radius: 2 };
    s.constraints[`t${i}`] = { kind: 'tangent', of: [`l${i}`, `k${i}`] };
    s.constraints[`s${i}`] = { kind: 'diameter', of: [`k${i}`], value: '4' };
    s.constraints[`u${i}`] = { kind: 'distance', of: [`p${i}`, `b${i}`], value: String(Math.hypot(5, 2)) };
    s.constraints[`h${i}`] = { kind: 'horizontal', of: [`q${i}`, `p${i + 1}`] };
    before = `l${i}`;
  }
  return s;
}

/** A plate with slots mirrored in pairs about the y axis. */
export function slottedPlate(n: number): SketchGeometry {
  const s = empty();
  const pen = new SketchPen(s, repeatable(11));
  for (let i = 0; i < n; i++) {
    const y = i * 14;
    const slots = [1, -1].map((side) => {
      const known = new Set(Object.keys(s.curves));
      toolNamed('slot')!.draw({
        pen,
        clicks: [{ at: [side * 12, y] }, { at: [side * 30, y] }, { at: [side * 20, y + 4] }],
        typed: {},
      });
      return Object.keys(s.curves).filter((id) => !known.has(id));
    });
    const arcs = slots.map((ids) => ids.filter((id) => s.curves[id]!.kind === 'arc'));
    const centers = arcs.map((pair) => pair.map((id) => (s.curves[id] as { center: string }).center));
    for (const k of [0, 1]) pen.constrain({ kind: 'symmetric', of: [centers[0]![k]!, centers[1]![k]!, 'y_axis'] });
    pen.constrain({ kind: 'equal', of: [arcs[0]![0]!, arcs[1]![0]!] });
    pen.dimension('radius', [arcs[0]![0]!], '4');
    pen.dimension('horizontal_distance', ['origin', centers[0]![0]!], '12');
    pen.dimension('distance', [centers[0]![0]!, centers[0]![1]!], '18');
    pen.constrain({ kind: 'horizontal', of: [centers[0]![0]!, centers[0]![1]!] });
    if (i === 0) pen.constrain({ kind: 'coincident', of: [centers[0]![0]!, 'x_axis'] });
    else pen.dimension('vertical_distance', ['origin', centers[0]![0]!], String(y));
  }
  return s;
}

/** A strip of triangles, every member of given length. */
export function truss(n: number): SketchGeometry {
  const s = empty();
  for (let i = 0; i < n + 2; i++) s.points[`p${i}`] = [i * 5, i % 2 === 0 ? 0 : 5 * Math.sqrt(3)];
  const bar = (i: number, j: number) => {
    s.curves[`b${i}_${j}`] = line(`p${i}`, `p${j}`);
    s.constraints[`d${i}_${j}`] = { kind: 'distance', of: [`b${i}_${j}`], value: '10' };
  };
  s.constraints.f = { kind: 'fixed', of: ['p0'] };
  s.constraints.h = { kind: 'horizontal', of: ['p0', 'p2'] };
  bar(0, 1);
  for (let i = 2; i < n + 2; i++) {
    bar(i - 2, i);
    bar(i - 1, i);
  }
  return s;
}

/** Teeth round a centre: tips and roots on two circles, flanks equal. */
export function gearRing(n: number): SketchGeometry {
  const s = empty();
  const teeth = Math.max(n, 3);
  s.points.c = [0, 0];
  s.constraints.o = { kind: 'coincident', of: ['c', 'origin'] };
  s.curves.tip = { kind: 'circle', center: 'c', radius: 50, construction: true };
  s.curves.root = { kind: 'circle', center: 'c', radius: 42, construction: true };
  s.constraints.td = { kind: 'diameter', of: ['tip'], value: '100' };
  const pitch = (2 * Math.PI) / teeth;
  for (let i = 0; i < teeth; i++) {
    const at = (radius: number, share: number): [number, number] => [
      radius * Math.cos((i + share) * pitch),
      radius * Math.sin((i + share) * pitch),
    ];
    s.points[`t${i}`] = at(50, 0);
    s.points[`r${i}`] = at(42, 0.5);
    s.constraints[`a${i}`] = { kind: 'coincident', of: [`t${i}`, 'tip'] };
    s.constraints[`b${i}`] = { kind: 'coincident', of: [`r${i}`, 'root'] };
  }
  for (let i = 0; i < teeth; i++) {
    s.curves[`u${i}`] = line(`t${i}`, `r${i}`);
    s.curves[`v${i}`] = line(`r${i}`, `t${(i + 1) % teeth}`);
    if (i > 0) s.constraints[`e${i}`] = { kind: 'equal', of: ['u0', `u${i}`] };
    s.constraints[`g${i}`] = { kind: 'equal', of: ['u0', `v${i}`] };
  }
  const flank = Math.hypot(50 - 42 * Math.cos(pitch / 2), 42 * Math.sin(pitch / 2));
  s.constraints.flank = { kind: 'distance', of: ['u0'], value: String(flank) };
  s.constraints.start = { kind: 'coincident', of: ['t0', 'x_axis'] };
  return s;
}

/** Splines between level lines, tangent at both ends, hung one on the other. */
export function tangentSplines(n: number): SketchGeometry {
  const s = empty();
  s.points.e0 = [0, 0];
  s.constraints.f = { kind: 'fixed', of: ['e0'] };
  for (let i = 0; i < n; i++) {
    const x = i * 40;
    const y = i % 2 === 0 ? 0 : 10;
    const z = 10 - y;
    Object.assign(s.points, {
      [`a${i}`]: [x + 10, y],
      [`b${i}`]: [x + 20, y],
      [`c${i}`]: [x + 25, (y + z) / 2],
      [`d${i}`]: [x + 30, z],
      [`e${i + 1}`]: [x + 40, z],
    });
    s.curves[`l${i}`] = line(`e${i}`, `a${i}`);
    s.curves[`s${i}`] = { kind: 'spline', fit: 'control', points: [`a${i}`, `b${i}`, `c${i}`, `d${i}`, `e${i + 1}`] };
    s.constraints[`h${i}`] = { kind: 'horizontal', of: [`l${i}`] };
    s.constraints[`w${i}`] = { kind: 'distance', of: [`l${i}`], value: '10' };
    s.constraints[`t${i}`] = { kind: 'tangent', of: [`l${i}`, `s${i}`] };
    s.constraints[`x${i}`] = { kind: 'horizontal_distance', of: [`a${i}`, `b${i}`], value: '10' };
    s.constraints[`m${i}`] = { kind: 'horizontal_distance', of: [`a${i}`, `c${i}`], value: '15' };
    s.constraints[`n${i}`] = { kind: 'vertical_distance', of: [`a${i}`, `c${i}`], value: '5' };
    s.constraints[`q${i}`] = { kind: 'horizontal', of: [`d${i}`, `e${i + 1}`] };
    s.constraints[`g${i}`] = { kind: 'distance', of: [`d${i}`, `e${i + 1}`], value: '10' };
    s.constraints[`z${i}`] = { kind: 'horizontal_distance', of: [`a${i}`, `e${i + 1}`], value: '30' };
    s.constraints[`v${i}`] = { kind: 'vertical_distance', of: [`a${i}`, `e${i + 1}`], value: '10' };
  }
  return s;
}

/** By name, with about how many constraints each unit of n brings. */
export const SAMPLE_FAMILIES = {
  chained_rectangles: { make: chainedRectangles, each: 7 },
  tangent_chain: { make: tangentChain, each: 8 },
  slotted_plate: { make: slottedPlate, each: 18 },
  triangle_truss: { make: truss, each: 2 },
  gear_ring: { make: gearRing, each: 4 },
  tangent_splines: { make: tangentSplines, each: 10 },
} as const;

/** The number a dimension of these families carries. */
export const numbersIn = (s: SketchGeometry) => (id: string) => {
  const c = s.constraints[id]!;
  return isDimension(c) ? Number(c.value) : 0;
};

/** Every point shifted by up to `share` of the size of the sketch's own units, and every radius along. */
export function perturbed(s: SketchGeometry, reach: number, random: () => number): SketchGeometry {
  const shift = () => (2 * random() - 1) * reach;
  return {
    ...s,
    points: Object.fromEntries(Object.entries(s.points).map(([id, [x, y]]) => [id, [x + shift(), y + shift()]])),
    curves: Object.fromEntries(
      Object.entries(s.curves).map(([id, c]) => [
        id,
        c.kind === 'circle' ? { ...c, radius: Math.max(0.1, c.radius + shift()) } : c,
      ]),
    ),
  };
}
