/** What a step's fresh solids do to the bodies already there. */
import { StepFailure, type Body } from '../../part/body.ts';
import { numberEquals } from '../../part/face-names.ts';
import { LazyFacts } from '../../part/facts.ts';
import { hashText } from '../../part/hash.ts';
import type { BooleanKind, BooleanSolid } from '../../solid/kernel.ts';
import type { StepContext } from '../context.ts';

/**
 * @param chosen bodies acted on: all, or by id
 * @param tools the step's own solids
 * @throws StepFailure when nothing is there to act on, or the outcome is no sound solid
 */
export function combineWith(
  result: 'new_body' | 'join' | 'cut',
  chosen: 'all' | readonly string[],
  tools: readonly Body[],
  stepName: string,
  context: StepContext,
  key: string,
): Body[] {
  if (result === 'new_body') return [...context.bodies, ...tools];
  const targets = targetsOf(result, chosen, context.bodies);
  const others = context.bodies.filter((b) => !targets.includes(b));
  const combinedKey = hashText(JSON.stringify([result, key, targets.map((b) => b.key)]));
  const combined = context.once(combinedKey, () => combine(result, targets, tools, stepName, context));
  // Bodies the step did not touch come through as they were.
  const untouched = targets.filter((t) => combined.some((c) => c.key === t.key));
  const order = new Map(context.bodies.map((b, i) => [b.id, i]));
  const place = (b: Body) => order.get(b.id) ?? Infinity;
  return [...others, ...untouched, ...combined.filter((c) => !untouched.some((u) => u.key === c.key))].sort(
    (a, b) => place(a) - place(b),
  );
}

function targetsOf(result: BooleanKind, chosen: 'all' | readonly string[], bodies: readonly Body[]): Body[] {
  if (bodies.length === 0) {
    throw new StepFailure(`There is no body to ${result === 'join' ? 'join to' : 'cut'} yet; make a new body instead.`);
  }
  if (chosen === 'all') return [...bodies];
  return chosen.map((id) => {
    const body = bodies.find((b) => b.id === id);
    if (!body)
      throw new StepFailure(
        `A body this step ${result === 'join' ? 'joins to' : 'cuts'} is no longer there; choose its bodies again.`,
      );
    return body;
  });
}

function combine(
  kind: BooleanKind,
  targets: readonly Body[],
  tools: readonly Body[],
  stepName: string,
  context: StepContext,
): Body[] {
  const solids = context.kernel.combine(
    kind,
    targets.map((b) => b.solid),
    tools.map((b) => b.solid),
  );
  try {
    return bodiesFrom(kind, solids, targets, tools, stepName, context);
  } catch (error) {
    for (const made of solids) context.kernel.free(made.solid);
    throw error;
  }
}

function bodiesFrom(
  kind: BooleanKind,
  solids: readonly BooleanSolid[],
  targets: readonly Body[],
  tools: readonly Body[],
  stepName: string,
  context: StepContext,
): Body[] {
  const { kernel } = context;
  if (solids.length === 0)
    throw new StepFailure(`This would cut ${listNames(targets)} away entirely; nothing would be left.`);
  const args = [...targets, ...tools];
  const bodies: Body[] = [];
  const pieces = new Map<string, number>();
  for (const made of solids) {
    const from = [...new Set(made.faces.map((f) => f.argument))].filter((a) => a >= 0).sort((a, b) => a - b);
    const target = targets[from[0] ?? Infinity];
    if (!target) {
      throw new StepFailure(
        `This does not touch ${listNames(targets)}, so there is nothing to join; make it a new body, or move it.`,
      );
    }
    const facts = new LazyFacts(kernel, made.solid);
    if (
      from.length === 1 &&
      made.faces.length === target.faceNames.length &&
      sameVolume(facts.volume, target.facts.volume)
    ) {
      kernel.free(made.solid);
      bodies.push(target);
      continue;
    }
    if (!facts.valid)
      throw new StepFailure(
        'The outcome is not a sound solid; look for faces that nearly coincide, and move one a little.',
      );
    const names = made.faces.map((f) => args[f.argument]?.faceNames[f.face] ?? `${context.stepId}:new`);
    const count = (pieces.get(target.id) ?? 0) + 1;
    pieces.set(target.id, count);
    const id = count === 1 ? target.id : `${target.id}/${context.stepId}_${count}`;
    bodies.push(
      context.body(
        id,
        target.name,
        made.solid,
        numberEquals(names, (f) => facts.faces[f]!.center),
      ),
    );
  }
  if (kind === 'cut' && bodies.every((b) => targets.includes(b))) {
    throw new StepFailure(`This cuts nothing: ${stepName} does not reach ${listNames(targets)}.`);
  }
  return bodies;
}

function sameVolume(a: number, b: number): boolean {
  return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b));
}

function listNames(bodies: readonly Body[]): string {
  const names = [...new Set(bodies.map((b) => b.name))];
  return names.length > 3 ? `${names.length} bodies` : names.join(' or ');
}
