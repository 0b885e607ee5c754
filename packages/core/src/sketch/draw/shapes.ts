/** Slots, polygons, splines, lettering, points. */
import { centripetal } from '../curves/spline.ts';
import { letteringProportion } from '../lettering/lettering.ts';
import type { Anchor, Place, SketchPen } from './pen.ts';
import { distanceBetween, leftOf, movedTo, towards, type DrawField, type DrawTool, type Typed } from './tool.ts';

const widthField: DrawField = {
  name: 'width',
  kind: 'length',
  measure: ([a, b], to) => 2 * distanceToSpan(a!.at, b!.at, to),
};
const centresField = (times: number): DrawField => ({
  name: 'centres',
  kind: 'length',
  measure: ([a], to) => times * distanceBetween(a!.at, to),
});

function distanceToSpan(a: Place, b: Place, p: Place): number {
  const size = distanceBetween(a, b) || 1;
  const along = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / size;
  if (along < 0) return distanceBetween(a, p);
  return along > size ? distanceBetween(b, p) : Math.abs(leftOf(a, b, p));
}

/** Two half circles about the ends, joined by tangent lines. */
function slot(pen: SketchPen, a: string, b: string, half: number): void {
  const [p, q] = [pen.at(a), pen.at(b)];
  const size = distanceBetween(p, q) || 1;
  const n: Place = [(-(q[1] - p[1]) / size) * half, ((q[0] - p[0]) / size) * half];
  const beside = ([x, y]: Place, s: number) => pen.point({ at: [x + s * n[0], y + s * n[1]] });
  const [a1, a2, b1, b2] = [beside(p, 1), beside(p, -1), beside(q, 1), beside(q, -1)];
  const [capA, capB] = [pen.arc(a, a1, a2, true), pen.arc(b, b2, b1, true)];
  for (const line of [pen.line(a1, b1), pen.line(a2, b2)])
    for (const cap of [capA, capB]) pen.constrain({ kind: 'tangent', of: [line, cap] });
  pen.constrain({ kind: 'equal', of: [capA, capB] });
}

function nameWidth(pen: SketchPen, typed: Typed): void {
  if (!typed.width) return;
  const arc = Object.keys(pen.sketch.curves).findLast((id) => pen.sketch.curves[id]!.kind === 'arc')!;
  pen.dimension('diameter', [arc], typed.width.expression, 'width');
}

const slotHalf = (clicks: readonly Anchor[], typed: Typed) =>
  Math.max((typed.width?.value ?? 2 * distanceToSpan(clicks[0]!.at, clicks[1]!.at, clicks[2]!.at)) / 2, 1e-3);

function levelCentres(pen: SketchPen, a: string, b: string, { inferred }: Anchor): void {
  if (inferred?.kind === 'horizontal' || inferred?.kind === 'vertical')
    pen.constrain({ kind: inferred.kind, of: [a, b] });
}

export const slotTool: DrawTool = {
  name: 'slot',
  key: 's',
  clicks: 3,
  hints: ['Click the centre of one end', 'Click the centre of the other end', 'Click how wide it is'],
  fields: (n) => (n === 1 ? [centresField(1)] : n === 2 ? [widthField] : []),
  place: (clicks, to, typed) =>
    clicks.length === 1 && typed.centres ? movedTo(to, towards(clicks[0]!.at, to.at, typed.centres.value)) : to,
  draw({ pen, clicks, typed }) {
    const [a, b] = [pen.point(clicks[0]!), pen.point(clicks[1]!)];
    slot(pen, a, b, slotHalf(clicks, typed));
    levelCentres(pen, a, b, clicks[1]!);
    if (typed.centres) pen.dimension('distance', [a, b], typed.centres.expression, 'centres');
    nameWidth(pen, typed);
    return undefined;
  },
};

