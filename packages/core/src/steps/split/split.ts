/** Bodies cut apart along a plane, a face, or a line of a sketch. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import { faces } from '../../slots/faces/faces.ts';
import { path } from '../../slots/path/path.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import type { StepData } from '../../slots/slot.ts';
import type { Cutter } from '../../solid/kernel.ts';
import { ontoFrame } from '../../space/planes.ts';
import { bodiesPicked } from '../begin.ts';
import { declareStep, type Inputs, type MadeBody } from '../step.ts';

const KEPT = {
  both: 'keeping both sides',
  front: 'keeping what lies before it',
  back: 'keeping what lies behind it',
} as const;

const BY = { plane: 'the plane', face: 'the face', line: 'the line' } as const;
type By = keyof typeof BY;
const by = (way: By) => (step: StepData) => (step.by ?? 'plane') === way;

const NOTHING: Readonly<Record<By, string>> = {
  plane: 'The plane passes by these bodies and cuts nothing apart; choose another plane.',
  face: 'The face does not cut these bodies all through; choose another, or a larger one.',
  line: 'The line does not cut these bodies all through; draw it on beyond them.',
};

const slots = {
  bodies: { of: bodies() },
  by: { of: choice<By>(BY), otherwise: () => 'plane' as const },
  plane: { of: plane(), when: by('plane'), otherwise: () => ({ datum: 'side' as const }) },
  face: {
    of: faces('The face this cuts along'),
    when: by('face'),
    otherwise: () => [],
    says: 'One face; a cylinder or sphere is taken whole, a plane endless.',
  },
  line: { of: path(), when: by('line'), otherwise: () => ({ edges: [] }), says: 'A sketch whose line crosses them.' },
  kept: {
    of: choice<keyof typeof KEPT>(KEPT),
    when: by('plane'),
    otherwise: () => 'both' as const,
    says: 'front: the side its normal looks to.',
  },
};

export const split = declareStep({
  kind: 'split',
  version: 2,
  label: 'Split',
  says: 'Bodies cut apart along a plane, a face, or a line of a sketch pushed through.',
  slots,
  begin(from) {
    const picked = bodiesPicked(from);
    return picked && { bodies: picked, plane: { datum: 'side' }, kept: 'both' };
  },
  sentence: (step) => {
    const way = (step.by ?? 'plane') as By;
    return ['Split', { slot: 'bodies' }, 'along', { slot: 'by' }, { slot: way }, ...(way === 'plane' ? [{ slot: 'kept' }] : [])]; // prettier-ignore
  },
  make(inputs, context) {
    const { bodies: all, kept = 'both' } = inputs;
    const cutter = cutterOf(inputs);
    const pieces = context.kernel.split(
      all.map((b) => b.solid),
      cutter,
    );
    const waiting = new Set(pieces.map((p) => p.solid));
    try {
      const made: MadeBody[] = [];
      const whole = new Set<Body>();
      for (const { solid, faces } of pieces) {
        const from = all[Math.min(...faces.flatMap((parents) => parents.map((p) => p.argument)))]!;
        if (pieces.filter((p) => p.faces.some((f) => f.some((q) => all[q.argument] === from))).length === 1)
          whole.add(from);
        if (kept !== 'both' && cutter.kind === 'plane') {
          const front = ontoFrame(cutter.frame, context.kernel.bulk(solid).center)[2] > 0;
          if (front !== (kept === 'front')) continue;
        }
        waiting.delete(solid);
        const names = faces.map((parents) => {
          const own = parents.flatMap((p) => (p.argument < all.length ? all[p.argument]!.faceNames[p.index]! : []));
          if (own.length > 0) return [...new Set(own)];
          const [cut] = parents;
          const line = cutter.kind === 'sheet' && cut ? [cutter.pieces[cut.index]!.curve] : [];
          return [nameOf(context.stepId, cut?.turned ? 'cut_behind' : 'cut', [from.name, ...line])];
        });
        made.push({ body: context.body(from.name, solid, names), from });
      }
      if (whole.size === all.length && made.length > 0) throw new StepFailure(NOTHING[inputs.by]);
      if (made.length === 0) throw new StepFailure('Nothing lies on the side that is kept; keep the other, or both.');
      return { made, used: all };
    } finally {
      for (const solid of waiting) context.kernel.free(solid);
    }
  },
});

/** @throws StepFailure */
function cutterOf({ by: way, plane: along, face, line }: Inputs<typeof slots>): Cutter {
  if (way === 'plane') return { kind: 'plane', frame: frameOf(along!) };
  if (way === 'face') {
    const [found, ...more] = face!;
    if (!found || more.length > 0) throw new StepFailure(found ? 'One face at a time cuts them; pick one alone.' : 'No face is chosen yet to cut along; pick one.'); // prettier-ignore
    return { kind: 'face', solid: found.body.solid, face: found.face, outward: 0 };
  }
  const pieces = line!.pieces.flatMap((p) => (p.kind === 'curve' ? [p] : []));
  if (pieces.length < line!.pieces.length)
    throw new StepFailure('Only a line of a sketch can be pushed through; choose a sketch.');
  return { kind: 'sheet', frame: pieces[0]!.frame, pieces: pieces.map((p) => p.piece) };
}
