/** Holes drilled at places: plain, counterbored, countersunk or for a thread. */
import { StepFailure, type Body } from '../../names/body.ts';
import { nameOf } from '../../names/name.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { PlaceFound } from '../../slots/point/point.ts';
import { points, type PointsChoice } from '../../slots/points/points.ts';
import type { StepData } from '../../slots/slot.ts';
import { dot, minus, opposite, type Vec3 } from '../../space/vector.ts';
import { THREADS, type Fit } from '../../standards/threads.ts';
import { expressionOf } from '../../units/units.ts';
import { markedPlaces } from '../../sketch/lone-points.ts';
import { finish } from '../result/result.ts';
import { declareStep, type Beginning, type Fresh, type Inputs, type Making } from '../step.ts';
import { profileOf, turnedHole, type HoleForm } from './profile.ts';

const FIRST_DIAMETER_MM = 6;
const FORMS = { plain: 'plain', counterbored: 'counterbored', countersunk: 'countersunk', tapped: 'tapped' } as const;
const FITS: Readonly<Record<Fit, string>> = { close: 'close fit', normal: 'normal fit', free: 'free fit' };
const OWN = 'own';
const SIZES: Readonly<Record<string, string>> = {
  [OWN]: 'of diameter',
  ...Object.fromEntries(Object.entries(THREADS).map(([key, size]) => [key, `for ${size.label}`])),
};

const isOwn = (step: StepData) => step.size === OWN;
const isForm =
  (...forms: HoleForm[]) =>
  (step: StepData) =>
    forms.includes((step.form ?? 'plain') as HoleForm);

const slots = {
  places: { of: points() },
  form: { of: choice<HoleForm>(FORMS), otherwise: () => 'plain' as const },
  size: { of: choice(SIZES), says: 'own: diameter is given. Else a thread, whose hole the tables give.' },
  fit: {
    of: choice<Fit>(FITS),
    when: (step: StepData) => !isOwn(step) && !isForm('tapped')(step),
    otherwise: () => 'normal' as const,
  },
  diameter: { of: expression('length'), when: isOwn, otherwise: () => `${FIRST_DIAMETER_MM} mm` },
  head_diameter: {
    of: expression('length'),
    when: (step: StepData) => isOwn(step) && isForm('counterbored', 'countersunk')(step),
    otherwise: (step: StepData) => `2 * (${(step.diameter as string | undefined) ?? `${FIRST_DIAMETER_MM} mm`})`,
    says: 'Of the counterbore, or of the countersink where it is widest.',
  },
  head_depth: {
    of: expression('length'),
    when: (step: StepData) => isOwn(step) && isForm('counterbored')(step),
    otherwise: (step: StepData) => (step.diameter as string | undefined) ?? `${FIRST_DIAMETER_MM} mm`,
  },
  head_angle: {
    of: expression('angle'),
    when: (step: StepData) => isOwn(step) && isForm('countersunk')(step),
    otherwise: () => '90 deg',
  },
  through: { of: flag('to a depth of', 'through all'), otherwise: () => true },
  to_next: {
    of: flag('it meets', 'of the first wall alone'),
    when: (step: StepData) => step.through !== false,
    otherwise: () => false,
    says: 'true: the hole ends where it comes out of what it meets first.',
  },
  depth: {
    of: expression('length'),
    when: (step: StepData) => step.through === false,
    otherwise: () => '10 mm',
    says: 'Of the full diameter, from where the hole begins.',
  },
  pointed: {
    of: flag('with a flat end', 'with a drill point'),
    when: (step: StepData) => step.through === false,
    otherwise: () => true,
    says: 'true: a cone of 118° beyond the depth.',
  },
  flipped: { of: flag('inwards', 'the other way'), otherwise: () => false },
  bodies: { of: bodies(), otherwise: () => 'all' as const },
};
type HoleInputs = Inputs<typeof slots>;

