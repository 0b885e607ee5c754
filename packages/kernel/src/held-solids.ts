/** The kernel’s solids by their handles, with what was found of them since. */
import { KernelDown, type SolidBulk, type SolidHandle, type Transform } from '@helb/core';
import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { FacePlace } from './face-places.ts';

export interface Held {
  readonly shape: TopoDS_Shape;
  size?: number;
  bulk?: SolidBulk;
  sound?: boolean;
  /** Has it a face that is a whole torus? */
  ring?: boolean;
  places?: readonly FacePlace[];
  /** It is a copy of that one, moved. */
  copied?: { readonly from: number; readonly to: Transform };
}

export class HeldSolids {
  private readonly all = new Map<number, Held>();
  private next = 1;
  /** Handles below this one are of an earlier start. */
  private first = 1;

  get count(): number {
    return this.all.size;
  }

  hold(shape: TopoDS_Shape, known: Omit<Held, 'shape'> = {}): SolidHandle {
    const handle = this.next++;
    this.all.set(handle, { shape, ...known });
    return handle as SolidHandle;
  }

  /** @throws KernelDown for one of an earlier start; Error for one that was freed */
  of(solid: SolidHandle): Held {
    const held = this.all.get(solid);
    if (!held && solid < this.first)
      throw new KernelDown('The geometry kernel was started again meanwhile; try again.');
    if (!held) throw new Error(`solid ${solid} was freed`);
    return held;
  }

  free(solid: SolidHandle): void {
    this.all.get(solid)?.shape.delete();
    this.all.delete(solid);
  }

  /** The kernel was started again: none of them is there any more. */
  forget(): void {
    this.all.clear();
    this.first = this.next;
  }
}
