/** The assembly on the stage: how it stands together, where it has moved, and what of it is picked. Motion never edits the design. */
import {
  addJoint, assembled, changeJoint, dot, HERE, lookOfView, moveInstances, newId, poseFrom, posesApart, poseWithin, strayedIn, turned,
  type Assembled, type Edit, type Freedoms, type JointMotion, type Pose, type Spot, type Vec3,
} from '@helb/core'; // prettier-ignore
import { watchDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Hit } from '../stage/scene.ts';
import { useModes } from '../modes/mode-stack.ts';
import { FindingFreedoms } from './finding-freedoms.ts';
import { jointLabel, type Joining } from './joint-words.ts';
import { useMoving } from './moving.ts';
import { useTakingApart } from './taking-apart.ts';

/** A frame picked on a part that stands in the assembly. */
export interface PickedSpot {
  /** The member’s key, and the body and piece of it that lights up. */
  readonly member: string;
  readonly path: readonly string[];
  readonly spot: Spot;
  /** In the member’s own space. */
  readonly frame: Pose;
  readonly label: string;
  readonly hit: { readonly body: string; readonly kind: 'face' | 'edge'; readonly index: number } | null;
  /** A round face or edge: its axis is what is meant. */
  readonly round: boolean;
}

/** What is charted: a motion through its range, or a run through its time. */
export type Charted = { readonly joint: string; readonly motion: JointMotion['key'] } | { readonly run: string };

/** How far a motion goes, mm or rad: by its limits, else once round or as far as the assembly is large. */
export function rangeOfMotion(it: Assembled, { key, home, least, most }: JointMotion): readonly [number, number] {
  const reach = key === 'turn' ? Math.PI : it.mechanism.size;
  return [least ?? home - reach, most ?? home + reach];
}

/** Homes that differ by less, mm or rad, are the same. */
const SAME_HOME = 1e-9;
/** What still can move is found again when the design has stood still for so long, ms: it may take a while. */
const FREEDOMS_AFTER_MS = 100;

