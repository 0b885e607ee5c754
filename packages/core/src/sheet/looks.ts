/** From where a sheet looks: six straight-on sides and one oblique, told from the side that is its front. */
import type { Look, Side } from '../document/sheet.ts';
import { cross, type Frame, type Vec3 } from '../space/vector.ts';

const back = ([x, y, z]: Vec3): Vec3 => [-x || 0, -y || 0, -z || 0];

/** The viewer stands on the normal’s side; x runs to the right, y up. */
function looking(normal: Vec3, y: Vec3): Frame {
  return { origin: [0, 0, 0], x: cross(y, normal), y, normal };
}

const UP: Vec3 = [0, 0, 1];
const FRONTS: Readonly<Record<Side, Frame>> = {
  front: looking([0, -1, 0], UP),
  rear: looking([0, 1, 0], UP),
  left: looking([-1, 0, 0], UP),
  right: looking([1, 0, 0], UP),
  top: looking([0, 0, 1], [0, 1, 0]),
  bottom: looking([0, 0, -1], [0, -1, 0]),
};

/** All three axes are seen alike, from the upper right before the front: isometric, ISO 5456-3. */
function oblique({ x, y, normal }: Frame): Frame {
  const third = 1 / Math.sqrt(3);
  const n: Vec3 = [0, 1, 2].map((i) => (x[i]! + y[i]! + normal[i]!) * third) as unknown as Vec3;
  const half = 1 / Math.sqrt(2);
  const right: Vec3 = [0, 1, 2].map((i) => (x[i]! - normal[i]!) * half) as unknown as Vec3;
  return { origin: [0, 0, 0], x: right, y: cross(n, right), normal: n };
}

/** @param front which side of the part is the front here */
export function frameOfLook(front: Side, look: Look): Frame {
  const own = FRONTS[front];
  const { x, y, normal } = own;
  switch (look) {
    case 'front':
      return own;
    case 'rear':
      return looking(back(normal), y);
    case 'right':
      return looking(x, y);
    case 'left':
      return looking(back(x), y);
    case 'top':
      return looking(y, back(normal));
    case 'bottom':
      return looking(back(y), normal);
    case 'oblique':
      return oblique(own);
  }
}
