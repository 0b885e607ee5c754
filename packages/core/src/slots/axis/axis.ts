/** A line to turn about or run along: of the part, of a sketch, an edge, or that of a round face. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { curveOfEdge, StepFailure } from '../../names/body.ts';
import { findEdge, refOfEdge } from '../../names/find-edge.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import { stepsIn } from '../../names/name.ts';
import { EdgeRef, FaceRef } from '../../references/references.ts';
import { BUILT_IN } from '../../sketch/schema.ts';
import { DATUM_AXES, toSpace } from '../../space/planes.ts';
import { minus, unit, type Axis, type Vec3 } from '../../space/vector.ts';
import { edgeRewritten } from '../edges/edges.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrFail } from '../found.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';

export const AxisRef = z.union([
  z.strictObject({ datum: z.enum(['x', 'y', 'z']) }).describe('An axis of the part.'),
  z
    .strictObject({ sketch: Id, line: z.string().max(200) })
    .describe('A line of a sketch, from its start to its end; or its x_axis or y_axis.'),
  z.strictObject({ step: Id }).describe('A datum axis that a step sets up.'),
  z.strictObject({ edge: EdgeRef }).describe('A straight edge, or the axis of a round one.'),
  z.strictObject({ face: FaceRef }).describe('The axis of a round face.'),
]);
export type AxisRef = z.infer<typeof AxisRef>;

export function axis(): SlotKind<AxisRef, Axis> {
  return slotKind<AxisRef, Axis>({
    kind: 'axis',
    schema: AxisRef,
    steps(stored) {
      if ('sketch' in stored) return [stored.sketch];
      if ('step' in stored) return [stored.step];
      if ('edge' in stored) return stored.edge.faces.flatMap(stepsIn);
      return 'face' in stored ? stepsIn(stored.face.name) : [];
    },
    rewritten(stored, change) {
      if ('sketch' in stored) return { ...stored, sketch: change.step(stored.sketch) };
      if ('step' in stored) return { step: change.step(stored.step) };
      if ('edge' in stored) return { edge: edgeRewritten(stored.edge, change) };
      return 'face' in stored ? { face: faceRewritten(stored.face, change) } : stored;
    },
    resolve(stored, slot, context) {
      const value = axisOf(stored, slot, context);
      return { value, digest: JSON.stringify(value) };
    },
    label(stored, _, reading) {
      if ('datum' in stored) return { label: `the ${stored.datum} axis` };
      if ('edge' in stored) return { label: 'an edge' };
      if ('step' in stored) return { label: reading.stepName(stored.step) ?? 'a deleted axis' };
      if ('face' in stored) return { label: 'the axis of a face' };
      const line = stored.line === BUILT_IN.xAxis ? 'x axis' : stored.line === BUILT_IN.yAxis ? 'y axis' : 'a line';
      return { label: `${reading.stepName(stored.sketch) ?? 'a deleted sketch'}, ${line}` };
    },
    take(_, pick) {
      if (pick.kind === 'step' && pick.is === 'axis') return { step: pick.step };
      if (pick.kind === 'line') return { sketch: pick.sketch, line: pick.curve };
      if (pick.kind === 'edge' && (pick.curve === 'line' || pick.curve === 'circle')) return { edge: pick.ref };
      return pick.kind === 'face' && pick.round ? { face: pick.ref } : null;
    },
  });
}

function axisOf(stored: AxisRef, slot: string, context: Resolving): Axis {
  if ('datum' in stored) return { origin: [0, 0, 0], direction: DATUM_AXES[stored.datum] };
  if ('step' in stored) return context.datum(stored.step, 'axis').axis;
  if ('sketch' in stored) return axisInSketch(stored.sketch, stored.line, context);
  if ('face' in stored) {
    const { body, face } = foundOrFail(
      findFace(stored.face, context.bodies),
      {
        slot,
        index: 0,
        what: 'The face whose axis is used',
        stored: (f) => ({ face: refOfFace(f.body, f.face, context.bodies) }),
      },
      context,
    );
    const own = body.facts.faces[face]!.axis;
    if (!own) throw new StepFailure('The face whose axis is used is not round any more; pick another axis.');
    return own;
  }
  const { body, edge } = foundOrFail(
    findEdge(stored.edge, context.bodies),
    {
      slot,
      index: 0,
      what: 'The edge used as axis',
      stored: (f) => ({ edge: refOfEdge(f.body, f.edge, context.bodies) }),
    },
    context,
  );
  const curve = curveOfEdge(body, edge, context.kernel);
  if (curve.kind === 'ellipse') return { origin: curve.center, direction: curve.normal };
  const direction = curve.kind === 'line' ? unit(minus(curve.to, curve.from)) : null;
  if (!direction) throw new StepFailure('The edge used as axis is neither straight nor round any more; pick another.');
  return { origin: curve.from, direction };
}

function axisInSketch(sketch: string, line: string, context: Resolving): Axis {
  const { name, outcome } = context.sketch(sketch);
  const { frame, solution } = outcome;
  if (line === BUILT_IN.xAxis) return { origin: frame.origin, direction: frame.x };
  if (line === BUILT_IN.yAxis) return { origin: frame.origin, direction: frame.y };
  const curve = solution.geometry.curves[line];
  if (curve?.kind !== 'line') throw new StepFailure(`The line of ${name} used as axis is gone; pick another axis.`);
  const place = (point: string): Vec3 => toSpace(frame, ...(solution.geometry.points[point] ?? ([0, 0] as const)));
  const [from, to] = [place(curve.from), place(curve.to)];
  const direction = unit(minus(to, from));
  if (!direction) throw new StepFailure(`The line of ${name} used as axis has no length; give it one.`);
  return { origin: from, direction };
}
