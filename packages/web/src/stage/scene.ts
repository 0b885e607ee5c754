/** The 3D scene: camera, light, bodies, and finding what the pointer is on. Knows nothing of Vue. */
import type { Frame, Pose, Vec3 } from '@helb/core';
import CameraControls from 'camera-controls';
import * as THREE from 'three';
import type { BodyView } from '@helb/core';
import { BodyObject, sampleObjects, type BodyLook, type Drawing, type Tone } from './body-objects.ts';
import { Crowds, manyOf } from './crowds.ts';
import { Pointing, type Hit } from './pointing.ts';
import { SectionView, type SectionPlane } from './section.ts';

export type { Hit } from './pointing.ts';

CameraControls.install({ THREE });

export interface ShownBody {
  readonly view: BodyView;
  readonly color: string;
  /** 1 hides all behind it. */
  readonly opacity: number;
  readonly look: BodyLook;
  /** What tells it apart on the stage, where a body stands there more than once; else the body’s own id. */
  readonly id?: string;
  /** Where it stands, if not where it was modelled. */
  readonly pose?: Pose;
}

/** A flat plane's mapping to pixels: exact, since the camera is parallel. */
export interface PlaneView {
  readonly origin: readonly [number, number];
  /** Pixels per mm along the plane's x and y. */
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
}

/** Directions from which the straight-on and oblique views look, part Z up. */
export type ViewDirection = readonly [number, number, number];

const FIT_MARGIN = 1.25;
const FAR = 1e5;
/** After a pause the camera goes on from where it was, not from where it would be by now. */
const LONGEST_STEP_S = 0.25;

