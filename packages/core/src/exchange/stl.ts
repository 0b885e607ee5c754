/** Binary STL of one or more meshes, in mm. */
import type { SolidMesh } from '../solid/kernel.ts';

const HEADER_BYTES = 80;
const TRIANGLE_BYTES = 50;

export function writeStl(meshes: readonly SolidMesh[], title: string): Uint8Array {
  const count = meshes.reduce((sum, m) => sum + m.triangles.length / 3, 0);
  const bytes = new Uint8Array(HEADER_BYTES + 4 + count * TRIANGLE_BYTES);
  const view = new DataView(bytes.buffer);
  // A header that begins with "solid" would be taken for the text form.
  const header = `Helb ${title}`.slice(0, HEADER_BYTES);
  for (let i = 0; i < header.length; i++) bytes[i] = header.charCodeAt(i) & 0x7f;
  view.setUint32(HEADER_BYTES, count, true);
  let at = HEADER_BYTES + 4;
  for (const { positions, triangles } of meshes) {
    for (let t = 0; t < triangles.length; t += 3) {
      const corner = (k: number) => {
        const v = triangles[t + k]! * 3;
        return [positions[v]!, positions[v + 1]!, positions[v + 2]!] as const;
      };
      const [a, b, c] = [corner(0), corner(1), corner(2)];
      for (const value of [...normalOf(a, b, c), ...a, ...b, ...c]) {
        view.setFloat32(at, value, true);
        at += 4;
      }
      at += 2;
    }
  }
  return bytes;
}

type Corner = readonly [number, number, number];

function normalOf(a: Corner, b: Corner, c: Corner): Corner {
  const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
  const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
  const n: Corner = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
  const size = Math.hypot(...n) || 1;
  return [n[0] / size, n[1] / size, n[2] / size];
}
