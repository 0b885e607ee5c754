/** Areas of a sketch wound round a cylinder or a cone, raised from it or sunk into it: lettering, scales, marks. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { FoundFace } from '../../names/find-face.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { Area, Profile } from '../../slots/regions/profile.ts';
import { regions } from '../../slots/regions/regions.ts';
import { pieceReversed, placeOnPiece } from '../../sketch/regions/piece-parts.ts';
import { pieceArea, type LoopPiece } from '../../sketch/regions/piece.ts';
import { TAU } from '../../sketch/regions/primitives.ts';
import type { Cone } from '../../solid/kernel.ts';
import { unrolled, type Winding } from '../../solid/winding.ts';
import { toSpace } from '../../space/planes.ts';
import { cross, dot, minus, opposite, type Axis, type Frame, type Vec3 } from '../../space/vector.ts';
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
  says: 'A round or conical face, on which what was drawn last is wound, or a sketch picked with it; raised or sunk in.',
  slots: {
    profile: {
      of: regions(),
      says: 'Drawn on a plane along a cylinder’s axis, or on one that lies as a plane touching a cone does; wound from where that touches, it keeps its size.',
    },
    face: { of: faces('The round face this goes on') },
    height: { of: expression('length') },
    sunk: { of: flag('raised', 'sunk in'), otherwise: () => false },
  },
  first: 'height',
  begin({ picks, units, unused }) {
    const round = picks.flatMap((p) => (p.kind === 'face' && (p.round || p.cone) ? [p.ref] : []));
    // One letter stands for all that is drawn with it; without one it is what was drawn last.
    const drawn = picks.flatMap((p) => (p.kind === 'region' || p.kind === 'line' ? [p.sketch] : p.kind === 'step' && p.is === 'sketch' ? [p.step] : [])); // prettier-ignore
    const sketch = drawn[0] ?? unused.at(-1);
    if (sketch === undefined || new Set(drawn).size > 1 || round.length !== 1 || drawn.length + 1 < picks.length) return null; // prettier-ignore
    return { profile: { sketch, regions: 'holed' }, face: round, height: expressionOf(FIRST_HEIGHT_MM, 'length', units), sunk: false }; // prettier-ignore
  },
  sentence: () => ['Emboss', { slot: 'profile' }, 'on', { slot: 'face' }, { slot: 'sunk' }, 'by', { slot: 'height' }],
  make({ profile, face, height, sunk = false }, context) {
    refuseNone(height, 'The height');
    const [found, ...more] = face;
    if (!found || more.length > 0)
      throw new StepFailure('Lettering and outlines go on one round face; pick one alone.');
    const { on, mirrored } = windingOn(found, profile, height, sunk);
    const areas = mirrored ? profile.areas.map(turnedOver) : profile.areas;
    const drawn = areas.flatMap((a) => a.loops.flatMap((l) => l.pieces));
    refuseUnfit(areas, profile.frame, on);
    const { kernel, stepId } = context;
    const tools = sweep(stepId, areas, false, ({ loops }) => kernel.wound(profile.frame, loops, on));
    const { body } = found;
    const result = finish(sunk ? 'cut' : 'join', [body], tools, context);
    const flat = Math.abs(drawn.reduce((sum, p) => sum + pieceArea(p), 0));
    // Farther out the same area is wider, by how far out over the radius of curvature.
    const wanted = Math.abs(on.to) * flat + Math.sign(on.to) * (on.to ** 2 / 2) * areaByCurving(drawn, flat, profile.frame, on); // prettier-ignore
    const change = Math.abs(result.made.reduce((sum, m) => sum + m.body.facts.volume, 0) - body.facts.volume);
    return Math.abs(change - wanted) <= SLACK * wanted ? result : { ...result, note: BESIDE };
  },
});

const BESIDE = 'Part of this lies beside the face, or where something else is: look whether it is as you want it.';

/** @throws StepFailure where the face is neither, or the area does not lie along it */
function windingOn({ body, face }: FoundFace<Body>, { frame }: Profile, height: number, sunk: boolean) {
  const { axis, radius, hollow, cone, center } = body.facts.faces[face]!;
  const laid = cone ? laidOnCone(cone, frame) : axis && radius !== null ? laidOnCylinder(axis, radius, frame) : null;
  if (!laid) throw new StepFailure('This goes on a cylinder or a cone, and the face is neither; on a flat face, extrude it.'); // prettier-ignore
  const outwards = sunk === (cone?.hollow ?? hollow ?? false);
  const reach = cone ? Math.hypot(...minus(center, cone.tip)) * Math.tan(cone.halfAngle) : radius!;
  const through = Math.min(height, THROUGH * reach);
  return { on: { ...laid.on, from: outwards ? -through : through, to: outwards ? height : -height }, mirrored: laid.mirrored }; // prettier-ignore
}

