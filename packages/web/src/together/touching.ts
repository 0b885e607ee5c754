/** Which parts touch that did not at home: by their pictures’ triangles, boxes first. Exact fits are for the fit check. */
import type { Assembled, Member, PartView, Placed, Pose } from '@helb/core';
import { poseWithin } from '@helb/core';
import { Box3, BufferAttribute, BufferGeometry, Matrix4, Quaternion, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

type Mesh = PartView['bodies'][number]['mesh'];

interface Shape {
  readonly geometry: BufferGeometry;
  readonly tree: MeshBVH;
  readonly box: Box3;
}

const shapes = new WeakMap<Mesh, Shape>();

function shapeOf(mesh: Mesh): Shape {
  const known = shapes.get(mesh);
  if (known) return known;
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  // A copy: building the tree puts the triangles in another order.
  geometry.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  const tree = new MeshBVH(geometry);
  geometry.boundsTree = tree;
  const own = {
    geometry,
    tree,
    box: new Box3().setFromBufferAttribute(geometry.getAttribute('position') as BufferAttribute),
  };
  shapes.set(mesh, own);
  return own;
}

const ONE = new Vector3(1, 1, 1);
const matrixOf = ({ at, turn }: Pose) => new Matrix4().compose(new Vector3(...at), new Quaternion(...turn), ONE);

export class Touching {
  private readonly pairs: (readonly [Member, Member])[] = [];

  /** Pairs of parts that are apart at home, and that no joint holds together. */
  constructor(
    it: Assembled,
    private readonly viewOf: (part: string) => PartView | undefined,
  ) {
    const joined = new Set(
      it.mechanism.pairs.flatMap(({ id, a, b }) => (id === '' ? [] : [`${a.link} ${b.link}`, `${b.link} ${a.link}`])),
    );
    const { members } = it;
    for (const [i, one] of members.entries())
      for (const other of members.slice(i + 1)) {
        if (one.link === other.link || joined.has(`${one.link} ${other.link}`)) continue;
        if (it.links[one.link]!.held && it.links[other.link]!.held) continue;
        if (!this.meet(one, other, it.home)) this.pairs.push([one, other]);
      }
  }

  /** Names of two parts that touch there; null where none do. */
  at(now: Placed): readonly [string, string] | null {
    const found = this.pairs.find(([one, other]) => this.meet(one, other, now));
    return found ? [found[0].name, found[1].name] : null;
  }

  private meet(one: Member, other: Member, now: Placed): boolean {
    const [a, b] = [one, other].map((m) => matrixOf(poseWithin(now.poses[m.link]!, m.within)));
    const toOne = a!.clone().invert().multiply(b!);
    for (const { mesh: p } of this.viewOf(one.part)?.bodies ?? [])
      for (const { mesh: q } of this.viewOf(other.part)?.bodies ?? []) {
        const [s, t] = [shapeOf(p), shapeOf(q)];
        if (!s.box.intersectsBox(t.box.clone().applyMatrix4(toOne))) continue;
        if (s.tree.intersectsGeometry(t.geometry, toOne)) return true;
      }
    return false;
  }
}
