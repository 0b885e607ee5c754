/** What lies on a sheet, ready to be shown or written: curves and words, mm on the paper from its lower left corner. */
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { centripetal, type Vec2 } from '../sketch/curves/spline.ts';

/** Line widths, mm, and dashes after ISO 128-2: wide to narrow is two to one. */
export const PENS = {
  visible: { width: 0.5, dashes: [] },
  hidden: { width: 0.25, dashes: [3, 1.2] },
  smooth: { width: 0.18, dashes: [] },
  center: { width: 0.18, dashes: [8, 1.2, 0.6, 1.2] },
  size: { width: 0.18, dashes: [] },
  frame: { width: 0.5, dashes: [] },
  rule: { width: 0.25, dashes: [] },
} as const satisfies Readonly<Record<string, { readonly width: number; readonly dashes: readonly number[] }>>;
export type Pen = keyof typeof PENS;

export type OnPaper =
  | { readonly is: 'curve'; readonly pen: Pen; readonly piece: FlatPiece }
  | { readonly is: 'filled'; readonly points: readonly Vec2[] }
  | {
      readonly is: 'text';
      /** On its base line. */
      readonly at: Vec2;
      readonly text: string;
      /** Of its capitals, mm. */
      readonly height: number;
      readonly anchor: 'start' | 'middle' | 'end';
      /** Counter-clockwise, rad. */
      readonly turn: number;
      readonly face: 'words' | 'numbers' | 'strong';
    };

export interface SheetDrawing {
  /** mm */
  readonly size: readonly [width: number, height: number];
  readonly title: string;
  readonly items: readonly OnPaper[];
}

/** Capitals to body of the fonts that ship with Helb, so that a height of text is what is told. */
export const CAPITALS = 0.7;

/** What a character of numbers takes in width, of the height of capitals: all take the same. */
export const NUMBER_WIDTH = 0.6 / CAPITALS;

/** A piece enlarged about the origin, then moved. */
export function enlarged(piece: FlatPiece, by: number, [dx, dy]: Vec2): FlatPiece {
  const points = piece.points.map(([x, y]): Vec2 => [x * by + dx, y * by + dy]);
  const own = { ...piece, points } as FlatPiece;
  if (own.kind === 'circle') return { ...own, radius: own.radius * by };
  if (own.kind === 'ellipse' || own.kind === 'elliptical_arc') return { ...own, minor: own.minor * by };
  return own.kind === 'spline' ? { ...own, parameters: centripetal(own.points) } : own;
}

export const line = (pen: Pen, from: Vec2, to: Vec2): OnPaper => ({ is: 'curve', pen, piece: { kind: 'line', points: [from, to] } }); // prettier-ignore
