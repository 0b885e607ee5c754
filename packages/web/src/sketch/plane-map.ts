/** Between a sketch plane (mm) and the stage (pixels). */
import type { Vec2 } from '@helb/core';
import type { PlaneView } from '../stage/scene.ts';

export class PlaneMap {
  private readonly determinant: number;
  /** Pixels per mm; the same in both directions when looked at straight on. */
  readonly scale: number;

  constructor(readonly view: PlaneView) {
    this.determinant = view.x[0] * view.y[1] - view.x[1] * view.y[0];
    this.scale = Math.sqrt(Math.abs(this.determinant));
  }

  /** Seen edge-on, the plane has no area to draw on. */
  get edgeOn(): boolean {
    return Math.abs(this.determinant) < 1e-9;
  }

  /** Does the other map put everything where this one does? */
  shows(other: PlaneMap): boolean {
    const near = (a: readonly [number, number], b: readonly [number, number], most: number) =>
      Math.abs(a[0] - b[0]) < most && Math.abs(a[1] - b[1]) < most;
    const [one, two] = [this.view, other.view];
    return near(one.origin, two.origin, 1e-3) && near(one.x, two.x, 1e-6) && near(one.y, two.y, 1e-6);
  }

  toPixel([u, v]: Vec2): [number, number] {
    const { origin, x, y } = this.view;
    return [origin[0] + u * x[0] + v * y[0], origin[1] + u * x[1] + v * y[1]];
  }

  toPlane(px: number, py: number): [number, number] {
    const { origin, x, y } = this.view;
    const dx = px - origin[0];
    const dy = py - origin[1];
    return [(dx * y[1] - dy * y[0]) / this.determinant, (dy * x[0] - dx * x[1]) / this.determinant];
  }

  /** Make a canvas draw in mm on the plane. */
  apply(ctx: CanvasRenderingContext2D): void {
    const { origin, x, y } = this.view;
    ctx.transform(x[0], x[1], y[0], y[1], origin[0], origin[1]);
  }
}
