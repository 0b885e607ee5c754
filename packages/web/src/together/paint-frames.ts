/** Frames on the stage: a ring where they are, a long stroke along z and a short one along x; and the way of a point. */
import { placedAt, type Pose, type Vec3 } from '@helb/core';
import type { StageScene } from '../stage/scene.ts';
import { inks } from '../theme/theme.ts';

const INK = inks({ frame: 'lit' });
const Z_PX = 34;
const X_PX = 16;

export function paintFrames(ctx: CanvasRenderingContext2D, scene: StageScene, frames: readonly Pose[]): void {
  const { scale } = scene.screen();
  ctx.strokeStyle = INK.frame;
  ctx.fillStyle = INK.frame;
  ctx.setLineDash([]);
  for (const frame of frames) {
    const [x, y] = scene.pixelOf(frame.at);
    const stroke = (local: Vec3, width: number) => {
      const [tx, ty] = scene.pixelOf(placedAt(frame, local));
      ctx.lineWidth = width;
      ctx.beginPath();
      ctx.moveTo(x, y);
      ctx.lineTo(tx, ty);
      ctx.stroke();
      return [tx, ty] as const;
    };
    const [ax, ay] = stroke([0, 0, Z_PX / scale], 2);
    stroke([X_PX / scale, 0, 0], 1);
    ctx.beginPath();
    ctx.arc(x, y, 4, 0, 2 * Math.PI);
    ctx.stroke();
    ctx.beginPath();
    ctx.arc(ax, ay, 2.5, 0, 2 * Math.PI);
    ctx.fill();
  }
}

/** Where frames are that could be picked. */
export function paintRings(ctx: CanvasRenderingContext2D, scene: StageScene, places: readonly Vec3[]): void {
  ctx.strokeStyle = INK.frame;
  ctx.lineWidth = 1.5;
  ctx.setLineDash([]);
  for (const place of places) {
    const [x, y] = scene.pixelOf(place);
    ctx.beginPath();
    ctx.arc(x, y, 4, 0, 2 * Math.PI);
    ctx.stroke();
  }
}

/** The way a point takes through a motion. */
export function paintTrace(ctx: CanvasRenderingContext2D, scene: StageScene, places: readonly Vec3[]): void {
  if (places.length < 2) return;
  ctx.strokeStyle = INK.frame;
  ctx.lineWidth = 1.5;
  ctx.setLineDash([6, 3]);
  ctx.beginPath();
  for (const [i, p] of places.entries()) {
    const [x, y] = scene.pixelOf(p);
    if (i === 0) ctx.moveTo(x, y);
    else ctx.lineTo(x, y);
  }
  ctx.stroke();
}
