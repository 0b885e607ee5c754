/** A part worked on where it stands in an assembly: the others round it, from which it can borrow. */
import {
  addStep, assembled, instanceName, lookOfView, newId, outsideOf, poseFrom, poseWithin,
  type Member, type Pose, type Source, type Step,
} from '@helb/core'; // prettier-ignore
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { colorOfPart } from '../stage/colors.ts';
import type { ShownBody } from '../stage/scene.ts';
import { memberOfStage, stageId } from './offered-spots.ts';

export interface Beside {
  readonly member: Member;
  /** In the space of the part that is worked on. */
  readonly pose: Pose;
}

export const useInPlace = defineStore('in-place', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();

  /** As what is borrowed is taken: its own joints are left out, so that its own shape does not decide where it is drawn. */
  const it = computed(() => {
    const at = session.inPlace;
    if (!at || !design.design?.assemblies?.[at.assembly] || !design.ledger) return null;
    return assembled(design.design, design.ledger, at.assembly, (part) => {
      const view = part === session.activePart ? null : evaluation.parts.get(part);
      return view ? lookOfView(view) : null;
    });
  });
  const own = computed(() => it.value?.members.find((m) => m.key === session.inPlace?.instance.join('/')));

  /** What is borrowed already stands in the recipe, and is not shown a second time. */
  const borrowed = computed(() => {
    const part = design.design?.parts[session.activePart ?? ''];
    const steps = part ? Object.values(part.steps) : [];
    return new Set(
      steps.flatMap((step) => {
        if (step.suppressed || step.kind !== 'borrow' || step.from === undefined) return [];
        const { at, sketch } = step.from as Source;
        return at && 'assembly' in at && at.assembly === session.inPlace?.assembly && !sketch ? [at.other.join('/')] : []; // prettier-ignore
      }),
    );
  });

  const beside = computed<Beside[]>(() => {
    if (!it.value || !own.value) return [];
    const poseOf = (m: Member): Pose => poseWithin(it.value!.home.poses[m.link]!, m.within);
    const here = poseOf(own.value);
    return it.value.members
      .filter((m) => m !== own.value && !m.hidden && !borrowed.value.has(m.key))
      .map((member) => ({ member, pose: poseFrom(here, poseOf(member)) }));
  });

  const shown = computed<ShownBody[]>(() =>
    beside.value.flatMap(({ member, pose }) =>
      (evaluation.parts.get(member.part)?.bodies ?? []).map((view) => ({
        view,
        id: stageId(member.key, view.id),
        pose,
        color: colorOfPart(design.design, member.part),
        opacity: 1,
        look: 'faint' as const,
      })),
    ),
  );

  /** What stands beside it where a body of the stage is told by this id. */
  const besideAt = (id: string): Beside | undefined =>
    beside.value.find(({ member }) => member.key === memberOfStage(id));
  const chosen = computed(() => beside.value.find(({ member }) => member.key === session.beside));

  /** Where it is, in words. */
  const words = computed(() => {
    const at = session.inPlace;
    const assembly = at && design.design?.assemblies?.[at.assembly];
    return assembly ? { assembly: assembly.name, name: instanceName(design.design!, assembly, at.instance[0]!) } : null;
  });

  /** The step that borrows what stands there. */
  const stepFor = ({ member }: Beside): Step => ({
    kind: 'borrow',
    name: `Borrow ${member.name}`.slice(0, 80),
    from: {
      part: member.part,
      at: { assembly: session.inPlace!.assembly, own: [...session.inPlace!.instance], other: [...member.path] },
    },
  });

  /** Borrow it before a step that is worked on, so that this step can take from it. Returns the new step, once it is there to be picked from; null where it cannot be had. */
  async function bringIn(one: Beside, before: string): Promise<string | null> {
    const part = session.activePart!;
    const order = design.design!.parts[part]!.stepOrder;
    const id = newId('s');
    session.notice = design.edit(addStep(part, id, stepFor(one), order[order.indexOf(before) - 1] ?? null));
    if (session.notice !== null) return null;
    session.beside = null;
    for (const until = performance.now() + MOST_WAIT_MS; performance.now() < until;) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      const view = evaluation.parts.get(part);
      if (view?.around?.before.some((b) => b.step === id)) return id;
      const failed = view?.steps.find((s) => s.id === id && s.status === 'failed');
      if (failed) {
        session.notice = failed.message;
        return null;
      }
    }
    session.notice = 'What is borrowed takes long to compute; pick again when it stands there.';
    return null;
  }

  return { shown, besideAt, chosen, words, stepFor, bringIn };
});
const MOST_WAIT_MS = 10_000;

/** The part a step borrows from; null for other steps. */
export const lenderOf = (step: Step | undefined): string | null => (step && outsideOf(step)[0]?.part) ?? null;
