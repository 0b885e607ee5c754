/** Steps done again elsewhere, all members at once; and copies of bodies. */
import { StepFailure, type Body } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf } from '../../names/name.ts';
import type { SolidKernel } from '../../solid/kernel.ts';
import { inPlace } from '../result/in-place.ts';
import { finish, type ResultKind } from '../result/result.ts';
import type { Again, Fresh, Making, Repeated, StepResult } from '../step.ts';
import { LazyFacts } from '../../names/facts.ts';
import { STAY, undone } from '../../space/transform.ts';
import { inMember, meaningIn, memberOfName, namedAfresh, shown, within, type Member } from './members.ts';

/** More members than these are refused: they would take minutes. */
export const MOST_MEMBERS = 2000;

/**
 * @param ids in the recipe's order
 * @throws StepFailure when one of them cannot be repeated, or a member cannot be made
 */
export function repeatSteps(
  ids: readonly string[],
  members: readonly Member[],
  adapting: boolean,
  context: Making,
): StepResult {
  let bodies = context.bodies;
  const origin = new Map<Body, Body | null>();
  const notes: string[] = [];
  for (const id of ids) {
    const again = context.again(id);
    const { tools } = again.kind;
    const now = { ...context, bodies };
    const inner = again.kind.places?.(again.resolved(bodies), now);
    if (!tools && !inner && !again.kind.worksOn)
      throw new StepFailure(
        `${context.stepName(id)} cannot be repeated; choose steps that make, cut or round something.`,
      );
    const result = inner
      ? repeatSteps(inner.steps, membersWithin(id, inner, ids, members, context), adapting || inner.adapting, now)
      : tools
        ? withTools(id, again, members, adapting, now)
        : onAlikeThings(id, new Set(ids), again, members, now);
    if (inner && result.note) notes.push(result.note);
    if (tools) notes.push(...idle(id, members, result, now));
    for (const { body, from } of result.made) origin.set(body, from && (origin.get(from) ?? from));
    bodies = inPlace(bodies, result);
  }
  if (lieInEachOther(context.bodies, bodies)) notes.push(IN_EACH_OTHER);
  const there = new Set(bodies);
  return {
    made: bodies.flatMap((body) => (origin.has(body) ? [{ body, from: origin.get(body)! }] : [])),
    used: context.bodies.filter((b) => !there.has(b)),
    ...(notes.length > 0 ? { note: notes.join(' ') } : {}),
  };
}

/** Faces whose centres, mm, and areas, mm², differ by less are the same. */
const SAME = 1e-6;
const IN_EACH_OTHER = 'A copy lies just where the same body is already; repeat it elsewhere, or take this step away.';

/** Is a new body face for face one that stayed, as when a body is mirrored in the plane it lies about? */
function lieInEachOther(before: readonly Body[], after: readonly Body[]): boolean {
  const there = new Set(before);
  const stayed = after.filter((b) => there.has(b));
  return after.some((copy) => !there.has(copy) && stayed.some((b) => isSameAs(copy, b)));
}

function isSameAs(one: Body, other: Body): boolean {
  return (
    one.faceNames.length === other.faceNames.length &&
    one.facts.faces.every((f) =>
      other.facts.faces.some(
        (g) => Math.abs(f.area - g.area) < SAME && f.center.every((c, i) => Math.abs(c - g.center[i]!) < SAME),
      ),
    )
  );
}

/** A pattern repeated: its members at every place, and what they are copies of where that is not repeated itself. @throws StepFailure */
function membersWithin(
  id: string,
  { steps, members: own }: Repeated,
  ids: readonly string[],
  members: readonly Member[],
  context: Making,
): Member[] {
  const beside = steps.filter((step) => ids.includes(step));
  if (beside.length > 0 && beside.length < steps.length)
    throw new StepFailure(`${context.stepName(id)} repeats ${steps.map(context.stepName).join(' and ')}; choose all of them with it, or none.`); // prettier-ignore
  const all = within(members, beside.length > 0 ? own : [{ key: '1', to: STAY }, ...own]);
  if (all.length > MOST_MEMBERS)
    throw new StepFailure(`With ${context.stepName(id)} this makes ${all.length} members, and ${MOST_MEMBERS} is the most there can be; give smaller counts.`); // prettier-ignore
  return all;
}

