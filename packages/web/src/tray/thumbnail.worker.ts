/** Small pictures of parts, drawn off the page's thread. */
import * as Comlink from 'comlink';
import {
  BufferAttribute, BufferGeometry, Color, DirectionalLight, HemisphereLight, LineBasicMaterial, LineSegments, Mesh,
  MeshLambertMaterial, OrthographicCamera, Scene, Vector3, WebGLRenderer,
} from 'three'; // prettier-ignore

export interface ThumbnailBody {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  readonly edgePoints: Float32Array;
  readonly edgeRanges: Uint32Array;
  readonly box: { readonly min: readonly [number, number, number]; readonly max: readonly [number, number, number] };
}

let renderer: WebGLRenderer | null = null;

function draw(bodies: readonly ThumbnailBody[], color: string, width: number, height: number): ImageBitmap {
  renderer ??= new WebGLRenderer({ canvas: new OffscreenCanvas(width, height), antialias: true, alpha: true });
  renderer.setSize(width, height, false);
  const scene = new Scene();
  const min = new Vector3(Infinity, Infinity, Infinity);
  const max = new Vector3(-Infinity, -Infinity, -Infinity);
  const disposables: { dispose(): void }[] = [];
  for (const body of bodies) {
    min.min(new Vector3(...body.box.min));
    max.max(new Vector3(...body.box.max));
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(body.positions, 3));
    geometry.setAttribute('normal', new BufferAttribute(body.normals, 3));
    geometry.setIndex(new BufferAttribute(body.triangles, 1));
    const material = new MeshLambertMaterial({
      color: new Color(color),
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    });
    const lines = new BufferGeometry();
    lines.setAttribute('position', new BufferAttribute(segments(body), 3));
    const ink = new LineBasicMaterial({ color: '#1f2a30' });
    scene.add(new Mesh(geometry, material), new LineSegments(lines, ink));
    disposables.push(geometry, material, lines, ink);
  }
  const center = min.clone().add(max).multiplyScalar(0.5);
  const camera = new OrthographicCamera();
  camera.up.set(0, 0, 1);
  camera.position.copy(center).add(new Vector3(0.5, -0.8, 0.45).multiplyScalar(1000));
  camera.lookAt(center);
  camera.updateMatrixWorld();
  let w = 1e-3;
  let h = 1e-3;
  for (let i = 0; i < 8; i++) {
    const corner = new Vector3(i & 1 ? min.x : max.x, i & 2 ? min.y : max.y, i & 4 ? min.z : max.z).applyMatrix4(
      camera.matrixWorldInverse,
    );
    w = Math.max(w, Math.abs(corner.x));
    h = Math.max(h, Math.abs(corner.y));
  }
  const scale = Math.max(w / (width / 2), h / (height / 2)) * 1.08;
  camera.left = (-width / 2) * scale;
  camera.right = (width / 2) * scale;
  camera.top = (height / 2) * scale;
  camera.bottom = (-height / 2) * scale;
  camera.near = -1e5;
  camera.far = 1e5;
  camera.updateProjectionMatrix();
  const sun = new DirectionalLight('#ffffff', 1.6);
  sun.position.set(0.2, -0.6, 1);
  scene.add(sun, new HemisphereLight('#ffffff', '#d9cfbd', 1.7));
  renderer.render(scene, camera);
  for (const d of disposables) d.dispose();
  const bitmap = (renderer.domElement as unknown as OffscreenCanvas).transferToImageBitmap();
  return Comlink.transfer(bitmap, [bitmap]);
}

function segments({ edgePoints, edgeRanges }: ThumbnailBody): Float32Array {
  const out: number[] = [];
  for (let e = 0; e < edgeRanges.length; e += 2) {
    const first = edgeRanges[e]!;
    for (let p = first; p < first + edgeRanges[e + 1]! - 1; p++)
      for (let k = 0; k < 6; k++) out.push(edgePoints[p * 3 + k]!);
  }
  return Float32Array.from(out);
}

const api = { draw };
export type ThumbnailWorker = typeof api;
Comlink.expose(api);
