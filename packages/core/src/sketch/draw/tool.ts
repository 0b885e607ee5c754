/** What a drawing tool is: how many clicks it takes, what can be typed, and what it draws. */
import type { Anchor, Place, SketchPen } from './pen.ts';

export interface TypedNumber {
  /** As typed: becomes the dimension's expression. */
  readonly expression: string;
  /** mm, rad, or a bare number */
  readonly value: number;
}

export type Typed = Readonly<Partial<Record<string, TypedNumber>>>;

/** A number that can be typed while drawing. */
export interface DrawField {
  readonly name: string;
  readonly kind: 'length' | 'angle' | 'count' | 'text';
  /** What the stroke measures now, from its clicks and the pointer; mm or rad. */
  measure?(clicks: readonly Anchor[], to: Place): number;
  /** What stands there until something is typed. */
  readonly initial?: string;
}

/** The curve a chain goes on from, and the point at its end. */
export interface Chain {
  readonly point: string;
  readonly curve: string;
}

export interface Stroke {
  readonly pen: SketchPen;
  readonly clicks: readonly Anchor[];
  readonly typed: Typed;
  readonly chain?: Chain;
}

export interface DrawTool {
  readonly name: string;
  readonly key?: string;
  /** Clicks a stroke takes; `open`: as many as one likes, ended by Enter or a double click. */
  readonly clicks: number | 'open';
  /** Fewest clicks an open stroke makes sense with. */
  readonly least?: number;
  /** Said beside the verbs, for the click that comes next. */
  readonly hints: readonly string[];
  /** Numbers that can be typed before click `n` (counted from 0). */
  fields(n: number): readonly DrawField[];
  /** Where the pointer's click lands once typed numbers have their say. */
  place?(clicks: readonly Anchor[], to: Anchor, typed: Typed): Anchor;
  /** Draw; returns the chain the next stroke goes on from, or nothing. */
  draw(stroke: Stroke): Chain | undefined;
  /** Clicks take curves, not places. */
  readonly picksCurves?: true;
}

export const distanceBetween = (a: Place, b: Place): number => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** From `a` towards `b`, at a given distance; along x where they are one. */
export function towards(a: Place, b: Place, distance: number): Place {
  const reach = distanceBetween(a, b);
  if (reach < 1e-9) return [a[0] + distance, a[1]];
  return [a[0] + ((b[0] - a[0]) / reach) * distance, a[1] + ((b[1] - a[1]) / reach) * distance];
}

/** How far `p` lies to the left of the way from `a` to `b`, mm. */
export function leftOf(a: Place, b: Place, p: Place): number {
  return ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / (distanceBetween(a, b) || 1);
}

/** A typed size decides where a point is, so it cannot also land on something. */
export function movedTo(anchor: Anchor, at: Place): Anchor {
  return { at, ...(anchor.inferred ? { inferred: anchor.inferred } : {}) };
}
