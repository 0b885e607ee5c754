/** A rib along an open line: from the line on, as far as the body lets it, and of an even thickness. */
import { StepFailure, type Body } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { curvesAsParents, nameOf } from '../../names/name.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { regions } from '../../slots/regions/regions.ts';
import { orderedChain } from '../../sketch/change/chain.ts';
import { ChangeRefused } from '../../sketch/change/ends.ts';
import type { Vec2 } from '../../sketch/regions/primitives.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import { endsOf, type SketchGeometry } from '../../sketch/schema.ts';
import type { MadeSolid } from '../../solid/kernel.ts';
import { expressionOf } from '../../units/units.ts';
import { chainPicked } from '../begin.ts';
import { finish } from '../result/result.ts';
import { refuseNone } from '../rework/rework.ts';
import { declareStep, type Fresh, type Making } from '../step.ts';

const FIRST_THICKNESS_MM = 4;
/** It is drawn out so many times as far as the bodies reach, and then cut off by them. */
const FAR = 3;

export const rib = declareStep({
  kind: 'rib',
  version: 1,
  label: 'Rib',
  says: 'From an open line of a sketch to the body it stands on, of an even thickness, half each side of the sketch.',
  slots: {
    profile: { of: regions(), says: 'A sketch whose straight lines hang together in one open line: regions is chain.' },
    thickness: { of: expression('length') },
    flipped: { of: flag('towards its left', 'towards its right'), otherwise: () => false },
    bodies: { of: bodies(), otherwise: () => 'all' as const },
  },
  first: 'thickness',
  begin(from) {
    const profile = chainPicked(from);
    if (!profile || from.bodies === 0) return null;
    return { profile, thickness: expressionOf(FIRST_THICKNESS_MM, 'length', from.units), flipped: false };
  },
  sentence: () => [
    'Rib from', { slot: 'profile' }, { slot: 'flipped' }, 'with thickness', { slot: 'thickness' }, 'joined to', { slot: 'bodies' },
  ], // prettier-ignore
  make({ profile, thickness, flipped, bodies: targets }, context) {
    refuseNone(thickness, 'The thickness');
    if (!profile.chain) throw new StepFailure('A rib is made from an open line; pick a sketch with one.');
    if (targets.length === 0) throw new StepFailure('There is no body for a rib to stand on yet.');
    const { loop, parents } = sheetOf(profile.chain, profile.of, flipped, FAR * reachOf(targets));
    const { kernel, stepId } = context;
    const made = kernel.extrude(profile.frame, [loop], -thickness / 2, thickness / 2);
    const curves = loop.pieces.map((p) => p.curve);
    const name = (role: string, of: readonly string[]) => nameOf(stepId, role, of);
    const faceNames = made.faces.map((from) =>
      from.map((p) => (p.kind === 'edge' ? name('side', [curves[p.index]!]) : name(p.how, parents))),
    );
    const whole: Fresh = { ...made, name: name(BODY_ROLE, parents), faceNames };
    return finish('join', targets, betweenWalls(whole, targets, parents, context), context);
  },
});

const reachOf = (targets: readonly Body[]): number => {
  const ends = targets.flatMap(({ facts: { box } }) => [...box.min, ...box.max].map(Math.abs));
  return 2 * Math.max(1, ...ends);
};

/** What its sides are called that must be gone when the body has cut it off, in the order they are drawn. */
const BEYOND = ['far_after', 'far', 'far_before'] as const;
/** And all that are not the line itself. */
const OUTER: ReadonlySet<string> = new Set(['before', 'after', ...BEYOND]);

