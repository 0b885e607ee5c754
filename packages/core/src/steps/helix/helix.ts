/** A line wound about an axis, to sweep along. */
import { StepFailure } from '../../names/body.ts';
import { axis } from '../../slots/axis/axis.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { point } from '../../slots/point/point.ts';
import { cross, dot, minus, unit, type Axis, type Vec3 } from '../../space/vector.ts';
import { refuseNone } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

/** More turns take minutes to sweep along. */
const MOST_TURNS = 200;
const MOST_TAPER = (60 * Math.PI) / 180;

export const helix = declareStep({
  kind: 'helix',
  version: 1,
  label: 'Helix',
  says: 'A line wound about an axis, to sweep along.',
  slots: {
    axis: { of: axis() },
    at: {
      of: point(),
      otherwise: () => ({ origin: true as const }),
      says: 'It begins beside the foot of this on the axis.',
    },
    radius: { of: expression('length') },
    pitch: { of: expression('length'), says: 'How far it rises in a turn.' },
    turns: { of: expression('number') },
    taper: { of: expression('angle'), otherwise: () => '0 deg', says: 'By how much it widens as it rises.' },
    left: { of: flag('right-handed', 'left-handed'), otherwise: () => false },
    reversed: { of: flag('forward', 'reversed'), otherwise: () => false, says: 'true: it rises against the axis.' },
  },
  first: 'radius',
  begin({ picks }) {
    const [pick] = picks;
    const about = pick && picks.length === 1 ? axis().take(undefined, pick) : null;
    return about && { axis: about, at: { origin: true }, radius: '10 mm', pitch: '2 mm', turns: '5', taper: '0 deg' };
  },
  sentence: () => [
    'Helix about', { slot: 'axis' }, 'from', { slot: 'at' }, 'with radius', { slot: 'radius' }, 'rising', { slot: 'pitch' }, 'a turn,', { slot: 'turns' }, 'turns, widening by', { slot: 'taper' }, { slot: 'left' }, { slot: 'reversed' },
  ], // prettier-ignore
  make({ axis: about, at, radius, pitch, turns, taper, left, reversed }) {
    refuseNone(radius, 'The radius');
    refuseNone(pitch, 'The rise in a turn');
    refuseNone(turns, 'The number of turns');
    if (turns > MOST_TURNS) throw new StepFailure(`A helix has ${MOST_TURNS} turns at most; give fewer.`);
    if (Math.abs(taper) > MOST_TAPER) throw new StepFailure('A helix widens by 60° at most; give a smaller angle.');
    if (radius + pitch * turns * Math.tan(taper) <= 0)
      throw new StepFailure('The helix narrows to nothing before its end; give fewer turns or a smaller angle.');
    const foot = footOf(about, at.at);
    const up = about.direction;
    const direction: Vec3 = reversed ? [-up[0], -up[1], -up[2]] : up;
    return {
      made: [],
      used: [],
      datum: {
        kind: 'curve',
        helix: { kind: 'helix', axis: { origin: foot, direction }, from: squareTo(direction), radius, pitch, turns, taper, left }, // prettier-ignore
      },
    };
  },
});

function footOf({ origin, direction }: Axis, at: Vec3): Vec3 {
  const along = dot(minus(at, origin), direction);
  return [origin[0] + along * direction[0], origin[1] + along * direction[1], origin[2] + along * direction[2]];
}

/** A direction square to another: the part's x where that is not along it. */
export function squareTo(direction: Vec3): Vec3 {
  const x: Vec3 = Math.abs(direction[0]) < 0.9 ? [1, 0, 0] : [0, 0, 1];
  return cross(unit(cross(direction, x))!, direction);
}
