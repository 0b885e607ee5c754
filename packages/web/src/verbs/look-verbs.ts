/** What can be done with what is picked that changes no shape: to look, to weigh, to write out, to take it elsewhere. */
import { bodyToPart, HERE, namedBody, newId, poseOfFrame, refOfBody, type BodyView, type Vec3 } from '@helb/core';
import type { ComputedRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { Verb } from './verbs.ts';

/** @param bodiesHere those there are where one stands in the recipe */
export function useLookVerbs(bodiesHere: ComputedRef<readonly BodyView[]>) {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  type Picks = typeof session.picks;

  const lookVerbs = (picks: Picks): Verb[] =>
    picks.length > 0
      ? [...faceVerbs(picks), ...bodyVerbs(picks), ...weighVerb(picks)]
      : [
          ...middleSection(),
          ...weighVerb([]),
          ...(session.hidden.size > 0
            ? [{ id: 'show-all', label: 'Show all bodies', run: () => hide(new Set()) }]
            : []),
        ];

  /** Of one flat face: its outline as a file to cut by, and a look into the part along it. */
  function faceVerbs([pick, ...more]: Picks): Verb[] {
    if (pick?.kind !== 'face' || !pick.flat || more.length > 0) return [];
    const facts = bodiesHere.value.find((b) => b.id === pick.body)?.faces[pick.face];
    return [
      { id: 'outline', label: 'Write outline', run: () => (session.outlining = pick.ref) },
      ...(facts?.normal ? [sectionVerb(facts.normal, along(facts.center, facts.normal))] : []),
    ];
  }

  /** Of the bodies of what is picked, where there are others: to see what they stand before. */
  function bodyVerbs(picks: Picks): Verb[] {
    const own = new Set(picks.flatMap((p) => ('body' in p ? [p.body] : [])));
    const others = bodiesHere.value.map((b) => b.id).filter((id) => !own.has(id));
    if (own.size === 0 || others.length === 0) return [];
    return [
      { id: 'hide', label: 'Hide', run: () => hide(new Set([...session.hidden, ...own])) },
      { id: 'alone', label: 'Show alone', run: () => hide(new Set(others)) },
      ...(own.size === 1 && session.standing === null
        ? [{ id: 'body-part', label: 'Make a part of it', run: () => partOf([...own][0]!) }]
        : []),
    ];
  }

  /** From a corner, or in the axes of a frame or plane that the recipe sets up. */
  function fromPicked(pick: Picks[number]) {
    if (pick.kind === 'vertex') return { pose: { ...HERE, at: pick.at }, label: 'the corner' };
    if (pick.kind !== 'step' || pick.is !== 'plane' || !session.activePart) return null;
    const set = evaluation.parts.get(session.activePart)?.steps.find((s) => s.id === pick.step)?.datum;
    const name = design.design?.parts[session.activePart]?.steps[pick.step]?.name ?? 'the frame';
    return set?.kind === 'plane' ? { pose: poseOfFrame(set.frame), label: name } : null;
  }

  /** Of the part, its centre from a picked corner or frame; or of the body of a picked face. */
  function weighVerb([pick, ...more]: Picks): Verb[] {
    if (bodiesHere.value.length === 0 || more.length > 0) return [];
    const from = pick ? fromPicked(pick) : null;
    const body = pick && 'body' in pick ? pick.body : null;
    if (pick && !from && body === null) return [];
    return [{ id: 'weigh', label: 'Weigh', run: () => (session.weighing = { body, from }) }];
  }

  function hide(bodies: ReadonlySet<string>): void {
    session.picks = [];
    session.hidden = bodies;
  }

  const along = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

  const sectionVerb = (normal: Vec3, at: number): Verb => ({
    id: 'section',
    label: 'Section',
    active: session.section.length > 0,
    run() {
      session.picks = [];
      session.section = session.section.length > 0 ? [] : [{ normal, at }];
    },
  });

  /** Through the middle of the part, seen from where one looks first. */
  function middleSection(): Verb[] {
    const bodies = bodiesHere.value;
    if (bodies.length === 0) return [];
    const ends = bodies.flatMap((b) => [b.box.min[1], b.box.max[1]]);
    return [sectionVerb([0, -1, 0], -(Math.min(...ends) + Math.max(...ends)) / 2)];
  }

  /** The body goes to a part of its own, which is opened. */
  function partOf(body: string): void {
    const part = session.activePart;
    const home = part ? design.design?.parts[part] : undefined;
    const own = bodiesHere.value.find((b) => b.id === body);
    if (!part || !home || !own) return;
    const all = bodiesHere.value.map(namedBody);
    const ref = (view: BodyView) => refOfBody(all[bodiesHere.value.indexOf(view)]!, all);
    const to = newId('p');
    session.notice = design.edit(
      bodyToPart({
        part,
        body: ref(own),
        others: bodiesHere.value.filter((b) => b !== own).map(ref),
        to,
        name: freshPartName(`${home.name}, ${home.steps[own.step]?.name ?? 'body'}`),
        copies: home.stepOrder.map((id) => [id, newId('s')] as const),
        removes: [newId('s'), newId('s')],
      }),
    );
    if (session.notice === null) session.openPart(to);
  }

  function freshPartName(base: string): string {
    const taken = new Set(Object.values(design.design?.parts ?? {}).map((p) => p.name));
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base} ${n}`;
    return name.slice(-80);
  }

  return lookVerbs;
}