export const centredSlotTool: DrawTool = {
  name: 'centred slot',
  key: 'S',
  clicks: 3,
  hints: ['Click its middle', 'Click the centre of one end', 'Click how wide it is'],
  fields: (n) => (n === 1 ? [centresField(2)] : n === 2 ? [widthField] : []),
  place: (clicks, to, typed) =>
    clicks.length === 1 && typed.centres ? movedTo(to, towards(clicks[0]!.at, to.at, typed.centres.value / 2)) : to,
  draw({ pen, clicks, typed }) {
    const [m, p] = [clicks[0]!.at, clicks[1]!.at];
    const a = pen.point({ at: [2 * m[0] - p[0], 2 * m[1] - p[1]] });
    const b = pen.point(clicks[1]!);
    slot(pen, a, b, slotHalf(clicks, typed));
    const axis = pen.line(a, b, true);
    pen.constrain({ kind: 'midpoint', of: [clicks[0]!.point ?? pen.point(clicks[0]!), axis] });
    levelCentres(pen, a, b, clicks[1]!);
    if (typed.centres) pen.dimension('distance', [axis], typed.centres.expression, 'centres');
    nameWidth(pen, typed);
    return undefined;
  },
};

/** Along an arc: its middle line is a construction arc; caps run into the inner and outer arcs. */
export const arcSlotTool: DrawTool = {
  name: 'arc slot',
  clicks: 4,
  hints: [
    'Click the centre of the arc',
    'Click the centre of one end',
    'Click the centre of the other end, counter-clockwise',
    'Click how wide it is',
  ],
  fields: (n) => {
    if (n === 1) return [{ name: 'radius', kind: 'length', measure: ([a], to) => distanceBetween(a!.at, to) }];
    return n === 3 ? [{ name: 'width', kind: 'length', measure: (c, to) => 2 * offArc(c, to) }] : [];
  },
  place(clicks, to, typed) {
    const center = clicks[0]!.at;
    if (clicks.length === 1 && typed.radius) return movedTo(to, towards(center, to.at, typed.radius.value));
    return clicks.length === 2 ? { at: towards(center, to.at, distanceBetween(center, clicks[1]!.at)) } : to;
  },
  draw({ pen, clicks, typed }) {
    const c = clicks[0]!.at;
    const radius = distanceBetween(c, clicks[1]!.at);
    const half = Math.min(
      Math.max(typed.width ? typed.width.value / 2 : offArc(clicks, clicks[3]!.at), 1e-3),
      radius * 0.95,
    );
    const end = clicks[2]!.point ? clicks[2]! : { at: towards(c, clicks[2]!.at, radius) };
    const [center, a, b] = [pen.point(clicks[0]!), pen.point(clicks[1]!), pen.point(end)];
    const beside = (p: Place, r: number) => pen.point({ at: towards(c, p, r) });
    const [a1, a2] = [beside(pen.at(a), radius + half), beside(pen.at(a), radius - half)];
    const [b1, b2] = [beside(pen.at(b), radius + half), beside(pen.at(b), radius - half)];
    const middle = pen.arc(center, a, b, true, true);
    const [outer, inner] = [pen.arc(center, a1, b1, true), pen.arc(center, a2, b2, true)];
    const [capA, capB] = [pen.arc(a, a2, a1, true), pen.arc(b, b1, b2, true)];
    for (const cap of [capA, capB])
      for (const arc of [outer, inner]) pen.constrain({ kind: 'tangent', of: [arc, cap] });
    if (typed.radius) pen.dimension('radius', [middle], typed.radius.expression);
    if (typed.width) pen.dimension('diameter', [capB], typed.width.expression, 'width');
    return undefined;
  },
};

function offArc(clicks: readonly Anchor[], to: Place): number {
  return Math.abs(distanceBetween(clicks[0]!.at, to) - distanceBetween(clicks[0]!.at, clicks[1]!.at));
}

const MOST_SIDES = 60;

/** Equal sides with corners on a construction circle; round another one, the sides touch that. */
function polygon(about: 'corners' | 'sides'): DrawTool['draw'] {
  return ({ pen, clicks, typed }) => {
    const sides = Math.min(MOST_SIDES, Math.max(3, Math.round(typed.sides?.value ?? 6)));
    const [c, p] = [clicks[0]!.at, clicks[1]!.at];
    const given = distanceBetween(c, p);
    const outer = about === 'corners' ? given : given / Math.cos(Math.PI / sides);
    const first = Math.atan2(p[1] - c[1], p[0] - c[0]) + (about === 'corners' ? 0 : Math.PI / sides);
    const center = pen.point(clicks[0]!);
    const corners = Array.from({ length: sides }, (_, i) => {
      const angle = first + (2 * Math.PI * i) / sides;
      const at: Place = [c[0] + outer * Math.cos(angle), c[1] + outer * Math.sin(angle)];
      return pen.point(i === 0 && about === 'corners' ? { ...clicks[1]!, at } : { at });
    });
    const lines = corners.map((corner, i) => pen.line(corner, corners[(i + 1) % sides]!));
    const round = pen.circle(center, outer, true);
    for (const corner of corners) pen.constrain({ kind: 'coincident', of: [corner, round] });
    for (const line of lines.slice(1)) pen.constrain({ kind: 'equal', of: [lines[0]!, line] });
    let sized = round;
    if (about === 'sides') {
      sized = pen.circle(center, given, true);
      pen.constrain({ kind: 'tangent', of: [lines.at(-1)!, sized] });
    }
    const { inferred } = clicks[1]!;
    if (about === 'corners' && (inferred?.kind === 'horizontal' || inferred?.kind === 'vertical') && !clicks[1]!.point)
      pen.constrain({ kind: inferred.kind, of: [center, corners[0]!] });
    if (typed.diameter) pen.dimension('diameter', [sized], typed.diameter.expression);
    return undefined;
  };
}

