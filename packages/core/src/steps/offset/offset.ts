/** Faces moved along their normals: flat ones pushed or pulled, bores made wider or narrower. */
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import { expressionOf } from '../../units/units.ts';
import { facesPicked } from '../begin.ts';
import { byBody, refuseNone, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';
import { refuseLeaning } from './beside.ts';
import { movedFaces } from './moved.ts';

const FIRST_DISTANCE_MM = 1;

export const offset = declareStep({
  kind: 'offset',
  version: 2,
  worksOn: 'faces',
  label: 'Offset',
  says: 'Faces moved along their normals: flat ones pushed or pulled, bores and bosses made wider or narrower; those beside a flat one go on as they lean.',
  slots: {
    faces: { of: faces('A face this step moves') },
    distance: { of: expression('length') },
    inward: {
      of: flag('adding material', 'taking material away'),
      otherwise: () => false,
      says: 'true: material is taken away, so that a bore grows and a boss shrinks.',
    },
  },
  first: 'distance',
  begin(from) {
    const picked = facesPicked(from);
    if (!picked || !from.picks.every((p) => p.kind === 'face' && (p.flat || p.round))) return null;
    return { faces: picked, distance: expressionOf(FIRST_DISTANCE_MM, 'length', from.units), inward: false };
  },
  sentence: () => ['Offset', { slot: 'faces' }, 'by', { slot: 'distance' }, { slot: 'inward' }],
  make({ faces: picked, distance, inward }, context) {
    refuseNone(distance, 'The distance');
    return rework(byBody(picked), {}, context, (body, own) => {
      const moved = [...new Set(own.map((f) => f.face))];
      refuseLeaning(body, new Set(moved), (face) => context.stepName(body.faceNames[face]![0]!.step));
      const by = inward ? -distance : distance;
      return movedFaces(body, moved.map((face) => [face, [{ by }]] as const), context.kernel); // prettier-ignore
    });
  },
});
