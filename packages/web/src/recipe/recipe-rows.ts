/** The recipe as it is listed: steps one by one, or under the name of their group; or only those looked for. */
import { kindOf, numbersOf, type Part } from '@helb/core';

export interface RecipeRow {
  readonly group: string | null;
  /** In the recipe’s order. */
  readonly steps: readonly string[];
}

/** Steps beside each other that name the same group stand in one row. */
export function recipeRows({ stepOrder, steps }: Part, wanted: string): RecipeRow[] {
  const rows: { group: string | null; steps: string[] }[] = [];
  let before: string | null = null;
  for (const id of stepOrder) {
    const group = steps[id]!.group ?? null;
    if (group !== null && group === before) rows.at(-1)!.steps.push(id);
    else rows.push({ group, steps: [id] });
    before = group;
  }
  if (!wanted.trim()) return rows;
  const text = wanted.trim().toLowerCase();
  const found = (id: string) => wordsOf(steps[id]!).some((word) => word.toLowerCase().includes(text));
  return rows.map((row) => ({ group: row.group, steps: row.steps.filter(found) })).filter((r) => r.steps.length > 0);
}

/** What a step can be found by: its name, its kind, its numbers. */
const wordsOf = (step: Part['steps'][string]): string[] => [
  step.name,
  kindOf(step).label,
  ...(step.group ? [step.group] : []),
  ...numbersOf(step).flatMap(({ name, expression }) => [name, expression]),
];
