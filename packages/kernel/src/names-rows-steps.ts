/** Rows of the names table: steps of every kind upstream and downstream of what was picked. */
import type { Step } from '@helb/core';
import {
  back, body, both, box, but, circle, cut, down, drawn, edge, extrude, front, inOrder, left, line, none, plate, polygon, redraw, right, round, row, up, without, x,
  type Row, type Steps, type V3,
} from './names-shapes.ts'; // prettier-ignore

const step = (kind: string, more: Partial<Step>): Step => ({ kind, name: kind, ...more }) as Step;
const upright = { faces: ['e:side:l2', 'e:side:l3'], near: [60, 40, 5] };
const topEdge = { faces: ['e:end', 'e:side:l2'], near: [60, 20, 10] };

const rounded = (r = 4, base = plate()): Steps => ({ ...base, f: step('fillet', { edges: [upright], radius: `${r} mm` }) }); // prettier-ignore
const bevelled = (d = 2, base = plate()): Steps => ({ ...base, b: step('chamfer', { edges: [topEdge], distance: `${d} mm` }) }); // prettier-ignore
const tray = (t = 2, base = plate(60, 40, 20)): Steps => ({ ...base, h: step('shell', { open: [{ name: 'e:end' }], thickness: `${t} mm` }) }); // prettier-ignore
const drilled = (n = 4, pitch = 12, base = plate()): Steps => ({
  ...base,
  o: drawn(circle('o', 10, 20, 3)),
  c: cut('o', 30),
  r: step('pattern', { what: 'steps', steps: ['c'], layout: 'row', axis: { datum: 'x' }, count: String(n), pitch: `${pitch} mm` }), // prettier-ignore
});
const ringed = (n = 6): Steps => ({
  s: drawn(circle('a', 0, 0, 30)),
  e: extrude('s', 5),
  o: drawn(circle('o', 20, 0, 3)),
  c: cut('o', 30),
  r: step('pattern', { what: 'steps', steps: ['c'], layout: 'round', axis: { datum: 'z' }, count: String(n) }),
});
const twinned = (bx = 10): Steps => ({
  s: drawn(box('l', -30, -20, 60, 40)),
  e: extrude('s', 10),
  b: drawn(circle('boss', bx, 0, 5), { face: { name: 'e:end' } }),
  j: extrude('b', 6, { result: 'join' }),
  m: step('mirror', { what: 'steps', steps: ['j'], plane: { datum: 'side' } }),
});
const bored = (d = 8, hx = 15): Steps => ({
  ...plate(),
  q: drawn({ points: { m: [hx, 20] }, curves: {} }),
  h: step('hole', { places: [{ sketch: 'q', point: 'm' }], size: 'own', diameter: `${d} mm`, flipped: true }),
});
const sloped = (angle = 10): Steps => ({ ...plate(), d: step('draft', { faces: [{ name: 'e:side:l2' }], angle: `${angle} deg`, neutral: { datum: 'floor' } }) }); // prettier-ignore
const pipe = (r = 4, long = 40): Steps => ({
  w: drawn({ points: { a: [0, 0], b: [0, long], c: [30, long] }, curves: { u: line('a', 'b'), v: line('b', 'c') } }, { datum: 'side' }), // prettier-ignore
  s: drawn(circle('a', 0, 0, r)),
  e: step('sweep', { profile: { sketch: 's', regions: 'all' }, path: { sketch: 'w' }, result: 'new_body' }),
});
const funnel = (h = 20, top = 10): Steps => ({
  s: drawn(box('l', -15, -15, 30, 30)),
  p: step('datum_plane', { way: 'offset', plane: { datum: 'floor' }, distance: `${h} mm` }),
  t: drawn(box('k', -top / 2, -top / 2, top, top), { step: 'p' }),
  e: step('loft', { sections: [{ sketch: 's', regions: 'all' }, { sketch: 't', regions: 'all' }], way: 'ruled', result: 'new_body' }), // prettier-ignore
});
const crossed = (w = 10): Steps => ({
  s: drawn(box('l', -30, -w / 2, 60, w)),
  e: extrude('s', 8),
  t: drawn(box('k', -5, -30, 10, 60)),
  j: extrude('t', 8, { result: 'join' }),
});
const lidded = (h = 4): Steps => ({
  ...plate(),
  t: drawn(box('k', 5, 5, 20, 20), { face: { name: 'e:end' } }),
  n: extrude('t', h),
});
const joined = (h = 4): Steps => ({ ...lidded(h), c: step('combine', { tools: [{ name: 'n' }], way: 'join', bodies: [{ name: 'e' }] }) }); // prettier-ignore
const moved = (by = 15): Steps => ({ ...plate(), m: step('move', { bodies: 'all', way: 'shift', direction: { datum: 'z' }, distance: `${by} mm` }) }); // prettier-ignore
const cutByLine = (at = 30): Steps => ({
  ...plate(),
  k: drawn({ points: { a: [at, -5], b: [at, 45] }, curves: { n: line('a', 'b') } }),
  p: step('split', { bodies: 'all', by: 'line', line: { sketch: 'k' } }),
});
const ribbed = (n = 3): Steps => ({
  ...plate(90, 40),
  k: drawn(box('k', 10, 5, 4, 30), { face: { name: 'e:end' } }),
  j: extrude('k', 12, { result: 'join' }),
  f: step('fillet', { edges: [{ made_by: 'j' }], radius: '0.8 mm' }),
  r: step('pattern', { what: 'steps', steps: ['j'], layout: 'row', axis: { datum: 'x' }, count: String(n), pitch: '20 mm' }), // prettier-ignore
});
const nested = (n = 3, rows = 2): Steps => ({
  ...plate(80, 60),
  o: drawn(circle('o', 10, 10, 2)),
  c: cut('o', 30),
  r: step('pattern', { what: 'steps', steps: ['c'], layout: 'row', axis: { datum: 'x' }, count: String(n), pitch: '10 mm' }), // prettier-ignore
  q: step('pattern', { what: 'steps', steps: ['c', 'r'], layout: 'row', axis: { datum: 'y' }, count: String(rows), pitch: '20 mm' }), // prettier-ignore
});
const pushed = (by = 3): Steps => ({ ...plate(), o: step('offset', { faces: [{ name: 'e:side:l2' }], distance: `${by} mm` }) }); // prettier-ignore
const towers = (h = 12): Steps => ({
  ...plate(60, 40, 5),
  k: drawn(both(box('k', 5, 5, 8, 8), box('m', 40, 5, 8, 8)), { face: { name: 'e:end' } }),
  j: extrude('k', h, { result: 'join' }),
});
const gusset = (y = 30): Steps => ({
  s: drawn(polygon('l', [0, 0], [60, 0], [60, 10], [10, 10], [10, 50], [0, 50]), { datum: 'wall' }),
  e: extrude('s', 40, { way: 'symmetric' }),
  l: drawn({ points: { a: [45, 10], b: [10, y] }, curves: { g: line('a', 'b') } }, { datum: 'wall' }),
  r: step('rib', { profile: { sketch: 'l', regions: 'chain' }, thickness: '6 mm', flipped: false }),
});

