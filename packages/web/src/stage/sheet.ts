/** A canvas laid over the 3D picture: over all of the stage, or over a part of it. */

/** Left, top, width and height on the stage, px. */
export type SheetBox = readonly [number, number, number, number];

export class Sheet {
  private box: SheetBox = [0, 0, 0, 0];

  /** @param software the browser draws without a graphics card */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly software: boolean,
  ) {}

  /** Lay it over `box`; what was on it is gone when the box is another. */
  cover(box: SheetBox): void {
    if (box.every((n, i) => n === this.box[i])) return;
    this.box = box;
    const [left, top, width, height] = box;
    const ratio = window.devicePixelRatio;
    this.canvas.width = Math.ceil(width * ratio);
    this.canvas.height = Math.ceil(height * ratio);
    Object.assign(this.canvas.style, {
      left: `${left}px`,
      top: `${top}px`,
      width: `${width}px`,
      height: `${height}px`,
    });
  }

  /** An emptied canvas keeps showing its last picture in some browsers, so an empty one is hidden. */
  show(shown: boolean): void {
    this.canvas.style.visibility = shown ? 'visible' : 'hidden';
  }

  /** Shown, cleared, and drawing in the stage's pixels; null where the browser gives no canvas. */
  begin(): CanvasRenderingContext2D | null {
    // Without a graphics card, a canvas kept in plain memory is about ten times as quick.
    const ctx = this.canvas.getContext('2d', { willReadFrequently: this.software });
    if (!ctx) return null;
    this.show(true);
    ctx.reset();
    ctx.scale(window.devicePixelRatio, window.devicePixelRatio);
    ctx.translate(-this.box[0], -this.box[1]);
    return ctx;
  }
}
