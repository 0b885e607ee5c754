/** Bodies that stand on the stage many times are drawn in one go each, faces and edges, however many there are. */
import type { BodyView } from '@helb/core';
import {
  Group, InstancedBufferAttribute, InstancedMesh, LineSegments, Mesh, MeshLambertMaterial,
  type BufferGeometry, type Material, type Matrix4, type Object3D,
} from 'three'; // prettier-ignore
import { edgesMaterial, facesMaterial, type BodyObject } from './body-objects.ts';

/** Fewer are drawn one by one. */
const CROWD = 4;

/** Lines that stand many times: three’s own class for that draws triangles, and its renderer asks for no more than this. */
export class InstancedLines extends LineSegments {
  readonly isInstancedMesh = true;
  readonly instanceMatrix: InstancedBufferAttribute;
  readonly instanceColor = null;
  readonly morphTexture = null;

  constructor(
    geometry: BufferGeometry,
    material: Material,
    override readonly count: number,
  ) {
    super(geometry, material);
    this.instanceMatrix = new InstancedBufferAttribute(new Float32Array(count * 16), 16);
  }

  setMatrixAt(index: number, matrix: Matrix4): void {
    matrix.toArray(this.instanceMatrix.array as Float32Array, index * 16);
  }
}

/** One like a sample that is drawn many times, so that its shader can be built ahead. */
export function manyOf(sample: Object3D): Object3D[] {
  if (sample instanceof Mesh && sample.material instanceof MeshLambertMaterial)
    return [new InstancedMesh(sample.geometry as BufferGeometry, sample.material, 1)];
  if (sample instanceof LineSegments) return [new InstancedLines(sample.geometry, sample.material as Material, 1)];
  return [];
}

class Crowd {
  readonly faces: InstancedMesh;
  readonly edges: InstancedLines;

  constructor(readonly members: readonly BodyObject[]) {
    const [first] = members;
    this.faces = new InstancedMesh(first!.mesh.geometry, facesMaterial(first!.color), members.length);
    this.edges = new InstancedLines(first!.edges.geometry, edgesMaterial(), members.length);
    this.edges.visible = first!.showsEdges;
    // They stand all over the stage.
    for (const drawn of [this.faces, this.edges]) drawn.frustumCulled = false;
    for (const member of members) member.drawnWithOthers = true;
    this.move();
  }

  move(): void {
    for (const drawn of [this.faces, this.edges]) {
      for (const [i, member] of this.members.entries()) drawn.setMatrixAt(i, member.matrix);
      drawn.instanceMatrix.needsUpdate = true;
    }
  }

  dispose(): void {
    for (const member of this.members) member.drawnWithOthers = false;
    for (const drawn of [this.faces, this.edges]) {
      drawn.dispose();
      (drawn.material as Material).dispose();
    }
  }
}

export class Crowds {
  readonly group = new Group();
  private all: Crowd[] = [];

  /** @param objects all that stand on the stage now; those that look alike are drawn together from here on */
  gather(objects: Iterable<BodyObject>): void {
    this.dissolve();
    const alike = new Map<BodyView['mesh'], Map<string, BodyObject[]>>();
    for (const object of objects) {
      if (!object.isPlain) continue;
      const ofMesh = alike.get(object.view.mesh) ?? new Map<string, BodyObject[]>();
      alike.set(object.view.mesh, ofMesh);
      const look = `${object.color} ${object.showsEdges}`;
      const known = ofMesh.get(look);
      if (known) known.push(object);
      else ofMesh.set(look, [object]);
    }
    for (const ofMesh of alike.values())
      for (const members of ofMesh.values()) {
        if (members.length < CROWD) continue;
        const crowd = new Crowd(members);
        this.all.push(crowd);
        this.group.add(crowd.faces, crowd.edges);
      }
  }

  /** Each is drawn by itself again. */
  dissolve(): void {
    this.group.clear();
    for (const crowd of this.all.splice(0)) crowd.dispose();
  }

  /** Some were moved. */
  move(): void {
    for (const crowd of this.all) crowd.move();
  }
}