const y = (low: number, high: number) => (c: V3) => c[1] > low && c[1] < high;
const at = (px: number, py: number) => (c: V3) => Math.hypot(c[0] - px, c[1] - py) < 1e-3;
const tilted = (f: { normal: V3 | null }) => f.normal !== null && f.normal[0] > 0.3 && Math.abs(f.normal[2]) > 0.01;

export const STEPS_CHANGED: readonly Row[] = [
  // A fillet on an upright edge.
  row('the radius grows: the round', rounded(), rounded(8), round(4), round(8), 'right'),
  row('the radius grows: the face beside', rounded(), rounded(8), right(60), right(60), 'right'),
  row('the plate under the fillet gets thicker', rounded(), rounded(4, plate(60, 40, 25)), round(4), round(4), 'right'),
  row('the plate under it gets wider', rounded(), rounded(4, plate(80)), round(4), round(4), 'right'),
  row('the fillet is suppressed: the face beside', rounded(), but(rounded(), 'f', { suppressed: true }), right(60), right(60), 'right'),
  row('the fillet is suppressed: the round', rounded(), but(rounded(), 'f', { suppressed: true }), round(4), none),
  row('a hole is put before the fillet', rounded(), inOrder({ ...rounded(), o: drawn(circle('o', 20, 20, 5)), c: cut('o', 30) }, 's', 'e', 'o', 'c', 'f'), round(4), round(4), 'right'),
  row('the top when the fillet came after', plate(), rounded(), up(10), up(10), 'right'),
  edge('the radius grows: its upper edge', rounded(), rounded(8), [round(4), up(10)], [round(8), up(10)], 'right'),
  edge('the edge that was rounded', plate(), rounded(), [right(60), back(40)], [none, none]),
  body('a fillet was added', plate(), rounded(), up(10), up(10), 'right'),
  // A chamfer along the top.
  row('the chamfer grows: the bevel', bevelled(), bevelled(4), tilted, tilted, 'right'),
  row('the chamfer grows: the top', bevelled(), bevelled(4), up(10), up(10), 'right'),
  row('the plate under the chamfer gets thicker', bevelled(), bevelled(2, plate(60, 40, 25)), tilted, tilted, 'right'),
  row('the chamfer goes: the top', bevelled(), without(bevelled(), 'b'), up(10), up(10), 'right'),
  edge('the chamfer grows: its lower edge', bevelled(), bevelled(4), [tilted, right(60)], [tilted, right(60)], 'right'),
  // A shelled tray.
  row('the wall gets thicker: the floor within', tray(), tray(5), up(2), up(5), 'right'),
  row('the wall gets thicker: an inner side', tray(), tray(5), left(58), left(55), 'right'),
  row('the wall gets thicker: the rim', tray(), tray(5), up(20), up(20), 'right'),
  row('the tray gets wider: an inner side', tray(), tray(2, plate(90, 40, 20)), left(58), left(88), 'right'),
  row('the tray gets higher: the rim', tray(), tray(2, plate(60, 40, 30)), up(20), up(30), 'right'),
  row('the shell is suppressed: the floor within', tray(), but(tray(), 'h', { suppressed: true }), up(2), none),
  row('the shell is suppressed: the bottom', tray(), but(tray(), 'h', { suppressed: true }), down(0), down(0), 'right'),
  edge('the wall gets thicker: an inner corner', tray(), tray(5), [left(58), front(38)], [left(55), front(35)], 'right'),
  // A row of holes.
  row('more holes: the second', drilled(), drilled(6, 9), round(3, at(22, 20)), round(3, at(19, 20)), 'right'),
  row('fewer holes: the second', drilled(), drilled(2), round(3, at(22, 20)), round(3, at(22, 20)), 'right'),
  row('fewer holes: the last', drilled(), drilled(2), round(3, at(46, 20)), none),
  row('one hole: the first', drilled(), drilled(1), round(3, at(10, 20)), round(3, at(10, 20)), 'right'),
  row('one hole: the third', drilled(), drilled(1), round(3, at(34, 20)), none),
  row('the pattern is suppressed: the first', drilled(), but(drilled(), 'r', { suppressed: true }), round(3, at(10, 20)), round(3, at(10, 20)), 'right'),
  row('the pattern is suppressed: the third', drilled(), but(drilled(), 'r', { suppressed: true }), round(3, at(34, 20)), none),
  row('the pitch is negative', drilled(3), but(drilled(3), 'o', { points: { oc: [40, 20] } }), round(3, at(22, 20)), round(3, at(52, 20)), 'right'),
  row('the original moves: the third', drilled(), redraw(drilled(), 'o', (s) => { s.points.oc = [12, 25]; }), round(3, at(34, 20)), round(3, at(36, 25)), 'right'),
  row('the holes get wider: the fourth', drilled(), redraw(drilled(), 'o', (s) => { (s.curves.o as { radius: number }).radius = 4; }), round(3, at(46, 20)), round(4, at(46, 20)), 'right'),
  row('one is left out: another', drilled(), but(drilled(), 'r', { left_out: '2' }), round(3, at(34, 20)), round(3, at(34, 20)), 'right'),
  row('one is left out: that one', drilled(), but(drilled(), 'r', { left_out: '2' }), round(3, at(22, 20)), none),
  row('holes drilled: the top', plate(), drilled(), up(10), up(10), 'right'),
  edge('more holes: the mouth of the second', drilled(), drilled(6, 9), [round(3, at(22, 20)), up(10)], [round(3, at(19, 20)), up(10)], 'right'),
  // Holes round a disc.
  row('more all round: the second of six', ringed(), ringed(12), round(3, at(10, 10 * Math.sqrt(3))), round(3, at(10 * Math.sqrt(3), 10)), 'right'),
  row('fewer all round: the last', ringed(), ringed(4), round(3, at(10, -10 * Math.sqrt(3))), none),
  row('more all round: the rim', ringed(), ringed(12), round(30), round(30), 'right'),
  // A mirrored boss.
  row('the boss moves: its twin', twinned(), twinned(15), round(5, at(-10, 0)), round(5, at(-15, 0)), 'right'),
  row('the boss moves: the boss', twinned(), twinned(15), round(5, at(10, 0)), round(5, at(15, 0)), 'right'),
  row('the mirror is suppressed: the twin', twinned(), but(twinned(), 'm', { suppressed: true }), round(5, at(-10, 0)), none),
  row('the boss moves to the other side: its twin', twinned(), twinned(-12), round(5, at(-10, 0)), round(5, at(12, 0)), 'right'),
  row('the twin’s top when the boss gets higher', twinned(), but(twinned(), 'j', { distance: '9 mm' }), up(16, x(-20, 0)), up(19, x(-20, 0)), 'right'),
  edge('the twin’s foot', twinned(), twinned(15), [round(5, at(-10, 0)), up(10)], [round(5, at(-15, 0)), up(10)], 'right'),
  // A drilled hole.
  row('the drill gets wider', bored(), bored(11), round(4), round(5.5), 'right'),
  row('the hole is placed elsewhere', bored(), bored(8, 40), round(4), round(4), 'right'),
  row('a second place', bored(), but(redraw(bored(), 'q', (s) => { s.points.n = [45, 20]; }), 'h', { places: [{ sketch: 'q', point: 'n' }, { sketch: 'q', point: 'm' }] }), round(4), round(4, at(15, 20)), 'right'),
  row('its place is gone', bored(), but(redraw(bored(), 'q', (s) => { s.points.n = [45, 20]; delete s.points.m; }), 'h', { places: [{ sketch: 'q', point: 'n' }] }), round(4), none),
  // A slanted side.
  row('the draft steepens: the slant', sloped(), sloped(20), tilted, tilted, 'right'),
  row('the draft is suppressed: the side', sloped(), but(sloped(), 'd', { suppressed: true }), tilted, right(60), 'right'),
  row('drafted after it was picked', plate(), sloped(), right(60), tilted, 'right'),
  // A swept pipe.
  row('the pipe gets thicker: its first leg', pipe(), pipe(6), round(4, (c) => c[2] < 30), round(6, (c) => c[2] < 30), 'right'),
  row('the pipe gets longer: its second leg', pipe(), pipe(4, 55), round(4, y(5, 40)), round(4, y(5, 40)), 'right'),
  row('the pipe gets longer: its foot', pipe(), pipe(4, 55), down(0), down(0), 'right'),
  row('the pipe gets longer: its far end', pipe(), pipe(4, 55), back(30), back(30), 'right'),
  // A lofted funnel.
  row('the funnel gets higher: its top', funnel(), funnel(30), up(20), up(30), 'right'),
  row('the funnel’s mouth gets wider: its foot', funnel(), funnel(20, 16), down(0), down(0), 'right'),
  row('the funnel gets higher: a side', funnel(), funnel(30), (f) => f.center[0] > 5, (f) => f.center[0] > 5, 'right'),
  // Bars that cross, their tops one face.
  row('joined flush across: the top', { s: crossed().s!, e: crossed().e! }, crossed(), up(8), up(8), 'right'),
  row('one bar gets wider: the top', crossed(), crossed(16), up(8), up(8), 'right'),
  row('the cross bar is suppressed: the top', crossed(), but(crossed(), 'j', { suppressed: true }), up(8), up(8), 'right'),
  row('one bar gets wider: the end of the other', crossed(), crossed(16), back(30), back(30), 'right'),
  row('a side the other parted', crossed(), crossed(16), front(-5, x(-30, -5)), front(-8, x(-30, -5)), 'right'),
  edge('one bar gets wider: an end edge', crossed(), crossed(16), [up(8), back(30)], [up(8), back(30)], 'right'),
  // A body on a body, joined later.
  body('the lid gets higher', lidded(), lidded(9), up(14), up(19), 'right'),
  body('the plate under the lid', lidded(), lidded(9), down(0), down(0), 'right'),
  row('the lid is joined: its top', lidded(), joined(), up(14), up(14), 'right'),
  row('the lid is joined: a side of it', lidded(), joined(), right(25), right(25), 'right'),
  row('the joined lid gets higher', joined(), joined(9), up(14), up(19), 'right'),
  row('the joining is suppressed: the lid’s top', joined(), but(joined(), 'c', { suppressed: true }), up(14), up(14), 'right'),
  // A body moved.
  row('moved further: its top', moved(), moved(40), up(25), up(50), 'right'),
  row('the move is suppressed: its top', moved(), but(moved(), 'm', { suppressed: true }), up(25), up(10), 'right'),
  body('moved further', moved(), moved(40), up(25), up(50), 'right'),
  // A body split by a line.
  row('the cut moves: the left top', cutByLine(), cutByLine(20), up(10, x(0, 30)), up(10, x(0, 20)), 'right'),
  row('the cut moves: the face it made on the left', cutByLine(), cutByLine(20), right(30), right(20), 'right'),
  body('the cut moves: the right piece', cutByLine(), cutByLine(45), right(60), right(60), 'right'),
  body('the cut moves past the middle: the left piece', cutByLine(), cutByLine(45), left(0), left(0), 'right'),
  // Ribs repeated, their edges chosen by a rule.
  row('more ribs: the top of the second', ribbed(), ribbed(4), up(22, x(30, 40)), up(22, x(30, 40)), 'right'),
  row('one rib: the top of the first', ribbed(), ribbed(1), up(22, x(8, 16)), up(22, x(8, 16)), 'right'),
  row('the ribs get higher: a side of the third', ribbed(), but(ribbed(), 'j', { distance: '15 mm' }), right(54), right(54), 'right'),
  // Holes in rows of rows.
  row('more in a row: one of the second row', nested(), nested(5), round(2, at(20, 30)), round(2, at(20, 30)), 'right'),
  row('more rows: one of the first', nested(), nested(3, 3), round(2, at(20, 10)), round(2, at(20, 10)), 'right'),
  row('one row: one of the second', nested(), nested(3, 1), round(2, at(20, 30)), none),
  // A side pushed out.
  row('pushed further: the side', pushed(), pushed(8), right(63), right(68), 'right'),
  row('the offset is suppressed: the side', pushed(), but(pushed(), 'o', { suppressed: true }), right(63), right(60), 'right'),
  row('pushed after it was picked', plate(), pushed(), right(60), right(63), 'right'),
  edge('pushed further: its upper edge', pushed(), pushed(8), [up(10), right(63)], [up(10), right(68)], 'right'),
  // Two towers from one sketch.
  row('the towers get higher: the second top', towers(), towers(20), up(17, x(40, 50)), up(25, x(40, 50)), 'right'),
  row('the first tower is erased: the second top', towers(), redraw(towers(), 'k', (s) => { for (const c of ['k1', 'k2', 'k3', 'k4']) delete s.curves[c]; }), up(17, x(40, 50)), up(17), 'right'),
  row('the towers change places', towers(), redraw(towers(), 'k', (s) => Object.assign(s.points, box('k', 40, 5, 8, 8).points, box('m', 5, 5, 8, 8).points)), up(17, x(40, 50)), up(17, x(5, 15)), 'right'),
  row('the first tower is drawn anew: the second', towers(), { ...towers(), k: drawn(both(box('z', 5, 5, 8, 8), box('m', 40, 5, 8, 8)), { face: { name: 'e:end' } }) }, up(17, x(40, 50)), up(17, x(40, 50)), 'right'),
  row('the first tower is drawn anew: itself', towers(), { ...towers(), k: drawn(both(box('z', 5, 5, 8, 8), box('m', 40, 5, 8, 8)), { face: { name: 'e:end' } }) }, up(17, x(5, 15)), up(17, x(5, 15))),
  // A rib in an angle.
  row('the rib gets steeper: its slope', gusset(), gusset(42), tilted, tilted, 'right'),
  row('the rib gets steeper: its flank', gusset(), gusset(42), front(-3), front(-3), 'right'),
  row('the rib is suppressed: the leg', gusset(), but(gusset(), 'r', { suppressed: true }), right(10), right(10), 'right'),
]; // prettier-ignore