/** Its tools at every member's place, in one operation. */
function withTools(
  id: string,
  again: Again,
  members: readonly Member[],
  adapting: boolean,
  context: Making,
): StepResult {
  const inputs = again.resolved(context.bodies);
  const { result = 'cut', bodies } = inputs as { result?: ResultKind; bodies?: readonly Body[] };
  const own = { ...context, stepId: id };
  if (!adapting) {
    // Made as it was then: what it goes up to or comes out of may be gone since, by itself.
    const tools = again.kind.tools!(again.resolved(again.then), { ...own, bodies: again.then });
    return finish(result, bodies, placedAt(tools, members, context), context);
  }
  const fresh: Fresh[] = [];
  try {
    for (const member of members) fresh.push(...placedAt(fitted(again, member, own), [member], context));
  } catch (error) {
    for (const { solid } of fresh) context.kernel.free(solid);
    throw error;
  }
  return finish(result, bodies, fresh, context);
}

/** The tools as they are made where the member goes: the bodies come to the step, as it were, instead of the step to them. */
function fitted(again: Again, member: Member, context: Making): readonly Fresh[] {
  const { kernel } = context;
  const back = undone(member.to);
  const moved: Body[] = [];
  try {
    for (const body of context.bodies) {
      const { solid } = kernel.placed(body.solid, back);
      moved.push({ ...body, solid, facts: new LazyFacts(kernel, solid), key: `${body.key}@${member.key}` });
    }
    return again.kind.tools!(again.resolved(moved), { ...context, bodies: moved });
  } catch (error) {
    if (!(error instanceof StepFailure)) throw error;
    throw new StepFailure(`${context.stepName(context.stepId)} in member ${shown(member)}: ${error.message}`);
  } finally {
    for (const { solid } of moved) kernel.free(solid);
  }
}

/** @returns solids of their own; those given are let go of */
function placedAt(fresh: readonly Fresh[], members: readonly Member[], { kernel, stepId }: Making): Fresh[] {
  try {
    return members.flatMap((member) => fresh.map((f) => placed(f, member, kernel, stepId)));
  } finally {
    for (const { solid } of fresh) kernel.free(solid);
  }
}

function placed(
  { solid, faceNames, name }: Pick<Fresh, 'solid' | 'faceNames' | 'name'>,
  member: Member,
  kernel: SolidKernel,
  pattern: string,
): Fresh {
  return {
    ...kernel.placed(solid, member.to),
    name: nameOf(pattern, BODY_ROLE, [name, member.key]),
    faceNames: faceNames.map((names) => names.map((n) => inMember(pattern, member, n))),
  };
}

/** What it rounds, bevels or opens in the original, in all members in one operation. */
function onAlikeThings(
  id: string,
  repeated: ReadonlySet<string>,
  again: Again,
  members: readonly Member[],
  context: Making,
): StepResult {
  const { kind } = again;
  const slot = kind.worksOn!;
  const pattern = context.stepId;
  const all = members.map((member) => {
    try {
      return again.resolved(context.bodies, meaningIn(pattern, member, repeated));
    } catch (error) {
      if (!(error instanceof StepFailure)) throw error;
      throw new StepFailure(`${context.stepName(id)} in member ${shown(member)}: ${error.message}`);
    }
  });
  const inputs = { ...all[0]!, [slot]: all.flatMap((own) => own[slot] as readonly unknown[]) };
  return kind.make(inputs, {
    ...context,
    stepId: id,
    body: (name, solid, faceNames, facts) =>
      context.body(
        name,
        solid,
        faceNames.map((names) => names.map((n) => namedAfresh(pattern, id, members, n))),
        facts,
      ),
  });
}

/** A sentence about members of which nothing is to be seen afterwards; none when all did something. */
function idle(id: string, members: readonly Member[], { made }: StepResult, context: Making): string[] {
  const seen = new Set(
    made.flatMap(({ body }) =>
      body.faceNames.flatMap((names) => names.map((n) => (n.step === context.stepId ? memberOfName(n.step, n) : null))),
    ),
  );
  const none = members.filter((m) => !seen.has(m.key));
  if (none.length === 0) return [];
  const which = none.length > 5 ? `${none.length} members` : none.map(shown).join(', ');
  return [`Of ${context.stepName(id)}, member ${which} changed nothing where it lies.`];
}

/** Copies of whole bodies. @param joined to the bodies they are copies of */
export function repeatBodies(
  bodies: readonly Body[],
  members: readonly Member[],
  joined: boolean,
  context: Making,
): StepResult {
  const copies = members.flatMap((member) => bodies.map((b) => placed(b, member, context.kernel, context.stepId)));
  return finish(joined ? 'join' : 'new_body', bodies, copies, context);
}