export const hole = declareStep({
  kind: 'hole',
  version: 1,
  label: 'Hole',
  key: 'h',
  says: 'Holes drilled at places, straight into the material: plain, counterbored, countersunk or for a thread.',
  slots,
  first: 'diameter',
  begin(from) {
    const places = placesPicked(from);
    return (
      places && {
        places,
        form: 'plain',
        size: OWN,
        diameter: expressionOf(FIRST_DIAMETER_MM, 'length', from.units),
        through: true,
      }
    );
  },
  sentence: (step) => [
    'Hole at',
    { slot: 'places' },
    'made',
    { slot: 'form' },
    { slot: 'size' },
    ...(isOwn(step) ? [{ slot: 'diameter' }] : [{ slot: 'fit' }]),
    ...(isOwn(step) && isForm('counterbored')(step)
      ? ['with a head of', { slot: 'head_diameter' }, 'deep', { slot: 'head_depth' }]
      : []),
    ...(isOwn(step) && isForm('countersunk')(step)
      ? ['with a head of', { slot: 'head_diameter' }, 'at', { slot: 'head_angle' }]
      : []),
    'going',
    { slot: 'through' },
    ...(step.through === false ? [{ slot: 'depth' }, { slot: 'pointed' }] : [{ slot: 'to_next' }]),
    { slot: 'flipped' },
    'in',
    { slot: 'bodies' },
  ],
  tools: drill,
  make(inputs, context) {
    const fresh = drill(inputs, context);
    const result = finish('cut', inputs.bodies, fresh, context);
    const seen = new Set(result.made.flatMap(({ body }) => body.faceNames.flat()));
    const missed = fresh.filter((f) => !f.faceNames.flat().some((n) => seen.has(n))).length;
    return missed === 0 ? result : { ...result, note: `${missed} of ${fresh.length} holes met no material.` };
  },
});

/** The material each hole takes away. @throws StepFailure */
function drill(inputs: HoleInputs, context: Making): readonly Fresh[] {
  const { places, bodies: targets, flipped } = inputs;
  const holes = places.map((place) => ({ place, way: wayAt(place, flipped) }));
  // Deep enough to leave every body acted on.
  const reach = Math.max(...holes.map(({ place, way }) => reachOf(targets, place.at, way)));
  const profile = profileOf({ ...inputs, depth: inputs.through ? null : inputs.depth! }, reach);
  return holes.map(({ place, way }) => {
    const whole = turnedHole(profile, place, way, context);
    return inputs.through && inputs.to_next ? withinFirst(whole, targets, place.at, way, context) : whole;
  });
}

/** What the hole takes of the first wall it meets; as it is where it meets none. What is given is let go of, or given back. */
function withinFirst(whole: Fresh, targets: readonly Body[], at: Vec3, way: Vec3, { kernel, stepId }: Making): Fresh {
  const pieces = kernel.combine('common', [whole.solid], targets.map((b) => b.solid)); // prettier-ignore
  const far = pieces.map(({ solid }) => dot(minus(kernel.bulk(solid).center, at), way));
  const first = pieces[far.indexOf(Math.min(...far))];
  if (!first) return whole;
  for (const { solid } of [whole, ...pieces.filter((p) => p !== first)]) kernel.free(solid);
  const faceNames = first.faces.map((parents) => {
    const own = parents.flatMap((p) => (p.argument === 0 ? whole.faceNames[p.index]! : []));
    // Where it is bounded by what it drills, nothing of that is left.
    return own.length > 0 ? [...new Set(own)] : [nameOf(stepId, 'end', whole.name.parents)];
  });
  return { ...whole, ...first, faceNames };
}

/** @throws StepFailure where the place does not tell which way is in */
function wayAt({ into }: PlaceFound, flipped: boolean): Vec3 {
  if (!into)
    throw new StepFailure(
      'One of these places does not tell which way to drill; take a point of a sketch, a flat face or a round edge.',
    );
  return flipped ? opposite(into) : into;
}

/** How far along a direction the bodies reach beyond a place. */
function reachOf(targets: readonly Body[], at: Vec3, way: Vec3): number {
  const along = targets.flatMap(({ facts: { box } }) =>
    [box.min[0], box.max[0]].flatMap((x) =>
      [box.min[1], box.max[1]].flatMap((y) => [box.min[2], box.max[2]].map((z) => dot(minus([x, y, z], at), way))),
    ),
  );
  return Math.max(0, ...along) + BEYOND_MM;
}
/** A hole through all ends so far outside, so that no skin is left. */
const BEYOND_MM = 1;

/** Picked places; null when something else, or nothing, is picked. */
function placesPicked({ picks, sketch }: Beginning): readonly PointsChoice[] | null {
  let now: readonly PointsChoice[] | null = null;
  for (const pick of picks) {
    if (pick.kind === 'face' && !pick.flat) return null;
    if (pick.kind === 'edge' && pick.curve !== 'circle') return null;
    if (pick.kind === 'vertex') return null;
    if (
      pick.kind === 'step' &&
      pick.is === 'sketch' &&
      markedPlaces(sketch(pick.step)?.geometry ?? NOTHING).length === 0
    )
      return null;
    now = points().take(now ?? undefined, pick);
    if (!now) return null;
  }
  return now;
}
const NOTHING = { points: {}, curves: {}, constraints: {} };
