/** Areas of a sketch wound round a cylinder, raised from it or sunk into it: lettering, scales, marks. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { FoundFace } from '../../names/find-face.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { Area, Profile } from '../../slots/regions/profile.ts';
import { regions } from '../../slots/regions/regions.ts';
import { pieceReversed, placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import { pieceArea } from '../../sketch/regions/piece.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import type { Wrapping } from '../../solid/woven.ts';
import { toSpace } from '../../space/planes.ts';
import { cross, dot, minus, opposite, type Frame } from '../../space/vector.ts';
import { expressionOf } from '../../units/units.ts';
import { finish } from '../result/result.ts';
import { sweep } from '../result/sweep.ts';
import { inMm, refuseNone } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

const FIRST_HEIGHT_MM = 0.5;
/** Cosine of an angle that is square. */
const SQUARE = 1e-6;
/** By this share of the radius, or as far as it is raised, it reaches through the face, so that nothing coincides. */
const THROUGH = 1e-3;
/** By this share the volume may differ from that of the whole area. */
const SLACK = 1e-5;

export const emboss = declareStep({
  kind: 'emboss',
  version: 1,
  label: 'Emboss',
  says: 'A round face, on which what was drawn last is wound, or a sketch picked with it; raised or sunk in.',
  slots: {
    profile: { of: regions(), says: 'Drawn on a plane along the axis; where that is nearest to the axis it touches.' },
    face: { of: faces('The round face this goes on') },
    height: { of: expression('length') },
    sunk: { of: flag('raised', 'sunk in'), otherwise: () => false },
  },
  first: 'height',
  begin({ picks, units, unused }) {
    const round = picks.flatMap((p) => (p.kind === 'face' && p.round ? [p.ref] : []));
    // One letter stands for all that is drawn with it; without one it is what was drawn last.
    const drawn = picks.flatMap((p) => (p.kind === 'region' || p.kind === 'line' ? [p.sketch] : p.kind === 'step' && p.is === 'sketch' ? [p.step] : [])); // prettier-ignore
    const sketch = drawn[0] ?? unused.at(-1);
    if (sketch === undefined || new Set(drawn).size > 1 || round.length !== 1 || drawn.length + 1 < picks.length) return null; // prettier-ignore
    return { profile: { sketch, regions: 'all' }, face: round, height: expressionOf(FIRST_HEIGHT_MM, 'length', units), sunk: false }; // prettier-ignore
  },
  sentence: () => ['Emboss', { slot: 'profile' }, 'on', { slot: 'face' }, { slot: 'sunk' }, 'by', { slot: 'height' }],
  make({ profile, face, height, sunk = false }, context) {
    refuseNone(height, 'The height');
    const [found, ...more] = face;
    if (!found || more.length > 0)
      throw new StepFailure('Lettering and outlines go on one round face; pick one alone.');
    const { on, mirrored } = wrappingOn(found, profile, height, sunk);
    const areas = mirrored ? profile.areas.map(turnedOver) : profile.areas;
    refuseTooWide(areas, profile.frame, on);
    const { kernel, stepId } = context;
    const tools = sweep(stepId, areas, false, ({ loops }) => kernel.wrapped(profile.frame, loops, on));
    const { body } = found;
    const result = finish(sunk ? 'cut' : 'join', [body], tools, context);
    const flat = areas.flatMap((a) => a.loops.flatMap((l) => l.pieces)).reduce((sum, p) => sum + pieceArea(p), 0);
    const wanted = (Math.abs(flat) / on.radius) * (Math.abs(on.to ** 2 - on.radius ** 2) / 2);
    const change = Math.abs(result.made.reduce((sum, m) => sum + m.body.facts.volume, 0) - body.facts.volume);
    return Math.abs(change - wanted) <= SLACK * wanted ? result : { ...result, note: BESIDE };
  },
});

const BESIDE = 'Part of this lies beside the face, or where something else is: look whether it is as you want it.';

/** @throws StepFailure where the area does not lie along the cylinder, or is higher than it is thick */
function wrappingOn({ body, face }: FoundFace<Body>, { frame }: Profile, height: number, sunk: boolean) {
  const { axis, radius, hollow } = body.facts.faces[face]!;
  if (!axis || radius === null) throw new StepFailure('This goes on a cylinder, and the face is none; on a flat face, extrude it.'); // prettier-ignore
  if (Math.abs(dot(axis.direction, frame.normal)) > SQUARE)
    throw new StepFailure('What goes on a round face is drawn on a plane along its axis, as one that touches it; draw it on such a plane.'); // prettier-ignore
  const behind = dot(minus(frame.origin, axis.origin), frame.normal) < 0;
  const out = behind ? opposite(frame.normal) : frame.normal;
  const outwards = sunk === (hollow ?? false);
  if (!outwards && height >= radius)
    throw new StepFailure(`The face has a radius of ${inMm(radius)}, and this would go to its axis; give a smaller height.`); // prettier-ignore
  const through = Math.min(height, THROUGH * radius);
  const on: Wrapping = {
    frame: { origin: axis.origin, x: out, y: cross(axis.direction, out), normal: axis.direction },
    radius,
    from: outwards ? radius - through : radius + through,
    to: outwards ? radius + height : radius - height,
  };
  return { on, mirrored: behind };
}

/** Seen from its other side: so that it still lies on the left of its outline. */
const turnedOver = (area: Area): Area => ({
  ...area,
  loops: area.loops.map((l) => ({ ...l, pieces: [...l.pieces].reverse().map(pieceReversed) })),
});

/** Places looked at on each piece. */
const LOOKED_AT = 8;

/** @throws StepFailure where it would meet itself behind the cylinder */
function refuseTooWide(areas: readonly Area[], flat: Frame, { frame, radius }: Wrapping): void {
  const wide = areas.flatMap((a) =>
    a.loops[0]!.pieces.flatMap(
      (p) =>
      Array.from({ length: LOOKED_AT }, (_, i) => dot(minus(toSpace(flat, ...placeOnPiece(p, i / LOOKED_AT)), frame.origin), frame.y)), // prettier-ignore
    ),
  );
  const width = Math.max(...wide) - Math.min(...wide);
  if (width >= TAU * radius)
    throw new StepFailure(`This is ${inMm(width)} wide, and once round the face are ${inMm(TAU * radius)}; make it narrower.`); // prettier-ignore
}
