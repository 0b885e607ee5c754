import { count, numberPart, type SentenceContext, type SentencePart } from '../sentence-parts.ts';
import type { ExtrudeStep } from './schema.ts';

const WAYS = [
  { value: 'one_way', label: 'one way' },
  { value: 'reversed', label: 'one way, reversed' },
  { value: 'both_ways', label: 'both ways' },
  { value: 'symmetric', label: 'symmetric' },
];

const RESULTS = [
  { value: 'new_body', label: 'a new body' },
  { value: 'join', label: 'joined to' },
  { value: 'cut', label: 'cut from' },
];

export function extrudeSentence(step: ExtrudeStep, context: SentenceContext): SentencePart[] {
  const sketch = context.part.steps[step.sketch]?.name ?? 'a deleted sketch';
  const regions = step.regions === 'all' ? 'all regions' : count(step.regions.length, 'region');
  const way = step.way === 'one_way' && step.reversed ? 'reversed' : step.way;
  const choice = (slot: string, choices: typeof WAYS, value: string): SentencePart => ({
    slot,
    kind: 'choice',
    label: choices.find((c) => c.value === value)!.label,
    choices,
  });
  const parts: SentencePart[] = [
    { text: 'Extrude' },
    { slot: 'regions', kind: 'regions', label: `${sketch}, ${regions}` },
    { text: 'by' },
    numberPart('distance', context),
    choice('way', WAYS, way),
  ];
  if (step.way === 'both_ways') parts.push({ text: 'and back' }, numberPart('back_distance', context));
  if (step.result === 'new_body') return [...parts, { text: 'as' }, choice('result', RESULTS, step.result)];
  const bodies = step.bodies === undefined || step.bodies === 'all' ? 'all bodies' : bodyNames(step.bodies, context);
  return [...parts, choice('result', RESULTS, step.result), { slot: 'bodies', kind: 'bodies', label: bodies }];
}

function bodyNames(ids: readonly string[], { part }: SentenceContext): string {
  return ids.map((id) => part.steps[id.replace(/\/.*$/, '')]?.name ?? 'a lost body').join(', ');
}
