/** Flat faces brought into a plane: pulled up or cut down to it, those beside them going on as they lean. */
import { StepFailure, type Body } from '../../names/body.ts';
import { faces } from '../../slots/faces/faces.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import { flatFace } from '../../slots/regions/face-profile.ts';
import { leaningOf } from '../../slots/regions/leaning.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import { raised } from '../../space/planes.ts';
import { dot, opposite, type Frame } from '../../space/vector.ts';
import { refuseLeaning } from '../offset/beside.ts';
import { heightsTo } from '../offset/leaning-slab.ts';
import { movedFaces } from '../offset/moved.ts';
import type { Target } from '../offset/slab.ts';
import { byBody, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

/** mm within which a face lies in a plane. */
const NEAR = 1e-6;
/** Sine of an angle that is none. */
const SQUARE = 1e-8;

export const replaceFace = declareStep({
  kind: 'replace_face',
  version: 1,
  worksOn: 'faces',
  label: 'Replace face',
  says: 'Flat faces, then a plane or a face: they are brought into it.',
  slots: {
    faces: { of: faces('A face this step brings elsewhere') },
    plane: { of: plane(), says: 'Where they lie afterwards.' },
  },
  begin({ picks }) {
    const last = picks.at(-1);
    const target = picks.length > 1 && last ? plane().take(undefined, last) : null;
    const refs = picks.slice(0, -1).flatMap((p) => (p.kind === 'face' && p.flat ? [p.ref] : []));
    return target && refs.length === picks.length - 1 ? { faces: refs, plane: target } : null;
  },
  sentence: () => ['Replace', { slot: 'faces' }, 'by', { slot: 'plane' }],
  make({ faces: picked, plane: found }, context) {
    const to = frameOf(found);
    return rework(byBody(picked), {}, context, (body, own) => {
      const all = [...new Set(own.map((f) => f.face))];
      refuseLeaning(body, new Set(all), (face) => context.stepName(body.faceNames[face]![0]!.step));
      return movedFaces(body, all.map((face) => [face, targetsOf(body, face, to, context.kernel)] as const), context.kernel); // prettier-ignore
    });
  },
});

/** Down to the plane, or up over it and then down: so the faces beside stay one each. @throws StepFailure */
function targetsOf(body: Body, face: number, to: Frame, kernel: SolidKernel): Target[] {
  const { frame, area, edges } = flatFace(body, face, kernel);
  if (Math.abs(dot(frame.normal, to.normal)) < SQUARE)
    throw new StepFailure('The plane stands square on this face, which can never lie in it; choose another plane.');
  const facing = dot(frame.normal, to.normal) < 0 ? { ...to, x: opposite(to.x), normal: opposite(to.normal) } : to;
  const heights = heightsTo({ frame, loops: area.loops, leaning: leaningOf(body, edges) }, facing);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  if (high - low < NEAR && Math.abs(high) < NEAR)
    throw new StepFailure('This face lies in that plane already; choose another, or take the face away.');
  if (high < -NEAR) return [{ to: facing, adds: false }];
  if (high - low < NEAR) return [{ to: facing, adds: true }];
  return [{ to: raised(frame, high + (high - low) / 8), adds: true }, { to: facing, adds: false }]; // prettier-ignore
}
