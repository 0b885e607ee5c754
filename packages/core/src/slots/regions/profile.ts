/** What a step sweeps: areas on a plane, or an open outline for a wall. */
import type { Body } from '../../names/body.ts';
import type { Name } from '../../names/name.ts';
import type { Region } from '../../sketch/regions/regions.ts';
import type { SketchGeometry } from '../../sketch/schema.ts';
import type { Frame } from '../../space/vector.ts';

/** An area to sweep, with what it is told apart by in names. */
export interface Area extends Region {
  readonly parents: readonly (Name | string)[];
  /** What its curves are called in names, where that is not their id. */
  readonly called?: ReadonlyMap<string, Name | string>;
}

export interface Profile {
  /** What it is of, as people know it: a sketch, or the step whose face it is. */
  readonly of: string;
  readonly frame: Frame;
  readonly areas: readonly Area[];
  /** The sketch with an open outline, of which a wall is to be made; null of areas. */
  readonly chain: SketchGeometry | null;
  /** Of a face: its body, and which edge of it each curve is. */
  readonly on?: { readonly body: Body; readonly edges: ReadonlyMap<string, number> };
}
