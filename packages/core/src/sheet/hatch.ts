/** Hatching of what is cut: lines at 45° within outlines, even over odd, so that holes stay open. */
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';

/** Between lines, mm on the paper; every other solid is hatched the other way, and every third wider. */
const APART = 2.5;
const STEPS_A_TURN = 180;

/**
 * @param outline closed runs of pieces in any order, on the paper
 * @param of which solid: neighbours differ
 */
export function hatch(outline: readonly FlatPiece[], of: number): (readonly [Vec2, Vec2])[] {
  const apart = APART * (1 + 0.5 * (Math.floor(of / 2) % 3));
  const sign = of % 2 === 0 ? 1 : -1;
  const half = Math.SQRT1_2;
  const [u, n]: [Vec2, Vec2] = [[half, half * sign], [-half * sign, half]]; // prettier-ignore
  // Turned so that hatching is level: x along the lines, y across them.
  const turned = outline.flatMap((piece) => {
    const at = placesAlong(piece).map(([x, y]): Vec2 => [x * u[0] + y * u[1], x * n[0] + y * n[1]]);
    return at.slice(1).map((q, i) => [at[i]!, q] as const);
  });
  const ys = turned.flat().map((p) => p[1]);
  if (ys.length === 0) return [];
  const lines: (readonly [Vec2, Vec2])[] = [];
  // On a grid of the whole paper, so that parts of one solid are hatched in line.
  for (let k = Math.ceil(Math.min(...ys) / apart); k * apart <= Math.max(...ys); k++) {
    const level = k * apart + 1e-7;
    const crossings = turned
      .flatMap(([[x0, y0], [x1, y1]]) =>
        y0 > level === y1 > level ? [] : [x0 + ((level - y0) / (y1 - y0)) * (x1 - x0)],
      )
      .sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const back = (x: number): Vec2 => [x * u[0] + level * n[0], x * u[1] + level * n[1]];
      lines.push([back(crossings[i]!), back(crossings[i + 1]!)]);
    }
  }
  return lines;
}

function placesAlong(piece: FlatPiece): readonly Vec2[] {
  if (piece.kind === 'point' || piece.kind === 'line' || piece.kind === 'spline') return piece.points;
  const oval = ovalOf(piece);
  const { from, to } = oval;
  const steps = Math.max(2, Math.ceil(((to - from) / (2 * Math.PI)) * STEPS_A_TURN));
  return Array.from({ length: steps + 1 }, (_, i) => onOval(oval, from + ((to - from) * i) / steps));
}
