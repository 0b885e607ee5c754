/** Copies, rows and rings of parts, and groups of them. */
import {
  addJoint, copyInstances, dissolveInstance, gatherInstances, newId, poseOfFrame, poseFrom, frameAlong, severalEdits, setJointNumber, type Edit, type Joint, type Pose, type Vec3,
} from '@helb/core'; // prettier-ignore
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useTogether } from './together-store.ts';

const BESIDE: Pose = { at: [40, 0, 0], turn: [0, 0, 0, 1] };

/** How a row or ring of parts is made: each held to the first by a joint whose number is a multiple of one expression. */
export interface Arrangement {
  readonly kind: 'row' | 'ring';
  readonly count: number;
  /** Of the step: a length, or an angle. */
  readonly step: string;
  readonly axis: 'x' | 'y' | 'z';
}

const AXES: Readonly<Record<Arrangement['axis'], Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

export function useArranging() {
  const design = useDesign();
  const session = useSession();
  const together = useTogether();

  /** Joints of which both sides are on these instances. */
  const jointsWithin = (ids: readonly string[]): string[] =>
    together.assembly!.jointOrder.filter((id) => {
      const { a, b } = together.assembly!.joints[id]!;
      return ids.includes(a.instance[0] ?? '') && ids.includes(b.instance[0] ?? '');
    });

  function done(edit: Edit): void {
    session.notice = design.edit(edit);
    if (session.notice !== null) return;
    together.picked = [];
    together.chosen = new Set();
  }

  /** Beside what is copied, with the joints among the copies. */
  function copy(ids: readonly string[]): void {
    done(copyInstances(session.activeAssembly!, ids.map((id) => [id, newId('i')]), jointsWithin(ids).map((id) => [id, newId('j')]), BESIDE)); // prettier-ignore
  }

  function gather(ids: readonly string[]): void {
    done(gatherInstances(session.activeAssembly!, ids, newId('a'), newId('i'), 'Group'));
  }

  function dissolve(id: string): void {
    const of = together.assembly!.instances[id]?.of;
    const inner = of && 'assembly' in of ? design.design?.assemblies?.[of.assembly] : null;
    if (!inner) return;
    done(dissolveInstance(session.activeAssembly!, id, inner.instanceOrder.map((i) => [i, newId('i')]), inner.jointOrder.map((j) => [j, newId('j')]))); // prettier-ignore
  }

  /** Copies of one instance, along or about an axis of the assembly through its origin. */
  function arrange(id: string, { kind, count, step, axis }: Arrangement): void {
    const assembly = session.activeAssembly!;
    const link = together.it?.linkOf.get(id);
    const home = link === undefined ? undefined : together.it!.home.poses[link];
    if (!home) return;
    const line = poseOfFrame(frameAlong([0, 0, 0], AXES[axis]));
    const stands = poseFrom(home, line);
    const frame = { at: [...stands.at], turn: [...stands.turn] } as { at: [number, number, number]; turn: [number, number, number, number] }; // prettier-ignore
    const edits: Edit[] = [];
    const name = together.it!.links[link!]!.name;
    for (let n = 1; n < count; n++) {
      const [to, joint] = [newId('i'), newId('j')];
      const held: Joint = { kind: 'rigid', name: `${name}, ${n + 1} of ${count}`.slice(0, 80), a: { instance: [id], on: { stands: frame } }, b: { instance: [to], on: { stands: frame } }, flip: true, numbers: {} }; // prettier-ignore
      edits.push(
        copyInstances(assembly, [[id, to]], [], { at: [0, 0, 0], turn: [0, 0, 0, 1] }),
        addJoint(assembly, joint, held),
      );
      edits.push(
        setJointNumber(assembly, joint, kind === 'row' ? 'offset' : 'angle', n === 1 ? step : `(${step}) * ${n}`),
      );
    }
    done(severalEdits(`Arrange ${count} in a ${kind}`, edits));
  }

  return { copy, gather, dissolve, arrange };
}