export const useTogether = defineStore('together', () => {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const modes = useModes();
  const joining = modes.slot('join');

  const assembly = computed(() => (session.activeAssembly ? (design.design?.assemblies?.[session.activeAssembly] ?? null) : null)); // prettier-ignore
  const it = computed<Assembled | null>(() => {
    if (!design.design || !design.ledger || !session.activeAssembly || !assembly.value) return null;
    const { parts } = evaluation;
    return assembled(design.design, design.ledger, session.activeAssembly, (part) => {
      const view = parts.get(part);
      return view ? lookOfView(view) : null;
    });
  });
  /** Parts that stand elsewhere than where they were drawn from others. */
  const strayed = computed(() =>
    it.value && design.design && design.ledger
      ? strayedIn(design.design, design.ledger, it.value, (part) => {
          const view = evaluation.parts.get(part);
          return view ? lookOfView(view) : null;
        })
      : [],
  );
  const found = shallowRef<{ readonly of: Assembled; readonly freedoms: Freedoms } | null>(null);
  /** Null until they are found for what stands here now. */
  const freedoms = computed(() => (found.value?.of === it.value ? (found.value?.freedoms ?? null) : null));
  const finding = new FindingFreedoms();
  async function findFreedoms(own: Assembled | null): Promise<void> {
    if (!own?.closed) return void (found.value = null);
    try {
      const freedoms = await finding.of(own);
      if (freedoms) found.value = { of: own, freedoms };
    } catch (error) {
      session.notice = (error as Error).message;
    }
  }
  watchDebounced(it, findFreedoms, { debounce: FREEDOMS_AFTER_MS, maxWait: 500, immediate: true });

  const moving = useMoving(it, freedoms);
  const { now, goHome } = moving;
  const apart = useTakingApart(it, goHome);
  const { offsets, shiftedBy } = apart;

  const picked = shallowRef<readonly PickedSpot[]>([]);
  /** The frame under the pointer. */
  const pointed = shallowRef<PickedSpot | null>(null);
  const onlyFace = modes.slot('face');
  const movingHome = modes.slot('home');
  /** Instances picked as wholes, by id, in this assembly. */
  const chosen = shallowRef<ReadonlySet<string>>(new Set());
  /** The motion whose chart lies over the lower stage. */
  const charted = shallowRef<Charted | null>(null);
  /** The way of the followed point, in space, while its motion is charted. */
  const trace = shallowRef<readonly Vec3[]>([]);
  /** Weighed: these instances, or all; from a frame in space, or the origin. */
  const weighing = shallowRef<{
    readonly instances: ReadonlySet<string> | null;
    readonly from: { readonly pose: Pose; readonly label: string } | null;
  } | null>(null);
  /** The instance for which another part is being chosen. */
  const replacing = ref<string | null>(null);
  /** Instances that are being mirrored. */
  const mirroring = shallowRef<readonly string[] | null>(null);
  /** The instance of which a row or ring is being made. */
  const arranging = ref<string | null>(null);
  /** Faces lit besides those picked. */
  const lit = shallowRef<readonly Hit[]>([]);
  /** Shown alone, by member key; null shows all. */
  const alone = shallowRef<ReadonlySet<string> | null>(null);

  watch(
    () => session.activeAssembly,
    () => {
      picked.value = [];
      pointed.value = null;
      onlyFace.value = null;
      movingHome.value = null;
      chosen.value = new Set();
      alone.value = null;
      charted.value = null;
      weighing.value = null;
      arranging.value = null;
      mirroring.value = null;
      replacing.value = null;
      trace.value = [];
      apart.putTogether();
      goHome();
    },
  );
  /** Where a member stands, now or in another posture. */
  function poseOf(key: string, at = now.value): Pose {
    const member = it.value?.members.find((m) => m.key === key);
    if (!member || !at) return HERE;
    const pose = poseWithin(at.poses[member.link] ?? HERE, member.within);
    return at === now.value && offsets.value ? shiftedBy(pose, offsets.value[member.link]!) : pose;
  }

  /** Where all members stand now, by key. */
  const poses = computed(() => {
    const at = new Map<string, Pose>();
    for (const { key, link, within } of it.value?.members ?? []) {
      const own = now.value?.poses[link];
      if (!own) continue;
      const pose = poseWithin(own, within);
      at.set(key, offsets.value ? shiftedBy(pose, offsets.value[link]!) : pose);
    }
    return at;
  });

  /** The picked frames, what stands first: what is joined moves to what is held. */
  function inOrder(): readonly [PickedSpot, PickedSpot] | null {
    const [a, b] = picked.value;
    if (!a || !b || !it.value) return null;
    const [one, other] = [a, b].map((p) => it.value!.members.find((m) => m.key === p.member)?.link ?? 0);
    const ways = (link: number) => (it.value!.links[link]!.held ? -1 : (freedoms.value?.links[link]?.freedoms ?? 6));
    return ways(one!) > ways(other!) ? [b, a] : [a, b];
  }

  const nameOf = ({ member }: PickedSpot) => it.value!.members.find((m) => m.key === member)?.name ?? 'a part';

  /** Try a joint between the two picked frames: its sentence opens, Enter keeps it. */
  function join(kind: Joining['kind']): void {
    const sides = inOrder();
    if (!sides || !session.activeAssembly) return;
    const [a, b] = sides;
    const id = newId('j');
    const aligned = a.round && b.round && dotOf(a, b) >= 0;
    const joint: Joining = {
      kind,
      name: jointLabel(nameOf(a), nameOf(b)),
      a: { instance: [...a.path], on: a.spot },
      b: { instance: [...b.path], on: b.spot },
      ...(aligned ? { flip: true as const } : {}),
      numbers: kind === 'screw' ? { pitch: '1 mm' } : kind === 'angled' ? { angle: '90 deg' } : {},
    };
    begin(addJoint(session.activeAssembly, id, joint), id);
  }

  /** How far the z axes of two picked frames look the same way. */
  function dotOf(a: PickedSpot, b: PickedSpot): number {
    const up = (p: PickedSpot) => turned(poseWithin(poseOf(p.member), p.frame).turn, [0, 0, 1]);
    return dot(up(a), up(b));
  }

  /** Join two parts where they stand: the second keeps a frame where the first’s is. */
  function joinAsTheyStand(kind: Joining['kind']): void {
    const sides = inOrder();
    if (!sides || !session.activeAssembly) return;
    const [a, b] = sides;
    const id = newId('j');
    const { home } = it.value!;
    const stands = poseFrom(poseOf(b.member, home), poseWithin(poseOf(a.member, home), a.frame));
    const joint: Joining = {
      kind,
      name: jointLabel(nameOf(a), nameOf(b)),
      a: { instance: [...a.path], on: a.spot },
      b: { instance: [...b.path], on: { stands: { at: [...stands.at], turn: [...stands.turn] } } },
      flip: true,
      numbers: {},
    };
    begin(addJoint(session.activeAssembly, id, joint), id);
  }

  function begin(edit: Edit, id: string): void {
    goHome();
    apart.putTogether();
    session.notice = design.tryOut(edit);
    if (session.notice !== null) return;
    picked.value = [];
    joining.value = id;
  }

  /** Keep the joint that is tried, and with it where parts have come to stand. */
  function keepJoint(): void {
    const own = it.value;
    const home = session.activeAssembly && assembly.value ? homesMoved() : {};
    if (own?.closed && Object.keys(home).length > 0) {
      session.notice = design.edit(moveInstances(session.activeAssembly!, home));
      if (session.notice !== null) return;
    }
    session.notice = design.keepAttempt();
    if (session.notice === null) joining.value = null;
  }

  function dropJoint(): void {
    design.dropAttempt();
    joining.value = null;
  }

  /** Homes of instances that stand elsewhere than they are stored. */
  function homesMoved(
    at = it.value!.home,
  ): Record<string, { at: [number, number, number]; turn: [number, number, number, number] }> {
    const homes: ReturnType<typeof homesMoved> = {};
    for (const [i, { key, path, home }] of it.value!.links.entries()) {
      const pose = at.poses[i]!;
      const { by, turn } = posesApart(home, pose);
      if (path.length === 1 && assembly.value!.instances[key] && (by > SAME_HOME || turn > SAME_HOME))
        homes[key] = { at: [...pose.at], turn: [...pose.turn] };
    }
    return homes;
  }

  /** Where parts have moved to is their home from now on. */
  function settleHere(): void {
    const own = it.value;
    const there = now.value;
    if (!own || !there || !session.activeAssembly) return;
    session.notice = design.edit(moveInstances(session.activeAssembly, homesMoved(there)));
    if (session.notice === null) goHome();
  }

  /** What has come to stand elsewhere has its home there from now on. */
  function settleHomes(): void {
    if (it.value && session.activeAssembly)
      session.notice = design.edit(moveInstances(session.activeAssembly, homesMoved()));
  }

  /** A suppressed joint holds again. */
  function wake(joint: string): void {
    if (session.activeAssembly)
      session.notice = design.edit(changeJoint(session.activeAssembly, joint, { suppressed: false }));
  }

  return {
    assembly,
    it,
    strayed,
    settleHomes,
    settleHere,
    freedoms,
    ...moving,
    ...apart,
    picked,
    pointed,
    onlyFace,
    movingHome,
    chosen,
    alone,
    lit,
    charted,
    arranging,
    mirroring,
    weighing,
    replacing,
    trace,
    joining,
    poses,
    poseOf,
    join,
    joinAsTheyStand,
    keepJoint,
    dropJoint,
    wake,
  };
});