export class StageScene {
  private readonly renderer: THREE.WebGLRenderer;
  /** The browser draws without a graphics card. */
  readonly isSoftware: boolean;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -FAR, FAR);
  readonly controls: CameraControls;
  private lastFrame = performance.now();
  private readonly bodies = new Map<string, BodyObject>();
  readonly size = new THREE.Vector2(1, 1);
  private pending = 0;
  /** The 3D picture itself is out of date, not only what lies over it. */
  private stale = true;
  private compiled = false;
  private readonly pointing = new Pointing(this.camera, this);
  section: readonly SectionPlane[] = [];
  private sectionView: SectionView | null = null;
  private readonly crowds = new Crowds();

  /** Unless one has asked the system for less motion. */
  private readonly turnsSmoothly = !window.matchMedia('(prefers-reduced-motion: reduce)').matches;

  constructor(
    canvas: HTMLCanvasElement,
    surface: HTMLElement,
    private readonly onRender: () => void,
  ) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, stencil: true });
    this.renderer.localClippingEnabled = true;
    this.isSoftware = drawsInSoftware(this.renderer.getContext());
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    // Asking for a shader's log waits for the graphics process; our shaders are three's own.
    this.renderer.debug.checkShaderErrors = false;
    this.camera.up.set(0, 0, 1);
    this.camera.position.set(1, -1.6, 0.9).multiplyScalar(300);
    this.controls = new CameraControls(this.camera, surface);
    this.controls.updateCameraUp();
    this.controls.dollyToCursor = true;
    this.controls.smoothTime = 0.12;
    this.controls.draggingSmoothTime = 0.04;
    this.controls.mouseButtons.right = CameraControls.ACTION.TRUCK;
    this.controls.mouseButtons.middle = CameraControls.ACTION.TRUCK;
    // Sent for every drag, also for one that leaves the camera where it is: the next frame finds out.
    this.controls.addEventListener('control', () => this.invalidateOverlay());
    const sun = new THREE.DirectionalLight('#ffffff', 1.9);
    sun.position.set(-0.35, 0.8, 1);
    this.camera.add(sun);
    this.scene.add(this.crowds.group, this.camera, new THREE.HemisphereLight('#ffffff', '#d9cfbd', 2));
    void this.compileAhead();
  }

  /** Build the shaders in the background before anything is drawn with them. */
  private async compileAhead(): Promise<void> {
    const samples = sampleObjects();
    for (const one of [...samples.children]) samples.add(...manyOf(one));
    this.scene.add(samples);
    await this.renderer.compileAsync(this.scene, this.camera);
    this.scene.remove(samples);
    this.compiled = true;
    this.invalidate();
  }

  /** Draw at the next frame; calls in between are one. */
  invalidate = (): void => {
    this.stale = true;
    this.invalidateOverlay();
  };

  /** Draw anew at the next frame only what lies over the 3D picture. */
  invalidateOverlay = (): void => {
    if (this.pending) return;
    this.pending = requestAnimationFrame(() => {
      this.pending = 0;
      const now = performance.now();
      const moving = this.controls.update(Math.min((now - this.lastFrame) / 1000, LONGEST_STEP_S));
      this.lastFrame = now;
      if ((this.stale || moving) && this.compiled) {
        this.stale = false;
        this.renderer.render(this.scene, this.camera);
      }
      this.onRender();
      if (moving) this.invalidate();
    });
  };

  resize(width: number, height: number): void {
    const [was, is] = [this.size.clone(), new THREE.Vector2(Math.max(width, 1), Math.max(height, 1))];
    this.size.copy(is);
    this.renderer.setSize(this.size.x, this.size.y, false);
    const camera = this.camera;
    // One unit is one pixel at zoom 1; the zoom is then pixels per mm.
    camera.left = -this.size.x / 2;
    camera.right = this.size.x / 2;
    camera.top = this.size.y / 2;
    camera.bottom = -this.size.y / 2;
    camera.updateProjectionMatrix();
    // What was in view stays in view when a panel beside the stage grows.
    if (was.x > 1 && was.y > 1) void this.controls.zoomTo(camera.zoom * Math.min(is.x / was.x, is.y / was.y), false);
    this.invalidate();
  }

  setBodies(shown: readonly ShownBody[], drawing: Drawing = 'shaded'): void {
    const wanted = new Map(
      shown.map((s) => [`${s.id ?? s.view.id} ${s.view.key} ${s.color} ${s.look === 'ghost'}`, s]),
    );
    for (const [key, object] of this.bodies) {
      if (wanted.has(key)) continue;
      this.scene.remove(object.group);
      object.dispose();
      this.bodies.delete(key);
    }
    for (const [key, { id, view, color, opacity, look, pose }] of wanted) {
      let object = this.bodies.get(key);
      if (!object) {
        object = new BodyObject(id ?? view.id, view, color);
        this.bodies.set(key, object);
        this.scene.add(object.group);
      }
      object.setLook(look, drawing, opacity);
      if (pose) object.place(pose);
    }
    this.setSection(this.section);
  }

  /** Move bodies that stand on the stage, by their ids. */
  placeBodies(poses: ReadonlyMap<string, Pose>): void {
    for (const object of this.bodies.values()) {
      const pose = poses.get(object.id);
      if (pose) object.place(pose);
    }
    this.crowds.move();
    if (this.section.length > 0) this.setSection(this.section);
    this.invalidate();
  }

  /** Cut the bodies open: what lies before all the planes is left away; with none they are whole. */
  setSection(planes: readonly SectionPlane[]): void {
    if (this.sectionView) {
      this.scene.remove(this.sectionView.group);
      this.sectionView.dispose(this.bodies.values());
      this.sectionView = null;
    }
    this.section = planes;
    const box = this.bounds();
    if (planes.length > 0 && box) {
      this.sectionView = new SectionView(planes, this.touchable(), box, this.renderer.getPixelRatio());
      this.scene.add(this.sectionView.group);
    }
    this.crowds.gather(this.bodies.values());
    this.invalidate();
  }

  /** All but what is only a ghost. */
  touchable(): BodyObject[] {
    return [...this.bodies.values()].filter((b) => b.look !== 'ghost');
  }

  /** The theme changed. */
  recolor(): void {
    for (const object of this.bodies.values()) object.recolor();
    this.crowds.gather(this.bodies.values());
    this.invalidate();
    this.invalidateOverlay();
  }

  /** @param traced faces by key */
  light(selected: readonly Hit[], hover: Hit | null, traced: ReadonlyMap<string, Tone> = new Map()): void {
    for (const object of this.touchable()) {
      const { id } = object;
      const { faceKeys } = object.view;
      const own = (hits: readonly Hit[], kind: Hit['kind'], tone: Tone) =>
        hits.filter((h) => h.body === id && h.kind === kind).map((h) => ({ index: h.index, tone }));
      const all = (kind: Hit['kind']) => [
        ...own(hover ? [hover] : [], kind, 'hover'),
        ...own(selected, kind, 'picked'),
      ];
      const faces = all('face').map(({ index, tone }) => ({ face: index, tone }));
      if (traced.size > 0)
        faceKeys.forEach((key, face) => {
          const tone = traced.get(key);
          if (tone && !faces.some((f) => f.face === face)) faces.push({ face, tone });
        });
      object.light(
        faces,
        all('edge').map(({ index, tone }) => ({ edge: index, tone })),
        this.size,
      );
    }
    this.invalidate();
  }

  /** Directions of the screen in space, unit length, and how many pixels a mm is. */
  screen(): { readonly right: Vec3; readonly up: Vec3; readonly scale: number } {
    const [right, up] = [new THREE.Vector3(), new THREE.Vector3()];
    this.camera.updateMatrixWorld();
    this.camera.matrixWorld.extractBasis(right, up, new THREE.Vector3());
    return { right: [right.x, right.y, right.z], up: [up.x, up.y, up.z], scale: this.camera.zoom };
  }

  hitAt = (x: number, y: number): Hit | null => this.pointing.hitAt(x, y);
  hitBehind = (x: number, y: number, plane: Frame): Hit | null => this.pointing.hitBehind(x, y, plane);
  pointAt = (x: number, y: number): ReturnType<Pointing['pointAt']> => this.pointing.pointAt(x, y);
  stackAt = (x: number, y: number): Hit[] => this.pointing.stackAt(x, y);
  pixelOf = (p: THREE.Vector3 | Vec3): [number, number] => this.pointing.pixelOf(p);

  planeView(frame: Frame): PlaneView {
    this.camera.updateMatrixWorld();
    const at = (u: number, v: number) =>
      this.pixelOf([
        frame.origin[0] + u * frame.x[0] + v * frame.y[0],
        frame.origin[1] + u * frame.x[1] + v * frame.y[1],
        frame.origin[2] + u * frame.x[2] + v * frame.y[2],
      ]);
    const origin = at(0, 0);
    const x = at(1, 0);
    const y = at(0, 1);
    return { origin, x: [x[0] - origin[0], x[1] - origin[1]], y: [y[0] - origin[0], y[1] - origin[1]] };
  }

  /** The box around all bodies, or null when there are none. */
  bounds(): THREE.Box3 | null {
    const box = new THREE.Box3();
    for (const { view, matrix } of this.bodies.values())
      box.union(new THREE.Box3(new THREE.Vector3(...view.box.min), new THREE.Vector3(...view.box.max)).applyMatrix4(matrix)); // prettier-ignore
    return box.isEmpty() ? null : box;
  }

  fit(box: THREE.Box3, animate = true): void {
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map(
      (i) =>
        new THREE.Vector3(i & 1 ? box.max.x : box.min.x, i & 2 ? box.max.y : box.min.y, i & 4 ? box.max.z : box.min.z),
    );
    const center = box.getCenter(new THREE.Vector3());
    const inverse = this.targetRotation();
    let w = 1e-3;
    let h = 1e-3;
    for (const c of corners) {
      c.sub(center).applyQuaternion(inverse);
      w = Math.max(w, Math.abs(c.x) * 2);
      h = Math.max(h, Math.abs(c.y) * 2);
    }
    const zoom = Math.min(this.size.x / (w * FIT_MARGIN), this.size.y / (h * FIT_MARGIN));
    void this.controls.moveTo(center.x, center.y, center.z, animate && this.turnsSmoothly);
    void this.controls.zoomTo(zoom, animate && this.turnsSmoothly);
    this.invalidate();
  }

  /** World to view rotation where the camera is heading, not where it is on its way. */
  private targetRotation(): THREE.Quaternion {
    const position = this.controls.getPosition(new THREE.Vector3(), true);
    const target = this.controls.getTarget(new THREE.Vector3(), true);
    const matrix = new THREE.Matrix4().lookAt(position, target, this.camera.up);
    return new THREE.Quaternion().setFromRotationMatrix(matrix).invert();
  }

  /** Look from a direction, with part Z up. */
  look(direction: ViewDirection, animate = true): void {
    const [x, y, z] = direction;
    const azimuth = Math.abs(x) + Math.abs(y) < 1e-9 ? 0 : Math.atan2(x, -y);
    const polar = Math.acos(z / Math.hypot(x, y, z));
    // Turn the shorter way round.
    const turns = Math.round((this.controls.azimuthAngle - azimuth) / (2 * Math.PI));
    void this.controls.rotateTo(azimuth + turns * 2 * Math.PI, polar, animate && this.turnsSmoothly);
    this.invalidate();
  }

  /** Width and height of what is seen, px. */
  extent(): readonly [number, number] {
    return [this.size.x, this.size.y];
  }

  /** Where the camera looks from, unit length. */
  direction(): ViewDirection {
    const d = this.camera.getWorldDirection(new THREE.Vector3()).negate();
    return [d.x, d.y, d.z];
  }

  dispose(): void {
    cancelAnimationFrame(this.pending);
    this.setSection([]);
    this.setBodies([]);
    cancelAnimationFrame(this.pending);
    this.controls.dispose();
    this.renderer.dispose();
  }
}

function drawsInSoftware(gl: WebGLRenderingContext | WebGL2RenderingContext): boolean {
  const info = gl.getExtension('WEBGL_debug_renderer_info');
  return info !== null && /swiftshader|llvmpipe|software/i.test(String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)));
}
