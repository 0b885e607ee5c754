/** A frame of one's own: a plane with its origin at a place and its x in a direction, to sketch on, to place by and to measure from. */
import { StepFailure } from '../../names/body.ts';
import { choice, holds } from '../../slots/choice/choice.ts';
import { direction } from '../../slots/direction/direction.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import { frameOf, plane } from '../../slots/plane/plane.ts';
import { point } from '../../slots/point/point.ts';
import { cross, dot, opposite, unit, type Vec3 } from '../../space/vector.ts';
import { declareStep } from '../step.ts';

const WAYS = { level: 'as the plane has it', along: 'along' } as const;
const isAlong = holds('x', 'along');

export const datumFrame = declareStep({
  kind: 'datum_frame',
  version: 1,
  label: 'Frame',
  verb: 'Datum frame',
  says: 'A frame of one’s own: its origin at a point, its z as a plane looks, its x where one says; to sketch on, to join and to measure from.',
  slots: {
    point: { of: point(), otherwise: () => ({ origin: true as const }) },
    plane: { of: plane(), otherwise: () => ({ datum: 'floor' as const }) },
    x: { of: choice<keyof typeof WAYS>(WAYS), otherwise: () => 'level' as const },
    direction: {
      of: direction(),
      when: isAlong,
      otherwise: () => ({ datum: 'x' as const }),
      says: 'Dropped onto the plane.',
    },
    turn: { of: expression('angle'), otherwise: () => '0 deg', says: 'About its z, x towards y.' },
    flipped: {
      of: flag('does', 'turned about'),
      otherwise: () => false,
      says: 'true: its z is turned about.',
    },
  },
  first: 'turn',
  begin({ picks }) {
    const places = picks.flatMap((p) => (p.kind === 'vertex' || p.kind === 'sketch_point' ? (point().take(undefined, p) ?? []) : [])); // prettier-ignore
    const planes = picks.flatMap((p) => plane().take(undefined, p) ?? []);
    const ways = picks.flatMap((p) => (p.kind === 'edge' || p.kind === 'line' ? (direction().take(undefined, p) ?? []) : [])); // prettier-ignore
    if (places.length !== 1 || planes.length > 1 || ways.length > 1) return null;
    if (1 + planes.length + ways.length !== picks.length) return null;
    const along = ways.length === 1 ? { x: 'along', direction: ways[0] } : { x: 'level' };
    return { point: places[0], plane: planes[0] ?? { datum: 'floor' }, ...along, turn: '0 deg' };
  },
  sentence: (step) => [
    'Frame at',
    { slot: 'point' },
    'looking as',
    { slot: 'plane' },
    { slot: 'flipped' },
    'with its x',
    { slot: 'x' },
    ...(isAlong(step) ? [{ slot: 'direction' }] : []),
    'turned by',
    { slot: 'turn' },
  ],
  make(inputs) {
    const base = frameOf(inputs.plane);
    const normal = inputs.flipped ? opposite(base.normal) : base.normal;
    const wanted = inputs.x === 'along' ? inputs.direction! : base.x;
    const off = dot(wanted, normal);
    const x = unit(wanted.map((w, k) => w - off * normal[k]!) as unknown as Vec3);
    if (!x || Math.abs(off) > STRAIGHT)
      throw new StepFailure('This direction stands square on the plane, where x has none; choose another.');
    const y = cross(normal, x);
    const [c, s] = [Math.cos(inputs.turn), Math.sin(inputs.turn)];
    const turned = x.map((w, k) => c * w + s * y[k]!) as unknown as Vec3;
    return { made: [], used: [], datum: { kind: 'plane', frame: { origin: inputs.point.at, x: turned, y: cross(normal, turned), normal } } }; // prettier-ignore
  },
});

/** Cosine of a direction that is square on a plane but for rounding. */
const STRAIGHT = 1 - 1e-9;
