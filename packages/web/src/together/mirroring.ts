/** Parts made again on the other side of a plane: themselves turned, where they are their own mirror image, else their opposite hand. */
import {
  addJoint, addPart, addStep, jointsToMirror, lookOfView, mirroredInstances, mirroredJoint, newId, OPPOSITE_IN, oppositeSteps, ownMirror, placeInstances, setMaterial, severalEdits,
  type Edit, type MirrorPart, type MirrorPlane,
} from '@helb/core'; // prettier-ignore
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useTogether } from './together-store.ts';

/** An opposite hand is computed within so long, ms, or its joints are not made. */
const PATIENCE_MS = 30_000;

export function useMirroring() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();

  const look = (part: string) => {
    const view = evaluation.parts.get(part);
    return view ? lookOfView(view) : null;
  };

  /** What an instance’s image is of; and the part to be made for it first, where it is an opposite hand. */
  function imageOf(part: string): { of: MirrorPart; makes: Edit[] } | null {
    const own = look(part);
    if (!own || own.bodies.length === 0) return null;
    const plane = ownMirror(own);
    if (plane) return { of: { part, plane }, makes: [] };
    const { name, material } = design.design!.parts[part]!;
    const [opposite, borrowed] = [newId('p'), newId('s')];
    // It borrows the part and reflects it, and so follows it from now on.
    const makes = [
      addPart(opposite, `${name}, opposite hand`.slice(0, 80)),
      ...oppositeSteps(part, name, own, borrowed).map((step, i) => addStep(opposite, i === 0 ? borrowed : newId('s'), step)), // prettier-ignore
      ...(material ? [setMaterial(opposite, material)] : []),
    ];
    return { of: { part: opposite, plane: OPPOSITE_IN }, makes };
  }

  /** Wait until the parts have been computed. */
  async function computed(parts: readonly string[]): Promise<boolean> {
    const until = performance.now() + PATIENCE_MS;
    while (performance.now() < until) {
      if (parts.every((p) => (evaluation.parts.get(p)?.bodies.length ?? 0) > 0)) return true;
      await new Promise((next) => setTimeout(next, 100));
    }
    return false;
  }

  /** @returns how many joints could not be made there, or null where nothing was done */
  async function mirror(ids: readonly string[], plane: MirrorPlane): Promise<number | null> {
    const { it, assembly: own } = together;
    const assembly = session.activeAssembly;
    if (!it || !own || !assembly) return null;
    const images = new Map<string, { id: string; of: MirrorPart }>();
    const makes = new Map<string, ReturnType<typeof imageOf>>();
    for (const id of ids) {
      const of = own.instances[id]?.of;
      if (!of || 'assembly' in of) {
        session.notice = 'An assembly that stands here is not mirrored as a whole; dissolve it first, or mirror its parts within it.'; // prettier-ignore
        return null;
      }
      if (!makes.has(of.part)) makes.set(of.part, imageOf(of.part));
      const made = makes.get(of.part);
      if (!made) {
        session.notice = 'A part has no body yet, or is being computed; try again in a moment.';
        return null;
      }
      images.set(id, { id: newId('i'), of: made.of });
    }
    const poseOf = (key: string) => {
      const link = it.linkOf.get(key);
      return link === undefined ? null : (it.home.poses[link] ?? null);
    };
    const places = mirroredInstances(ids.map((id) => ({ id, as: images.get(id)!.id, home: poseOf(id)!, of: images.get(id)!.of })), plane); // prettier-ignore
    const parts = [...makes.values()].flatMap((m) => m!.makes);
    const first = [...parts, placeInstances(assembly, places)];
    const fresh = [...makes.values()].flatMap((m) => (m!.makes.length > 0 ? [m!.of.part] : []));
    if (fresh.length > 0) {
      session.notice = design.tryOut(severalEdits('Mirror', first));
      if (session.notice !== null) return null;
      const ready = await computed(fresh);
      design.dropAttempt();
      if (!ready) {
        session.notice = 'The opposite hand could not be computed in time; nothing was made.';
        return null;
      }
    }
    const chosen = new Set(ids);
    const joints = jointsToMirror(own, chosen).map((id) =>
      mirroredJoint(own.joints[id]!, plane, {
        pose: poseOf,
        look,
        partOf: (key) => it.members.find((m) => m.key === key)?.part ?? null,
        image: (id_) => images.get(id_) ?? null,
      }),
    );
    const label = ids.length === 1 ? 'Mirror a part' : `Mirror ${ids.length} parts`;
    session.notice = design.edit(severalEdits(label, [...first, ...joints.flatMap((j) => (j ? [addJoint(assembly, newId('j'), j)] : []))])); // prettier-ignore
    return session.notice === null ? joints.filter((j) => j === null).length : null;
  }

  return { mirror };
}