const polygonFields: DrawField[] = [
  { name: 'diameter', kind: 'length', measure: ([a], to) => 2 * distanceBetween(a!.at, to) },
  { name: 'sides', kind: 'count', initial: '6' },
];
const placeRim: NonNullable<DrawTool['place']> = ([a], to, typed) =>
  typed.diameter ? movedTo(to, towards(a!.at, to.at, typed.diameter.value / 2)) : to;

export const polygonTool: DrawTool = {
  name: 'polygon',
  key: 'y',
  clicks: 2,
  hints: ['Click the centre', 'Click a corner; type the number of sides'],
  fields: (n) => (n === 1 ? polygonFields : []),
  place: placeRim,
  draw: polygon('corners'),
};

export const roundPolygonTool: DrawTool = {
  name: 'polygon round a circle',
  clicks: 2,
  hints: ['Click the centre', 'Click the middle of a side; type the number of sides'],
  fields: (n) => (n === 1 ? polygonFields : []),
  place: placeRim,
  draw: polygon('sides'),
};

function spline(fit: 'through' | 'control'): DrawTool['draw'] {
  return ({ pen, clicks }) => {
    if (clicks.length < 2) return undefined;
    const points = clicks.map((c) => pen.point(c));
    const parameters = fit === 'through' ? { parameters: centripetal(clicks.map((c) => c.at)) } : {};
    pen.curve('b', { kind: 'spline', fit, points, ...parameters });
    return undefined;
  };
}

export const splineTool: DrawTool = {
  name: 'spline',
  key: 'b',
  clicks: 'open',
  least: 2,
  hints: ['Click points it passes; Enter ends it'],
  fields: () => [],
  draw: spline('through'),
};

export const controlSplineTool: DrawTool = {
  name: 'spline by control points',
  clicks: 'open',
  least: 2,
  hints: ['Click its control points; Enter ends it'],
  fields: () => [],
  draw: spline('control'),
};

export const textTool: DrawTool = {
  name: 'text',
  key: 't',
  clicks: 2,
  hints: ['Click where the lettering starts', 'Click where it ends; type what it says'],
  fields: (n) =>
    n === 1
      ? [
          { name: 'text', kind: 'text', initial: 'HELB' },
          {
            name: 'capitals',
            kind: 'length',
            measure: ([a], to) => distanceBetween(a!.at, to) / letteringProportion('HELB'),
          },
        ]
      : [],
  place: ([a], to, typed) =>
    typed.capitals
      ? movedTo(to, towards(a!.at, to.at, typed.capitals.value * letteringProportion(typed.text?.expression ?? 'HELB')))
      : to,
  draw({ pen, clicks, typed }) {
    const [from, to] = [pen.point(clicks[0]!), pen.point(clicks[1]!)];
    const text = (typed.text?.expression ?? 'HELB').slice(0, 200) || 'HELB';
    const id = pen.curve('t', { kind: 'text', from, to, text });
    levelCentres(pen, from, to, clicks[1]!);
    if (typed.capitals) pen.dimension('text_height', [id], typed.capitals.expression);
    return undefined;
  },
};

export const pointTool: DrawTool = {
  name: 'point',
  key: 'p',
  clicks: 1,
  hints: ['Click where the point goes'],
  fields: () => [],
  draw({ pen, clicks }) {
    pen.point(clicks[0]!);
    return undefined;
  },
};
