/** A cut through the bodies as the scene shows it: what lies before the plane is left away, what is cut is capped and hatched. */
import type { Vec3 } from '@helb/core';
import * as THREE from 'three';
import { inks } from '../theme/theme.ts';
import type { BodyObject } from './body-objects.ts';

/** The half of space that is kept lies behind the plane, against its normal. */
export interface SectionPlane {
  readonly normal: Vec3;
  /** How far the plane lies along its normal from the part's origin, mm. */
  readonly at: number;
}

const INK = inks({ hatch: 'edge' });
/** Of the bodies' size, so that the cap reaches beyond them. */
const CAP_REACH = 2;
/** Pixels from one hatch line to the next; bodies in turn lean to either side. */
const HATCH_PX = 7;
/** Caps are drawn after bodies, each after its own stencil. */
const FIRST_ORDER = 10;

const VERTEX = 'void main() { gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }';
const FRAGMENT = `
  uniform vec3 fill;
  uniform vec3 ink;
  uniform float lean;
  uniform float apart;
  void main() {
    float across = mod(gl_FragCoord.x + lean * gl_FragCoord.y, apart);
    gl_FragColor = vec4(mix(fill, ink, across < 1.0 ? 0.75 : 0.0), 1.0);
    #include <colorspace_fragment>
  }`;

export class SectionView {
  readonly group = new THREE.Group();
  private readonly disposables: { dispose(): void }[] = [];

  constructor({ normal, at }: SectionPlane, bodies: readonly BodyObject[], box: THREE.Box3, pixelRatio: number) {
    const direction = new THREE.Vector3(...normal);
    const plane = new THREE.Plane(direction.clone().negate(), at);
    const center = plane.projectPoint(box.getCenter(new THREE.Vector3()), new THREE.Vector3());
    const size = box.getSize(new THREE.Vector3()).length() * CAP_REACH;
    const square = this.keep(new THREE.PlaneGeometry(size, size));
    for (const [i, body] of bodies.entries()) {
      body.cut([plane]);
      const order = FIRST_ORDER + 2 * i;
      for (const side of [THREE.BackSide, THREE.FrontSide] as const) {
        const stencil = new THREE.Mesh(body.mesh.geometry, this.keep(stencilMaterial(side, plane)));
        stencil.renderOrder = order;
        this.group.add(stencil);
      }
      const material = this.keep(
        new THREE.ShaderMaterial({
          vertexShader: VERTEX,
          fragmentShader: FRAGMENT,
          uniforms: {
            fill: { value: new THREE.Color(body.color) },
            ink: { value: new THREE.Color(INK.hatch) },
            lean: { value: i % 2 === 0 ? 1 : -1 },
            apart: { value: HATCH_PX * Math.SQRT2 * pixelRatio },
          },
          side: THREE.DoubleSide,
          // After all that is see-through in principle.
          transparent: true,
          stencilWrite: true,
          stencilRef: 0,
          stencilFunc: THREE.NotEqualStencilFunc,
          stencilFail: THREE.ReplaceStencilOp,
          stencilZFail: THREE.ReplaceStencilOp,
          stencilZPass: THREE.ReplaceStencilOp,
        }),
      );
      const cap = new THREE.Mesh(square, material);
      cap.position.copy(center);
      cap.lookAt(center.clone().add(direction));
      cap.renderOrder = order + 1;
      cap.onAfterRender = (renderer) => renderer.clearStencil();
      this.group.add(cap);
    }
  }

  private keep<T extends { dispose(): void }>(own: T): T {
    this.disposables.push(own);
    return own;
  }

  dispose(bodies: Iterable<BodyObject>): void {
    for (const body of bodies) body.cut([]);
    for (const own of this.disposables) own.dispose();
  }
}

/** Counts, for each pixel, how many more back faces than front faces are left: more than none is inside. */
function stencilMaterial(side: THREE.Side, plane: THREE.Plane): THREE.MeshBasicMaterial {
  const op = side === THREE.BackSide ? THREE.IncrementWrapStencilOp : THREE.DecrementWrapStencilOp;
  return new THREE.MeshBasicMaterial({
    side,
    transparent: true,
    depthWrite: false,
    depthTest: false,
    colorWrite: false,
    clippingPlanes: [plane],
    stencilWrite: true,
    stencilFunc: THREE.AlwaysStencilFunc,
    stencilFail: op,
    stencilZFail: op,
    stencilZPass: op,
  });
}

/** Is a place left of the cut? */
export const isLeft = ({ normal, at }: SectionPlane, p: { x: number; y: number; z: number }): boolean =>
  normal[0] * p.x + normal[1] * p.y + normal[2] * p.z <= at + LEFT_SLACK;

/** mm; faces in the plane itself stay. */
const LEFT_SLACK = 1e-4;
