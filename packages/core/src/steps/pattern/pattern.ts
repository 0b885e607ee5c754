/** Steps or bodies repeated in rows or around an axis. */
import { StepFailure } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice } from '../../slots/choice/choice.ts';
import { count } from '../../slots/count/count.ts';
import { expression } from '../../slots/expression/expression.ts';
import type { StepData } from '../../slots/slot.ts';
import { text } from '../../slots/text/text.ts';
import { followedBy, shiftBy, turnAbout, type Transform } from '../../space/transform.ts';
import type { Axis } from '../../space/vector.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import type { Member } from '../repeat/members.ts';
import { MOST_MEMBERS, shown } from '../repeat/repeat.ts';
import { repeat, whatPicked, whatSentence, whatSlots } from '../repeat/what.ts';
import { declareStep } from '../step.ts';

const FIRST_PITCH_MM = 10;
const LAYOUTS = { row: 'in a row along', grid: 'in rows along', round: 'around' } as const;
const STEPS_OF_LENGTH = { every: 'every', over: 'over' } as const;
const STEPS_OF_ANGLE = { whole: 'all round', every: 'every', over: 'over' } as const;
const WAYS = { one_way: 'one way', both_ways: 'both ways' } as const;

const isRound = (step: StepData) => step.layout === 'round';
const isGrid = (step: StepData) => step.layout === 'grid';

export const pattern = declareStep({
  kind: 'pattern',
  version: 1,
  label: 'Pattern',
  key: 'p',
  says: 'Steps or bodies repeated in rows or around an axis.',
  slots: {
    ...whatSlots,
    layout: { of: choice<keyof typeof LAYOUTS>(LAYOUTS) },
    axis: { of: axis(), says: 'Along which the row runs, or about which it turns.' },
    count: {
      of: count(MOST_MEMBERS),
      says: 'How many there are in all, the original counted; both ways, on each side.',
    },
    steps_by: {
      of: choice<keyof typeof STEPS_OF_LENGTH>(STEPS_OF_LENGTH),
      when: (step: StepData) => !isRound(step),
      otherwise: () => 'every' as const,
      says: 'every: pitch from one to the next. over: pitch from the first to the last.',
    },
    pitch: {
      of: expression('length'),
      when: (step: StepData) => !isRound(step),
      otherwise: () => `${FIRST_PITCH_MM} mm`,
    },
    turns_by: {
      of: choice<keyof typeof STEPS_OF_ANGLE>(STEPS_OF_ANGLE),
      when: isRound,
      otherwise: () => 'whole' as const,
      says: 'whole: evenly all round. every: angle from one to the next. over: angle from the first to the last.',
    },
    angle: {
      of: expression('angle'),
      when: (step: StepData) => isRound(step) && (step.turns_by ?? 'whole') !== 'whole',
      otherwise: () => '30 deg',
    },
    way: { of: choice<keyof typeof WAYS>(WAYS), otherwise: () => 'one_way' as const },
    second_axis: { of: axis(), when: isGrid, otherwise: () => ({ datum: 'y' as const }) },
    second_count: { of: count(MOST_MEMBERS), when: isGrid, otherwise: () => '2' },
    second_pitch: {
      of: expression('length'),
      when: isGrid,
      otherwise: (step: StepData) => (step.pitch as string | undefined) ?? `${FIRST_PITCH_MM} mm`,
    },
    left_out: {
      of: text(),
      otherwise: () => 'none',
      says: 'Members left out, by number: "3, 5", in rows "2.3"; "none".',
    },
  },
  first: 'count',
  begin(from) {
    const what = whatPicked(from);
    return (
      what && {
        ...what,
        layout: 'row',
        axis: { datum: 'x' },
        count: '3',
        pitch: expressionOf(FIRST_PITCH_MM, 'length', from.units),
      }
    );
  },
  sentence: (step) => [
    'Pattern',
    ...whatSentence(step),
    { slot: 'layout' },
    { slot: 'axis' },
    { slot: 'count' },
    'times',
    ...(isRound(step) ? [{ slot: 'turns_by' }, { slot: 'angle' }] : [{ slot: 'steps_by' }, { slot: 'pitch' }]),
    { slot: 'way' },
    ...(isGrid(step)
      ? [
          'and along',
          { slot: 'second_axis' },
          { slot: 'second_count' },
          'times',
          { slot: 'steps_by' },
          { slot: 'second_pitch' },
        ]
      : []),
    'leaving out',
    { slot: 'left_out' },
    ...(step.what === 'bodies' ? [{ slot: 'joined' }] : []),
  ],
  make(inputs, context) {
    const { layout, count: n, second_count, way, left_out } = inputs;
    const both = way === 'both_ways';
    const across = layout === 'grid' ? (second_count ?? 1) : 1;
    const places = (both ? 2 * n - 1 : n) * across;
    if (places > MOST_MEMBERS)
      throw new StepFailure(
        `This asks for ${places} members, and ${MOST_MEMBERS} is the most there can be; give smaller counts.`,
      );
    const along = stepsAlong(inputs, n, both);
    const sideways =
      across > 1
        ? rowAlong(inputs.second_axis!, stepOf(inputs.second_pitch!, inputs.steps_by === 'over', across))
        : null;
    const members: Member[] = [];
    for (let j = 0; j < across; j++)
      for (const { at, key } of placesOf(n, both)) {
        if (at === 0 && j === 0) continue;
        const to = sideways ? followedBy(along(at), sideways(j)) : along(at);
        // In a grid both numbers, also where there is one row: names stay when there are more.
        members.push({ key: layout === 'grid' ? `${key}_${j + 1}` : key, to });
      }
    return repeat(inputs, withoutLeftOut(members, left_out), context);
  },
});

