/** What can be done in an assembly with what is picked. */
import { addPart, addStep, JOINT_KINDS, keepPose, dot, markInstances, MATE_KINDS, newId, placedAt, placeInstances, poseWithin, removeInstances, severalEdits, turned, type Instance, type Step, type Vec3 } from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Verb } from '../verbs/verbs.ts';
import { useArranging } from './arranging.ts';
import { JOINT_NAMES } from './joint-words.ts';
import { faceMeant } from './offered-spots.ts';
import { useTogether, type PickedSpot } from './together-store.ts';

/** Joints of parts that are in their place already: about, along or on the frame of the one that stands. */
const AS_THEY_STAND = [
  ['rigid', 'Hold'],
  ['revolute', 'Turn'],
  ['prismatic', 'Slide'],
  ['cylindrical', 'Turn and slide'],
  ['planar', 'Glide'],
  ['spherical', 'Swivel'],
] as const;

export function useTogetherVerbs() {
  const design = useDesign();
  const session = useSession();
  const together = useTogether();
  const evaluation = useEvaluation();
  const arranging = useArranging();

  const instances = computed(() => [
    ...new Set([...together.chosen, ...together.picked.flatMap((p) => p.path.slice(0, 1))]),
  ]);

  const mark = (marks: Parameters<typeof markInstances>[2]) => {
    session.notice = design.edit(markInstances(session.activeAssembly!, instances.value, marks));
    together.picked = [];
  };

  const joinVerbs = (): Verb[] => {
    const [a, b] = together.picked;
    if (!a || !b || a.path[0] === b.path[0]) return [];
    return [
      ...JOINT_KINDS.map((kind): Verb => ({ id: kind, label: JOINT_NAMES[kind], run: () => together.join(kind) })),
    ];
  };

  /** Other ways to bring two parts together. */
  const mateVerbs = (): Verb[] => {
    const [a, b] = together.picked;
    if (!a || !b || a.path[0] === b.path[0]) return [];
    return [
      ...MATE_KINDS.map((kind): Verb => ({ id: kind, label: JOINT_NAMES[kind], run: () => together.join(kind) })),
      ...AS_THEY_STAND.map(([kind, does]): Verb => ({ id: `${kind}-as-they-stand`, label: `${does} as they stand`, run: () => together.joinAsTheyStand(kind) })), // prettier-ignore
      ...(meantOf(a) && meantOf(b) ? [{ id: 'allow-between', label: 'Allow a fit between them', run: () => allowFit(meantOf(a)!.hollow ? a : b) }] : []), // prettier-ignore
    ];
  };

  const instanceVerbs = (): Verb[] => {
    const ids = instances.value;
    const own = together.assembly;
    if (ids.length === 0 || !own) return [];
    const all = (key: 'fixed' | 'hidden' | 'suppressed') => ids.every((id) => own.instances[id]?.[key]);
    const members = (together.it?.members ?? []).filter((m) => ids.includes(m.path[0]!)).map((m) => m.key);
    return [
      { id: 'fix', label: all('fixed') ? 'Free' : 'Fix', run: () => mark({ fixed: !all('fixed') }) },
      { id: 'hide', label: all('hidden') ? 'Show' : 'Hide', run: () => mark({ hidden: !all('hidden') }) },
      { id: 'alone', label: together.alone ? 'Show all' : 'Show alone', run: () => (together.alone = together.alone ? null : new Set(members)) }, // prettier-ignore
      { id: 'suppress', label: 'Suppress', run: () => mark({ suppressed: true }) },
      { id: 'copy', label: 'Copy', run: () => arranging.copy(ids) },
      { id: 'mirror', label: 'Mirror', run: () => void (together.mirroring = ids) },
      ...(ids.length === 1
        ? [
            {
              id: 'move-home',
              label: 'Move its home',
              active: together.movingHome === ids[0],
              run: () => moveHome(ids[0]!),
            },
            { id: 'arrange', label: 'Row or ring', run: () => void (together.arranging = ids[0]!) },
            { id: 'replace', label: 'Replace', run: () => void (together.replacing = ids[0]!) },
          ]
        : [
            { id: 'push', label: 'Push each other', run: () => void (together.contacts = { among: new Set(ids) }) },
            { id: 'gather', label: 'Gather', run: () => arranging.gather(ids) },
          ]),
      ...(ids.length === 1 && 'assembly' in own.instances[ids[0]!]!.of
        ? [
            { id: 'dissolve', label: 'Dissolve', run: () => arranging.dissolve(ids[0]!) },
            {
              id: 'moves',
              label: own.instances[ids[0]!]!.moves ? 'Move as one' : 'Let move within',
              run: () => mark({ moves: !own.instances[ids[0]!]!.moves }),
            },
          ]
        : []),
      {
        id: 'remove',
        label: 'Remove',
        run() {
          session.notice = design.edit(removeInstances(session.activeAssembly!, ids));
          together.picked = [];
          together.chosen = new Set();
        },
      },
    ];
  };

  function moveHome(id: string): void {
    together.goHome();
    together.movingHome = together.movingHome === id ? null : id;
    together.picked = [];
  }

  /** Of the face that is picked or under the pointer. */
  const faceVerbs = (): Verb[] => {
    const { hit, frame, member } = together.picked.at(-1) ?? together.pointed ?? {};
    if (together.onlyFace || hit?.kind !== 'face' || !frame || !member) return [];
    return [
      { id: 'only-face', label: 'Only this face', key: 'k', run: () => void (together.onlyFace = hit) },
      { id: 'allow', label: 'Allow a fit', run: () => allowFit(together.picked.at(-1) ?? together.pointed!) },
    ];
  };

  const partOf = (member: string) => together.it?.members.find((m) => m.key === member)?.part;
  const meantOf = (picked: PickedSpot) => {
    const view = evaluation.parts.get(partOf(picked.member) ?? '');
    return view ? faceMeant(picked, view) : null;
  };

  /** The face gives way for a fit: a step of its part, which is opened where it stands. Of bore and shank it is the bore. */
  function allowFit(picked: PickedSpot): void {
    const [part, meant] = [partOf(picked.member), meantOf(picked)];
    if (!part || !meant) return;
    const { path } = picked;
    const step = { kind: 'allowance', name: 'Allowance', faces: [meant.face], fit: 'sliding', process: 'milled', applied: 'exports' } as Step; // prettier-ignore
    session.notice = design.edit(addStep(part, newId('s'), step));
    if (session.notice === null) session.openInPlace(part, { assembly: session.activeAssembly!, instance: path });
  }

  /** Through the picked flat face, else through the middle. */
  const sectionVerb = (): Verb => ({
    id: 'section',
    label: 'Section',
    active: session.section.length > 0,
    run() {
      if (session.section.length > 0) return void (session.section = []);
      const [spot] = together.picked;
      const at = spot && poseWithin(together.poseOf(spot.member), spot.frame);
      const normal: Vec3 = at ? turned(at.turn, [0, 0, 1]) : [0, -1, 0];
      session.section = [{ normal, at: at ? dot(normal, at.at) : middleAlong(normal) }];
      together.picked = [];
    },
  });

  /** Of the instances picked in the list, else of all; from the frame picked on the stage. */
  function weigh(): void {
    const [spot] = together.picked;
    together.weighing = {
      instances: together.chosen.size > 0 ? together.chosen : null,
      from: spot ? { pose: poseWithin(together.poseOf(spot.member), spot.frame), label: spot.label } : null,
    };
  }

  function middleAlong(normal: Vec3): number {
    const ends = (together.it?.members ?? []).flatMap(({ key, part }) =>
      (evaluation.parts.get(part)?.bodies ?? []).map((b) => dot(normal, placedAt(together.poseOf(key), b.center))),
    );
    return ends.length > 0 ? (Math.min(...ends) + Math.max(...ends)) / 2 : 0;
  }

  const restVerbs = (): Verb[] => [
    ...((together.it?.joints.length ?? 0) > 0
      ? [{ id: 'touch', label: 'Push at touch', active: together.contacts === 'all', run: () => void (together.contacts = together.contacts === 'all' ? 'none' : 'all') }] // prettier-ignore
      : []),
    ...(together.moved
      ? [
          { id: 'home', label: 'Home', key: 'h', run: () => together.goHome() },
          { id: 'keep-pose', label: 'Keep this pose', run: keepThisPose },
          { id: 'settle', label: 'Make this the home', run: () => together.settleHere() },
        ]
      : []),
    ...((together.it?.members.length ?? 0) > 1
      ? [{ id: 'apart', label: together.apart ? 'Put together' : 'Take apart', active: together.apart !== null, run: () => together.takeApart() }] // prettier-ignore
      : []),
    ...(together.apart ? [{ id: 'keep-apart', label: 'Keep this view', run: () => keepThisPose() }] : []),
    ...((together.it?.members.length ?? 0) > 0
      ? [{ id: 'parts', label: 'Parts list', active: session.showParts, run: () => void (session.showParts = !session.showParts) }] // prettier-ignore
      : []),
    ...((together.it?.members.length ?? 0) > 0 ? [sectionVerb(), { id: 'weigh', label: 'Weigh', run: weigh }] : []),
    { id: 'new-here', label: 'New part here', run: newPartHere },
    ...(together.alone ? [{ id: 'all', label: 'Show all', run: () => (together.alone = null) }] : []),
  ];

  /** A part drawn in its place, with the others round it. */
  function newPartHere(): void {
    const names = new Set(Object.values(design.design?.parts ?? {}).map((p) => p.name));
    let n = 1;
    while (names.has(`Part ${n}`)) n++;
    const [part, instance, assembly] = [newId('p'), newId('i'), session.activeAssembly!];
    const home = { at: [0, 0, 0], turn: [0, 0, 0, 1] } satisfies Instance['home'];
    session.notice = design.edit(
      severalEdits('Add a part in place', [
        addPart(part, `Part ${n}`),
        placeInstances(assembly, [[instance, { of: { part }, home }]]),
      ]),
    );
    if (session.notice === null) session.openInPlace(part, { assembly, instance: [instance] });
  }

  function keepThisPose(): void {
    const at = Object.fromEntries([...together.poses].map(([key, { at: p, turn }]) => [key, { at: [...p] as [number, number, number], turn: [...turn] as [number, number, number, number] }])); // prettier-ignore
    session.notice = design.edit(
      keepPose(
        session.activeAssembly!,
        newId('k'),
        together.apart ? { name: 'Taken apart', at, exploded: true } : { name: 'Pose', at },
      ),
    );
  }

  const joining = computed(() => together.joining !== null);
  const shown = computed<Verb[]>(() => {
    if (joining.value) return [];
    const joins = joinVerbs();
    return joins.length > 0 ? joins : [...(together.picked.length > 0 ? faceVerbs() : []), ...instanceVerbs(), ...restVerbs()]; // prettier-ignore
  });
  const mates = computed<Verb[]>(() => (joining.value ? [] : mateVerbs()));
  const verbs = computed<Verb[]>(() =>
    joining.value ? [] : [...joinVerbs(), ...mates.value, ...instanceVerbs(), ...faceVerbs(), ...restVerbs()],
  );
  const subject = computed(() => {
    if (together.joining !== null) return 'New joint';
    const [a, b] = together.picked;
    if (a && b) return `${a.label}  and  ${b.label}`;
    return a?.label ?? (together.chosen.size > 0 ? `${together.chosen.size} picked` : '');
  });
  const hint = computed(() => {
    if (together.joining !== null) return 'Set its numbers in its sentence; Enter keeps it.';
    if (together.onlyFace) return 'Pick one of the frames of this face; Escape lets go of it.';
    if (together.picked.length === 1)
      return 'Pick a frame on another part to join them; Shift and another face or edge of this one for the middle or the crossing.';
    return verbs.value.length === 0 ? 'Pick a face, rim or edge of a part; drag a part to move it.' : '';
  });
  return { shown, mates, verbs, subject, hint };
}
