/** Adding geometry to a sketch that is being edited. Positions in mm on its plane. */
import { newId, type RandomSource } from '../../document/ids.ts';
import { BUILT_IN, type Constraint, type SketchGeometry } from '../schema.ts';

export type Place = readonly [number, number];

/** Where a drawn point goes: to an existing point, or to a fresh one, perhaps on a curve. */
export interface Anchor {
  readonly at: Place;
  /** An existing point (or origin) it lands on. */
  readonly point?: string;
  /** A curve it lands on. */
  readonly on?: string;
}

export class SketchPen {
  constructor(
    private readonly sketch: SketchGeometry,
    private readonly random?: RandomSource,
  ) {}

  private id(prefix: string): string {
    let id: string;
    do id = newId(prefix, this.random);
    while (id in this.sketch.points || id in this.sketch.curves || id in this.sketch.constraints);
    return id;
  }

  point(anchor: Anchor): string {
    if (anchor.point && anchor.point !== BUILT_IN.origin) return anchor.point;
    const id = this.id('p');
    this.sketch.points[id] = [anchor.at[0], anchor.at[1]];
    if (anchor.point) this.constrain({ kind: 'coincident', of: [id, anchor.point] });
    else if (anchor.on) this.constrain({ kind: 'coincident', of: [id, anchor.on] });
    return id;
  }

  constrain(constraint: Constraint): string {
    const id = this.id('k');
    this.sketch.constraints[id] = constraint;
    return id;
  }

  line(from: string, to: string, construction = false): string {
    const id = this.id('l');
    this.sketch.curves[id] = { kind: 'line', from, to, ...(construction ? { construction } : {}) };
    return id;
  }

  circle(center: string, radius: number): string {
    const id = this.id('c');
    this.sketch.curves[id] = { kind: 'circle', center, radius };
    return id;
  }

  /** A rectangle that stays about its centre: a construction diagonal has its middle there. */
  centredRectangle(center: Anchor, corner: Anchor): { lines: [string, string, string, string] } {
    const [cx, cy] = center.at;
    const [x, y] = corner.at;
    const { lines, corners } = this.rectangle({ at: [2 * cx - x, 2 * cy - y] }, corner);
    const diagonal = this.line(corners[0], corners[2], true);
    this.constrain({ kind: 'midpoint', of: [center.point ?? this.point(center), diagonal] });
    return { lines };
  }

  /** Four lines between two opposite corners, kept level and upright. Lines run bottom, right, top, left as drawn. */
  rectangle(
    first: Anchor,
    opposite: Anchor,
  ): { lines: [string, string, string, string]; corners: [string, string, string, string] } {
    const [x0, y0] = first.at;
    const [x1, y1] = opposite.at;
    const a = this.point(first);
    const b = this.point({ at: [x1, y0] });
    const c = this.point(opposite);
    const d = this.point({ at: [x0, y1] });
    const lines: [string, string, string, string] = [
      this.line(a, b),
      this.line(b, c),
      this.line(c, d),
      this.line(d, a),
    ];
    lines.forEach((line, i) => this.constrain({ kind: i % 2 === 0 ? 'horizontal' : 'vertical', of: [line] }));
    return { lines, corners: [a, b, c, d] };
  }
}