interface Laid {
  readonly on: Pick<Winding, 'frame' | 'round'>;
  /** The area is seen from within. */
  readonly mirrored: boolean;
}

/** @throws StepFailure */
function laidOnCylinder(axis: Axis, radius: number, frame: Frame): Laid {
  if (Math.abs(dot(axis.direction, frame.normal)) > SQUARE)
    throw new StepFailure('What goes on a round face is drawn on a plane along its axis, as one that touches it; draw it on such a plane.'); // prettier-ignore
  const mirrored = dot(minus(frame.origin, axis.origin), frame.normal) < 0;
  const out = mirrored ? opposite(frame.normal) : frame.normal;
  return { on: { frame: about(axis.origin, axis.direction, out), round: { radius } }, mirrored };
}

/** @throws StepFailure */
function laidOnCone({ tip, direction, halfAngle }: Cone, { normal }: Frame): Laid {
  const leans = dot(normal, direction);
  if (Math.abs(Math.abs(leans) - Math.sin(halfAngle)) > SQUARE)
    throw new StepFailure('What goes on a cone is drawn on a plane that touches it; make one: Datum plane, touching the cone.'); // prettier-ignore
  const mirrored = leans > 0;
  const [out, sine, cosine] = [mirrored ? opposite(normal) : normal, Math.sin(halfAngle), Math.cos(halfAngle)];
  const square = out.map((o, k) => (o + sine * direction[k]!) / cosine) as unknown as Vec3;
  return { on: { frame: about(tip, direction, square), round: { halfAngle } }, mirrored };
}

const about = (origin: Vec3, axis: Vec3, out: Vec3): Frame => ({ origin, x: out, y: cross(axis, out), normal: axis });

/** Seen from its other side: so that it still lies on the left of its outline. */
const turnedOver = (area: Area): Area => ({
  ...area,
  loops: area.loops.map((l) => ({ ...l, pieces: [...l.pieces].reverse().map(pieceReversed) })),
});

/** Places looked at on each piece. */
const LOOKED_AT = 8;

/** @throws StepFailure where it would meet itself behind the face, or go to its axis */
function refuseUnfit(areas: readonly Area[], flat: Frame, on: Winding): void {
  const places = areas.flatMap((a) => a.loops[0]!.pieces.flatMap((p) => Array.from({ length: LOOKED_AT }, (_, i) => unrolled(on, toSpace(flat, ...placeOnPiece(p, i / LOOKED_AT)))))); // prettier-ignore
  const [angles, along] = [places.map(([angle]) => angle), places.map(([, high]) => high)];
  const wide = Math.max(...angles) - Math.min(...angles);
  const low = Math.min(...along);
  if ('halfAngle' in on.round && (wide >= TAU || low <= Math.max(0, -on.to, -on.from) / Math.tan(on.round.halfAngle)))
    throw new StepFailure(wide >= TAU ? 'This goes more than once round the cone where it lies; make it narrower, or draw it farther from the tip.' : `This comes as near to the cone’s tip as ${inMm(low)}, too near for its height; draw it farther away.`); // prettier-ignore
  if (!('radius' in on.round)) return;
  const { radius } = on.round;
  if (-on.to >= radius)
    throw new StepFailure(`The face has a radius of ${inMm(radius)}, and this would go to its axis; give a smaller height.`); // prettier-ignore
  if (wide >= TAU)
    throw new StepFailure(`This is ${inMm(wide * radius)} wide, and once round the face are ${inMm(TAU * radius)}; make it narrower.`); // prettier-ignore
}

/** Of each piece so many parts are added up; even, for Simpson's rule. */
const PARTS = 64;

/** The area, each bit of it over the radius of curvature where it lies, mm. */
function areaByCurving(pieces: readonly LoopPiece[], area: number, flat: Frame, on: Winding): number {
  if ('radius' in on.round) return area / on.round.radius;
  const { halfAngle } = on.round;
  // With distance and direction from the tip as coordinates the area divided by the distance is that of the outline.
  const ofPiece = (piece: LoopPiece): number => {
    const at = Array.from({ length: PARTS + 1 }, (_, i) => unrolled(on, toSpace(flat, ...placeOnPiece(piece, i / PARTS)))); // prettier-ignore
    let sum = 0;
    for (let i = 0; i < PARTS; i += 2) {
      const [[a, l], [b, m], [c, n]] = [at[i]!, at[i + 1]!, at[i + 2]!];
      // Of the parabola through three places.
      sum += (l * (-3 * a + 4 * b - c) + 4 * m * (c - a) + n * (a - 4 * b + 3 * c)) / 6;
    }
    return sum;
  };
  return (Math.abs(pieces.reduce((sum, p) => sum + ofPiece(p), 0)) * Math.sin(halfAngle)) / Math.tan(halfAngle);
}
