/** Steps or bodies repeated in rows, around an axis, along a path, at places, by a table, or over an area. */
import { StepFailure } from '../../names/body.ts';
import { expressionOf } from '../../units/units.ts';
import { axis } from '../../slots/axis/axis.ts';
import { choice } from '../../slots/choice/choice.ts';
import { count } from '../../slots/count/count.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { NO_PROFILE, regions } from '../../slots/regions/regions.ts';
import { path } from '../../slots/path/path.ts';
import { point } from '../../slots/point/point.ts';
import { points } from '../../slots/points/points.ts';
import type { StepData } from '../../slots/slot.ts';
import { text } from '../../slots/text/text.ts';
import { shown, type Member } from '../repeat/members.ts';
import { MOST_MEMBERS } from '../repeat/repeat.ts';
import { repeat, whatPicked, whatSentence, whatSlots } from '../repeat/what.ts';
import { declareStep, type Inputs, type Making } from '../step.ts';
import { centreOfOriginal } from './original.ts';
import { overArea, type FillRows } from './fill.ts';
import { atOffsets, atPlaces, inRows, onPath } from './layouts.ts';

/** Letters; a pasted table of some hundred rows. */
const MOST_TABLE = 8000;
const FIRST_PITCH_MM = 10;
const LAYOUTS = {
  row: 'in a row along',
  grid: 'in rows along',
  round: 'around',
  path: 'along the path',
  places: 'to the places',
  table: 'by the offsets',
  fill: 'over the area',
} as const;
type Layout = keyof typeof LAYOUTS;
const STEPS_OF_LENGTH = { every: 'every', over: 'over' } as const;
const STEPS_OF_ANGLE = { whole: 'all round', every: 'every', over: 'over' } as const;
const STEPS_ON_PATH = { whole: 'evenly over all of it', every: 'every', over: 'over' } as const;
const FILL_ROWS = { square: 'in square rows', staggered: 'in staggered rows' } as const;
const WAYS = { one_way: 'one way', both_ways: 'both ways' } as const;

const laid =
  (...layouts: Layout[]) =>
  (step: StepData) =>
    layouts.includes(step.layout as Layout);
const inRow = laid('row', 'grid', 'round');
const isRound = laid('round');
const isGrid = laid('grid');
const isPath = laid('path');
const isFill = laid('fill');
/** Do the rows run through a place of their own, rather than the original’s centre? */
const hasOwnPlace = (step: StepData) => isFill(step) && step.from !== undefined;
const isCounted = laid('row', 'grid', 'round', 'path');
/** Are the members so far apart, or over so much? */
const hasPitch = (step: StepData) =>
  laid('row', 'grid', 'fill')(step) || (isPath(step) && (step.spaced_by ?? 'whole') !== 'whole');

