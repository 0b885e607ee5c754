/** Two faces rounded into each other: where they meet, or over what lies between them. */
import { StepFailure, type Body } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf } from '../../names/name.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import type { Loop, LoopPiece } from '../../sketch/regions/loop.ts';
import type { FaceParent, MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { expressionOf } from '../../units/units.ts';
import { finish } from '../result/result.ts';
import { inMm, refuseNone, rework } from '../rework/rework.ts';
import { declareStep, type Fresh, type Making, type StepResult } from '../step.ts';
import { cornerOf, type Corner } from './corner.ts';

const FIRST_RADIUS_MM = 3;

export const faceFillet = declareStep({
  kind: 'face_fillet',
  version: 1,
  worksOn: 'one',
  label: 'Face fillet',
  says: 'Two faces rounded into each other, along their edges or over a face that lies between.',
  slots: {
    one: { of: faces('A face this step rounds from') },
    other: { of: faces('A face this step rounds to') },
    radius: { of: expression('length') },
  },
  first: 'radius',
  begin({ picks, units }) {
    const refs = picks.flatMap((p) => (p.kind === 'face' ? [p.ref] : []));
    if (refs.length !== 2 || picks.length !== 2) return null;
    return { one: [refs[0]], other: [refs[1]], radius: expressionOf(FIRST_RADIUS_MM, 'length', units) };
  },
  sentence: () => ['Fillet between', { slot: 'one' }, 'and', { slot: 'other' }, 'with radius', { slot: 'radius' }],
  make({ one, other, radius }, context) {
    refuseNone(radius, 'The radius');
    const all = [...one, ...other];
    const [first] = all;
    if (one.length === 0 || other.length === 0)
      throw new StepFailure('A fillet between faces needs a face on either side; pick both.');
    const { body } = first!;
    if (all.some((f) => f.body !== body))
      throw new StepFailure('These faces are of different bodies; join those first, or pick two of one body.');
    const meet = body.facts.edges.flatMap((edge, i) => {
      const has = (side: typeof one) => side.some((f) => edge.faces.includes(f.face));
      return has(one) && has(other) && new Set(edge.faces).size > 1 ? [i] : [];
    });
    const rounded = meet.map((edge) => ({ edge, from: radius, to: radius }));
    if (meet.length > 0)
      return rework(new Map([[body, rounded]]), { edge: 'round', vertex: 'corner' }, context, (now, own) =>
        context.kernel.fillet(now.solid, own),
      );
    if (one.length > 1 || other.length > 1)
      throw new StepFailure('Faces that do not meet are rounded into each other one and one; pick one on either side.');
    return overBetween(body, one[0]!.face, other[0]!.face, radius, context);
  },
});

/**
 * First the corner is made sharp, whatever lies in it, then it is rounded.
 * @throws StepFailure, KernelError
 */
function overBetween(body: Body, one: number, other: number, radius: number, context: Making): StepResult {
  const corner = cornerOf(body, one, other, context.kernel);
  refuseUnfit(corner, radius);
  const { outer, between } = corner;
  const [a, b] = [one, other].map((f) => body.faceNames[f]![0]!);
  const round = nameOf(context.stepId, 'round', [a!, b!]);
  const tool = (loop: Loop): Fresh => {
    const made = solidOf(corner, loop, context.kernel);
    const isArc = (p: FaceParent) => p.kind === 'edge' && loop.pieces[p.index]!.kind === 'arc';
    const faceNames = made.faces.map((parents) => (parents.some(isArc) ? [round] : [nameOf(context.stepId, 'tool')]));
    return { ...made, faceNames, name: nameOf(context.stepId, BODY_ROLE, [a!, b!]) };
  };
  const [wedge, rest] = profilesOf(corner.angle, radius);
  const sharp = finish(outer ? 'join' : 'cut', [body], [tool(wedge)], context);
  const whole = sharp.made.map((m) => m.body);
  const result = finish(outer ? 'cut' : 'join', whole, [tool(rest)], context);
  const gone = new Set(between.map((f) => body.faceNames[f]![0]!.text));
  if (result.made.some((m) => m.body.faceNames.some((names) => names.some((n) => gone.has(n.text)))))
    throw new StepFailure('Something of what lies between these faces would be left standing; pick faces with one even face between them.'); // prettier-ignore
  return { made: result.made.map((m) => ({ ...m, from: body })), used: [body] };
}

const solidOf = ({ frame, axis, length }: Corner, loop: Loop, kernel: SolidKernel): MadeSolid =>
  axis ? kernel.revolve(frame, [loop], axis, 0, 2 * Math.PI) : kernel.extrude(frame, [loop], 0, length);

/** By this share of it a radius may miss what bounds it. */
const SLACK = 1e-9;

/** @throws StepFailure where it does not reach both faces, or goes beyond one */
function refuseUnfit({ angle, reach }: Corner, radius: number): void {
  const half = Math.tan(angle / 2);
  const [least, most] = [Math.max(...reach.map((r) => r.from)) * half, Math.min(...reach.map((r) => r.to)) * half];
  const fails = (says: string, value: number) => new StepFailure(`${says}; ${inMm(value)} does.`, { number: 'radius', kind: 'length', value }); // prettier-ignore
  if (least > most * (1 - SLACK))
    throw new StepFailure('One of these faces ends before a round one from the other could reach it; pick others.');
  if (radius < least * (1 - SLACK))
    throw fails(`A radius of ${inMm(radius)} does not reach over what lies between these faces`, least);
  if (radius > most * (1 + SLACK)) throw fails(`A radius of ${inMm(radius)} is too large for these faces`, most);
}

/** The corner as far as the round goes, and what lies between it and the round: x along the first face, the second at the angle to it. */
function profilesOf(angle: number, radius: number): readonly [wedge: Loop, rest: Loop] {
  const far = radius / Math.tan(angle / 2);
  const first = [far, 0] as const;
  const second = [far * Math.cos(angle), far * Math.sin(angle)] as const;
  const line = (from: readonly [number, number], to: readonly [number, number]) => ({ kind: 'line', curve: 'flat', forward: true, from, to }) as const; // prettier-ignore
  const sweep = angle - Math.PI;
  const arc = { kind: 'arc', curve: 'round', forward: true, from: first, to: second, center: [far, radius], radius, start: -Math.PI / 2, sweep } as const; // prettier-ignore
  const around = (across: LoopPiece): LoopPiece[] => [line([0, 0], first), across, line(second, [0, 0])];
  return [
    { pieces: around(line(first, second)), area: (far * far * Math.sin(angle)) / 2 },
    { pieces: around(arc), area: radius * far + (radius * radius * sweep) / 2 },
  ];
}
