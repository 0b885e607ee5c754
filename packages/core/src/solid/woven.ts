/** A solid told by its sides, place by place: what the kernel has no operation of its own for. */
import type { Loop } from '../sketch/regions/loop.ts';
import type { Transform } from '../space/transform.ts';
import type { Frame, Vec3 } from '../space/vector.ts';

/** Where a side is less smooth than elsewhere. */
export interface Break {
  /** Between 0 and 1. */
  readonly at: number;
  /** How many derivatives go on through it: at least 1. */
  readonly smooth: number;
}

/** A side over shares from 0 to 1, each way. Beside another it runs along the very same places. */
export interface WovenSide {
  /** From which piece of the outline it comes, counted through its loops. */
  readonly piece: number;
  /** At a share of the way from the start to the end: the place, mm, at a share of the piece. */
  readonly across: (way: number) => (share: number) => Vec3;
  readonly breaks: { readonly along: readonly Break[]; readonly across: readonly Break[] };
}

/** A flat end. */
export interface WovenCap {
  readonly frame: Frame;
  /** Outline first, then holes. */
  readonly loops: readonly Loop[];
  /** Where it goes from where it is drawn. */
  readonly to: Transform;
}

export interface Woven {
  readonly sides: readonly WovenSide[];
  readonly start: WovenCap;
  readonly end: WovenCap;
}
