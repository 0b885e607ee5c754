/** Where a face that is to be rounded runs: its middle line, and how far it is from there to the sides. */
import { curveOfEdge, StepFailure, type Body } from '../../names/body.ts';
import type { EdgeCurve, SolidKernel } from '../../solid/kernel.ts';
import type { Loop } from '../../sketch/regions/loop.ts';
import { cross, dot, further, minus, opposite, unit, type Axis, type Frame, type Vec3 } from '../../space/vector.ts';
import { inMm } from '../rework/rework.ts';

/** Directions nearer than this are the same; sine. */
const SAME = 1e-7;

/** The frame's x runs across the ridge, its y down into the body; its normal along the ridge. */
export interface Ridge {
  readonly frame: Frame;
  /** Half its width, mm. */
  readonly half: number;
  /** Of a straight one, mm. */
  readonly length: number;
  /** Of a round one, about which it runs. */
  readonly axis: Axis | null;
}

/** @throws StepFailure when the face is no ridge */
export function ridgeOf(body: Body, face: number, kernel: SolidKernel): Ridge {
  const { normal } = body.facts.faces[face]!;
  if (!normal) throw new StepFailure('A face that is rounded fully is flat, and one of these is not; pick the flat one between two sides.'); // prettier-ignore
  const edges = body.facts.edges.flatMap((edge, i) => {
    const beside = edge.faces.find((f) => f !== face);
    if (!edge.faces.includes(face) || beside === undefined) return [];
    return [{ curve: curveOfEdge(body, i, kernel), beside, bend: body.facts.bends[i]! }];
  });
  return ringOf(body, edges, normal) ?? straightOf(body, edges, normal);
}

interface Beside {
  readonly curve: EdgeCurve;
  readonly beside: number;
  readonly bend: number;
}

const isSquareOut = ({ bend }: Beside) => Math.abs(bend - Math.PI / 2) < SAME;

/** A ring between two cylinders about one axis. */
function ringOf(body: Body, edges: readonly Beside[], normal: Vec3): Ridge | null {
  const rounds = edges.filter(({ curve }) => curve.kind === 'ellipse' && curve.whole);
  if (rounds.length !== 2 || edges.length !== 2 || !rounds.every(isSquareOut)) return null;
  const [a, b] = rounds.map(({ beside }) => body.facts.faces[beside]!);
  const { axis } = a!;
  if (!axis || !b!.axis || a!.radius === null || b!.radius === null) return null;
  const apart = minus(b!.axis.origin, axis.origin);
  if (Math.hypot(...cross(apart, axis.direction)) > SAME) return null;
  const [inner, outer] = [a!.radius, b!.radius].sort((x, y) => x - y) as [number, number];
  const { curve } = rounds[0]!;
  const x = unit(minus(curve.samples[0]!, curve.kind === 'ellipse' ? curve.center : axis.origin))!;
  const origin = further(curve.kind === 'ellipse' ? curve.center : axis.origin, x, (inner + outer) / 2);
  const y = opposite(normal);
  return { frame: { origin, x, y, normal: cross(x, y) }, half: (outer - inner) / 2, length: 0, axis };
}

/** A strip between two parallel flat sides, with square ends. */
function straightOf(body: Body, edges: readonly Beside[], normal: Vec3): Ridge {
  const [one, other] = sidesOf(body, edges);
  const along = unit(minus(one.curve.to, one.curve.from))!;
  const across = cross(along, normal);
  const ends = edges.filter((e) => Math.abs(dot(unit(minus(e.curve.to, e.curve.from)) ?? along, along)) < SAME);
  const sides = edges.filter((e) => !ends.includes(e));
  const isEven = (e: Beside) => e.curve.kind === 'line' && Math.abs(Math.abs(e.bend) - Math.PI / 2) < SAME;
  const u = (p: Vec3) => dot(p, across);
  const [low, high] = [u(one.curve.from), u(other.curve.from)].sort((a, b) => a - b) as [number, number];
  const isLevel = ({ curve }: Beside) => Math.abs(u(curve.to) - u(curve.from)) < SAME * (1 + Math.abs(low));
  const isSide = (e: Beside) => isSquareOut(e) && isLevel(e) && [low, high].some((at) => Math.abs(u(e.curve.from) - at) < SAME * (1 + Math.abs(at))); // prettier-ignore
  if (!edges.every(isEven) || !sides.every(isSide))
    throw new StepFailure('A face that is rounded fully has two parallel sides and square ends, all at right angles to it, and one of these has not; fillet its edges instead.'); // prettier-ignore
  const reach = edges.flatMap((e) => [e.curve.from, e.curve.to].map((p) => dot(p, along)));
  const [from, to] = [Math.min(...reach), Math.max(...reach)];
  const at = one.curve.from;
  const origin = further(further(at, across, (low + high) / 2 - u(at)), along, from - dot(at, along));
  const y = opposite(normal);
  // Right-handed: across × down is along, for across is along × up.
  return { frame: { origin, x: across, y, normal: cross(across, y) }, half: (high - low) / 2, length: to - from, axis: null }; // prettier-ignore
}

/** The nearest pair of straight edges whose sides look away from each other. @throws StepFailure */
function sidesOf(body: Body, edges: readonly Beside[]): readonly [Beside, Beside] {
  let best: { pair: readonly [Beside, Beside]; apart: number } | null = null;
  for (const [i, one] of edges.entries())
    for (const other of edges.slice(i + 1)) {
      const [n, m] = [one, other].map((e) => body.facts.faces[e.beside]!.normal);
      if (one.curve.kind !== 'line' || other.curve.kind !== 'line' || !n || !m || dot(n, m) > SAME - 1) continue;
      const apart = Math.abs(dot(minus(other.curve.from, one.curve.from), n));
      if (!best || apart < best.apart) best = { pair: [one, other], apart };
    }
  if (!best) throw new StepFailure('A face that is rounded fully lies between two parallel sides, and one of these does not; fillet its edges instead.'); // prettier-ignore
  if (best.apart < SAME) throw new StepFailure(`A face of ${inMm(best.apart)} is too narrow to be rounded.`);
  return best.pair;
}

/** The two corners over half a circle: across from -half to half, down from 0 to half. */
export function cornersOff(half: number): Loop[] {
  const quarter = { center: [0, half] as const, radius: half, sweep: -Math.PI / 2, curve: 'round', forward: true };
  const line = (from: readonly [number, number], to: readonly [number, number]) => ({ kind: 'line', curve: 'flat', forward: true, from, to }) as const; // prettier-ignore
  const area = (1 - Math.PI / 4) * half * half;
  return [
    {
      pieces: [line([0, 0], [half, 0]), line([half, 0], [half, half]), { kind: 'arc', ...quarter, from: [half, half], to: [0, 0], start: 0 }], // prettier-ignore
      area,
    },
    {
      pieces: [{ kind: 'arc', ...quarter, from: [0, 0], to: [-half, half], start: -Math.PI / 2 }, line([-half, half], [-half, 0]), line([-half, 0], [0, 0])], // prettier-ignore
      area,
    },
  ];
}