/** The area on one side of the line, which goes straight on at its ends. @throws StepFailure */
function sheetOf(chain: SketchGeometry, of: string, toRight: boolean, far: number) {
  const ids = Object.keys(chain.curves).filter((id) => !chain.curves[id]!.construction);
  if (ids.length === 0) throw new StepFailure(`${of} has no line to make a rib from; draw one.`);
  if (ids.some((id) => chain.curves[id]!.kind !== 'line'))
    throw new StepFailure(`A rib follows straight lines, and ${of} has others; draw it of lines.`);
  try {
    const { links, closed } = orderedChain(chain, ids);
    if (closed) throw new StepFailure(`The line of ${of} is closed; a rib is made from an open one.`);
    const place = (id: string): Vec2 => chain.points[id]!;
    const run = links.map(({ id, forward }) => {
      const [a, b] = endsOf(chain.curves[id]!)!;
      return forward ? [place(a!), place(b!)] : [place(b!), place(a!)];
    }) as [Vec2, Vec2][];
    const line: Vec2[] = [run[0]![0], ...run.map(([, to]) => to)];
    const [first, last] = [line[0]!, line.at(-1)!];
    const across = unit2([last[0] - first[0], last[1] - first[1]]);
    const side: Vec2 = toRight ? [across[1], -across[0]] : [-across[1], across[0]];
    const out = (from: Vec2, way: Vec2, by: number): Vec2 => [from[0] + by * way[0], from[1] + by * way[1]];
    const [start, end] = [out(first, unit2(minus2(first, line[1]!)), far), out(last, unit2(minus2(last, line.at(-2)!)), far)]; // prettier-ignore
    const corners: Vec2[] = [start, ...line, end, out(end, side, 2 * far), out(start, side, 2 * far)];
    const names = ['before', ...links.map((l) => l.id), 'after', ...BEYOND];
    const sheet: SketchGeometry = { points: {}, curves: {}, constraints: {} };
    corners.forEach((p, i) => (sheet.points[`p${i}`] = [...p]));
    corners.forEach((_, i) => (sheet.curves[names[i]!] = { kind: 'line', from: `p${i}`, to: `p${(i + 1) % corners.length}` })); // prettier-ignore
    const found = findRegions(sheet).regions;
    if (found.length !== 1)
      throw new StepFailure(`The ends of the line of ${of} run into its own rib; turn it to the other side, or draw it straighter.`); // prettier-ignore
    return { loop: found[0]!.loops[0]!, parents: curvesAsParents(ids) };
  } catch (error) {
    if (error instanceof ChangeRefused) throw new StepFailure(`${of} makes no rib: ${error.message}`);
    throw error;
  }
}

const minus2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
function unit2([x, y]: Vec2): Vec2 {
  const size = Math.hypot(x, y) || 1;
  return [x / size, y / size];
}

/** Of what the bodies leave, the pieces under the line itself. @throws StepFailure where one is not closed in by them */
function betweenWalls(whole: Fresh, targets: readonly Body[], parents: readonly string[], context: Making): Fresh[] {
  const { kernel, stepId } = context;
  let pieces: MadeSolid[] = [];
  try {
    pieces = kernel.combine('cut', [whole.solid], targets.map((b) => b.solid)); // prettier-ignore
    const named = pieces.map((piece) => ({
      piece,
      // What it was cut by is a face of the body; joined to it, it is gone.
      faceNames: piece.faces.map((from) => {
        const own = from.flatMap((p) => (p.argument === 0 ? whole.faceNames[p.index]! : []));
        return own.length > 0 ? [...new Set(own)] : [nameOf(stepId, 'end', parents)];
      }),
    }));
    const sides = (names: (typeof named)[number]['faceNames']) => names.flat().flatMap((n) => (n.role === 'side' ? n.parents.map(String) : [])); // prettier-ignore
    const beyond: ReadonlySet<string> = new Set(BEYOND);
    const under = named.filter(({ faceNames }) => sides(faceNames).some((s) => !OUTER.has(s)));
    if (under.length === 0) throw new StepFailure('The line lies within the body; draw it outside.');
    if (under.some(({ faceNames }) => sides(faceNames).some((s) => beyond.has(s))))
      throw new StepFailure('The rib does not meet the body all along that way; turn it to the other side, or move its line or its sketch.'); // prettier-ignore
    pieces = pieces.filter((p) => !under.some((u) => u.piece === p));
    return under.map(({ piece, faceNames }) => ({ ...piece, name: whole.name, faceNames }));
  } finally {
    for (const { solid } of pieces) kernel.free(solid);
    kernel.free(whole.solid);
  }
}
