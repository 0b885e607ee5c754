/** A cut through the bodies as the scene shows it: what lies before its planes is left away, what is cut is capped and hatched. */
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

const VERTEX = `
  #include <clipping_planes_pars_vertex>
  void main() {
    vec4 mvPosition = modelViewMatrix * vec4(position, 1.0);
    gl_Position = projectionMatrix * mvPosition;
    #include <clipping_planes_vertex>
  }`;
const FRAGMENT = `
  #include <clipping_planes_pars_fragment>
  uniform vec3 fill;
  uniform vec3 ink;
  uniform float lean;
  uniform float apart;
  void main() {
    #include <clipping_planes_fragment>
    float across = mod(gl_FragCoord.x + lean * gl_FragCoord.y, apart);
    gl_FragColor = vec4(mix(fill, ink, across < 1.0 ? 0.75 : 0.0), 1.0);
    #include <colorspace_fragment>
  }`;

export class SectionView {
  readonly group = new THREE.Group();
  private readonly disposables: { dispose(): void }[] = [];

  /** @param planes what lies before all of them is cut away */
  constructor(planes: readonly SectionPlane[], bodies: readonly BodyObject[], box: THREE.Box3, pixelRatio: number) {
    const cuts = planes.map(({ normal, at }) => new THREE.Plane(new THREE.Vector3(...normal).negate(), at));
    for (const body of bodies) body.cut(cuts);
    let order = FIRST_ORDER;
    for (const [p, plane] of cuts.entries()) {
      const others = cuts.filter((_, q) => q !== p).map((cut) => cut.clone().negate());
      const square = this.capOf(plane, box);
      for (const [i, body] of bodies.entries()) {
        for (const side of [THREE.BackSide, THREE.FrontSide] as const) {
          const stencil = new THREE.Mesh(body.mesh.geometry, this.keep(stencilMaterial(side, plane)));
          stencil.matrixAutoUpdate = false;
          stencil.matrix.copy(body.matrix);
          stencil.renderOrder = order;
          this.group.add(stencil);
        }
        const cap = new THREE.Mesh(square.geometry, this.capMaterial(body.color, i, others, pixelRatio));
        cap.position.copy(square.position);
        cap.quaternion.copy(square.quaternion);
        cap.renderOrder = order + 1;
        cap.onAfterRender = (renderer) => renderer.clearStencil();
        this.group.add(cap);
        order += 2;
      }
    }
  }

  /** A square in the plane that reaches beyond all bodies. */
  private capOf(plane: THREE.Plane, box: THREE.Box3): THREE.Mesh {
    const size = box.getSize(new THREE.Vector3()).length() * CAP_REACH;
    const mesh = new THREE.Mesh(this.keep(new THREE.PlaneGeometry(size, size)));
    plane.projectPoint(box.getCenter(new THREE.Vector3()), mesh.position);
    mesh.lookAt(mesh.position.clone().sub(plane.normal));
    return mesh;
  }

  /** @param within seen only where it lies before all of these */
  private capMaterial(color: string, nth: number, within: THREE.Plane[], pixelRatio: number): THREE.ShaderMaterial {
    return this.keep(
      new THREE.ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        uniforms: {
          fill: { value: new THREE.Color(color) },
          ink: { value: new THREE.Color(INK.hatch) },
          lean: { value: nth % 2 === 0 ? 1 : -1 },
          apart: { value: HATCH_PX * Math.SQRT2 * pixelRatio },
        },
        side: THREE.DoubleSide,
        clipping: true,
        clippingPlanes: within,
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