const slots = {
  ...whatSlots,
  layout: { of: choice<Layout>(LAYOUTS) },
  axis: {
    of: axis(),
    when: inRow,
    otherwise: () => ({ datum: 'x' as const }),
    says: 'Along which the row runs, or about which it turns.',
  },
  path: {
    of: path(),
    when: isPath,
    otherwise: () => ({ edges: [] }),
    says: 'The original is carried from its beginning; a path of edges begins at a loose end.',
  },
  count: {
    of: count(MOST_MEMBERS),
    when: isCounted,
    otherwise: () => '3',
    says: 'How many there are in all, the original counted; both ways, on each side.',
  },
  steps_by: {
    of: choice<keyof typeof STEPS_OF_LENGTH>(STEPS_OF_LENGTH),
    when: laid('row', 'grid'),
    otherwise: () => 'every' as const,
    says: 'every: pitch from one to the next. over: pitch from the first to the last.',
  },
  spaced_by: {
    of: choice<keyof typeof STEPS_ON_PATH>(STEPS_ON_PATH),
    when: isPath,
    otherwise: () => 'whole' as const,
    says: 'whole: evenly over the whole path. every: pitch from one to the next. over: pitch from the first to the last.',
  },
  pitch: { of: expression('length'), when: hasPitch, otherwise: () => `${FIRST_PITCH_MM} mm` },
  turning: {
    of: flag('facing as the original does', 'turning with the path'),
    when: isPath,
    otherwise: () => true,
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
  way: {
    of: choice<keyof typeof WAYS>(WAYS),
    when: inRow,
    otherwise: () => 'one_way' as const,
  },
  second_axis: { of: axis(), when: isGrid, otherwise: () => ({ datum: 'y' as const }) },
  second_count: { of: count(MOST_MEMBERS), when: isGrid, otherwise: () => '2' },
  second_pitch: {
    of: expression('length'),
    when: isGrid,
    otherwise: (step: StepData) => (step.pitch as string | undefined) ?? `${FIRST_PITCH_MM} mm`,
  },
  places: { of: points(), when: laid('places'), otherwise: () => [], says: 'One goes to each of them.' },
  area: {
    of: regions(),
    when: isFill,
    otherwise: () => NO_PROFILE,
    says: 'A region or a flat face; members go where it has room for them.',
  },
  rows: { of: choice<FillRows>(FILL_ROWS), when: isFill, otherwise: () => 'square' as const },
  margin: {
    of: expression('length'),
    when: isFill,
    otherwise: () => '0 mm',
    says: 'How far the places keep off the outline of the area.',
  },
  from: {
    of: point(),
    when: (step: StepData) => laid('places')(step) || hasOwnPlace(step),
    otherwise: () => ({ origin: true as const }),
    says: 'Where the original is: it goes from here to the places. Over an area its centre stands for it where this is left out.',
  },
  table: {
    of: text(MOST_TABLE),
    when: laid('table'),
    otherwise: () => '10, 0; 20, 0',
    says: 'Offsets from the original along X, Y and Z, mm: two or three numbers a row, rows parted by “;”.',
  },
  left_out: {
    of: text(),
    otherwise: () => 'none',
    says: 'Members left out, by number: "3, 5", in rows "2.3", over an area "-1.2" counted from the original; "none".',
  },
};

export const pattern = declareStep({
  kind: 'pattern',
  version: 2,
  label: 'Pattern',
  key: 'p',
  says: 'Steps or bodies repeated in rows, around an axis, along a path, at places, by a table of offsets, or over an area.',
  slots,
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
    ...(inRow(step) ? [{ slot: 'axis' }] : []),
    ...(isPath(step) ? [{ slot: 'path' }] : []),
    ...(isCounted(step) ? [{ slot: 'count' }, 'times'] : []),
    ...(isRound(step) ? [{ slot: 'turns_by' }, { slot: 'angle' }] : []),
    ...(laid('row', 'grid')(step) ? [{ slot: 'steps_by' }, { slot: 'pitch' }] : []),
    ...(isPath(step) ? [{ slot: 'spaced_by' }, { slot: 'pitch' }, { slot: 'turning' }] : []),
    ...(inRow(step) ? [{ slot: 'way' }] : []),
    ...(laid('places')(step) ? [{ slot: 'places' }, 'from', { slot: 'from' }] : []),
    ...(isFill(step) ? [{ slot: 'area' }, { slot: 'rows' }, 'every', { slot: 'pitch' }, ...(hasOwnPlace(step) ? ['through', { slot: 'from' }] : []), 'keeping off its outline by', { slot: 'margin' }] : []), // prettier-ignore
    ...(laid('table')(step) ? [{ slot: 'table' }, 'mm'] : []),
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
  extras: (step) =>
    isFill(step) && !hasOwnPlace(step)
      ? [{ label: 'rows through a point', slot: 'from', stored: { origin: true } }]
      : [],
  places: (inputs, context) =>
    inputs.what === 'steps'
      ? { steps: inputs.steps!, members: membersOf(inputs, context), adapting: inputs.adapting! }
      : null,
  make: (inputs, context) => repeat(inputs, membersOf(inputs, context), context),
});

type Laid = Inputs<typeof slots>;

/** @throws StepFailure */
function membersOf(laid: Laid, context: Making): Member[] {
  return withoutLeftOut(laidOut(laid, context), laid.left_out);
}

function laidOut(laid: Laid, context: Making): Member[] {
  const { layout } = laid;
  if (layout === 'path')
    return onPath({ path: laid.path!, count: laid.count!, spaced_by: laid.spaced_by!, pitch: laid.pitch, turning: laid.turning! }, context.kernel); // prettier-ignore
  if (layout === 'places') return atPlaces(laid.places!, laid.from!);
  if (layout === 'fill')
    return overArea({ area: laid.area!, from: laid.from?.at ?? centreOfOriginal(laid, context), pitch: laid.pitch!, rows: laid.rows!, margin: laid.margin! }); // prettier-ignore
  if (layout === 'table') return atOffsets(laid.table!);
  return inRows({
    round: layout === 'round',
    axis: laid.axis!,
    count: laid.count!,
    both: laid.way === 'both_ways',
    steps_by: laid.steps_by,
    pitch: laid.pitch,
    turns_by: laid.turns_by,
    angle: laid.angle,
    second:
      layout === 'grid' ? { axis: laid.second_axis!, count: laid.second_count!, pitch: laid.second_pitch! } : null,
  });
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