/** The members along the first direction; on the far side of the original, their numbers go on. */
function placesOf(n: number, both: boolean): { at: number; key: string }[] {
  const forward = Array.from({ length: n }, (_, at) => ({ at, key: String(at + 1) }));
  return both ? [...forward, ...Array.from({ length: n - 1 }, (_, i) => ({ at: -i - 1, key: `b${i + 2}` }))] : forward;
}

interface Laid {
  readonly layout: keyof typeof LAYOUTS;
  readonly axis: Axis;
  readonly steps_by: 'every' | 'over' | undefined;
  readonly pitch: number | undefined;
  readonly turns_by: 'whole' | 'every' | 'over' | undefined;
  readonly angle: number | undefined;
}

function stepsAlong(laid: Laid, n: number, both: boolean): (at: number) => Transform {
  if (laid.layout !== 'round') return rowAlong(laid.axis, stepOf(laid.pitch!, laid.steps_by === 'over', n));
  if (laid.turns_by === 'whole') {
    if (both) throw new StepFailure('All round there is no other way; give an angle, or turn one way.');
    return (at) => turnAbout(laid.axis, (TAU * at) / n);
  }
  const angle = stepOf(laid.angle!, laid.turns_by === 'over', n);
  if (Math.abs(angle) * (both ? 2 * n - 1 : n) > TAU + 1e-9)
    throw new StepFailure('The members run once round into themselves; give a smaller angle or fewer of them.');
  return (at) => turnAbout(laid.axis, angle * at);
}

/** From one to the next. @throws StepFailure when that is nothing */
function stepOf(given: number, over: boolean, n: number): number {
  const step = over ? given / Math.max(1, n - 1) : given;
  if (n > 1 && Math.abs(step) < 1e-9)
    throw new StepFailure('The members would all lie in one place; give a distance between them.');
  return step;
}

function rowAlong({ direction: [x, y, z] }: Axis, step: number): (at: number) => Transform {
  return (at) => shiftBy([x * step * at, y * step * at, z * step * at]);
}

/** @throws StepFailure when one is named that is not there */
function withoutLeftOut(members: readonly Member[], text: string): Member[] {
  const named = text.trim() === 'none' ? [] : text.split(/[,;\s]+/).filter(Boolean);
  const there = new Set(members.map(shown));
  for (const name of named)
    if (!there.has(name))
      throw new StepFailure(
        `There is no member ${name} to leave out; they are numbered ${[...there].slice(0, 4).join(', ')}, …`,
      );
  return members.filter((m) => !named.includes(shown(m)));
}
