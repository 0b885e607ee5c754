/** Changes taken into the truth: a command run on the newest state, whatever state it was made on. */
import { applyCommand, readsOf } from '../document/command.ts';
import { faultOfTouched } from '../document/consistency.ts';
import type { Design } from '../document/schema.ts';
import { clashBetween, inverted, isDecided, type Touch } from '../document/touches.ts';
import { Ledger } from '../ledger/ledger.ts';
import { stepsUsedBy } from '../steps/slots-of.ts';
import { retouched } from './revert.ts';
import { shownLabel } from './label.ts';

/** A change that is in the log already. */
export interface Earlier {
  readonly label: string;
  /** Who made it, as the beginning of a sentence: “Someone else”, “You”, a name. */
  readonly by: string;
  readonly touches: readonly Touch[];
  /** What it took over as it stood, as paths. */
  readonly reads: readonly (readonly string[])[];
}

/** What is asked: a command, or that an earlier change be taken back or made again. */
export type Asked =
  | { readonly kind: 'edit' | 'follow'; readonly command: string; readonly args: unknown }
  | { readonly kind: 'undo' | 'redo'; readonly earlier: Earlier };

export type Taken =
  | {
      readonly ok: true;
      readonly design: Design;
      readonly touches: readonly Touch[];
      readonly label: string;
    }
  | { readonly ok: false; readonly message: string };

const refuse = (message: string): Taken => ({ ok: false, message });

/**
 * @param design the newest state
 * @param since what was done between the state on which this was asked and the newest; of an undo or redo, since the
 * change it concerns, oldest first
 */
export function take(design: Design, asked: Asked, since: readonly Earlier[]): Taken {
  const made = 'earlier' in asked ? turned(design, asked, since) : run(design, asked, since);
  if (!made.ok) return made;
  const fault = faultOfTouched(made.design, made.touches);
  if (fault) return refuse(`This change would leave the design unsound: ${fault}`);
  const broken = since.length > 0 ? brokenTogether(design, made.design, made.touches, since) : null;
  if (broken) return refuse(`${meanwhile(broken.because)}; with it this cannot stand: ${broken.says}`);
  return made;
}

const meanwhile = (change: Earlier | undefined) =>
  change ? `${change.by} made “${change.label}” meanwhile` : 'The design was changed meanwhile';

function run(
  design: Design,
  asked: { readonly command: string; readonly args: unknown },
  since: readonly Earlier[],
): Taken {
  const applied = applyCommand(design, asked.command, asked.args);
  if (!applied.ok) {
    const last = since.findLast((s) => s.touches.some((t) => !t.loose));
    return refuse(last ? `${meanwhile(last)}; now this cannot be made: ${applied.message}` : applied.message);
  }
  const reads = readsOf(asked.command, asked.args);
  const other = since.find(
    (s) =>
      clashBetween(applied.touches, s.touches) !== null ||
      isDecided(reads, s.touches) ||
      isDecided(s.reads, applied.touches),
  );
  if (other) return refuse(`${meanwhile(other)}, which decides the same; yours was not made. Look, and make it again if it is still wanted.`); // prettier-ignore
  return { ...applied, label: shownLabel(applied.edit.label, design) };
}

function turned(
  design: Design,
  { kind, earlier }: { readonly kind: 'undo' | 'redo'; readonly earlier: Earlier },
  since: readonly Earlier[],
): Taken {
  const outcome = retouched(design, kind === 'undo' ? inverted(earlier.touches) : earlier.touches);
  if (outcome.ok) return { ...outcome, label: earlier.label };
  const builtOn = since.findLast((s) => clashBetween([outcome.at], s.touches));
  return refuse(
    `“${earlier.label}” cannot be ${kind === 'undo' ? 'taken back' : 'made again'} any more: ${builtOn ? `${builtOn.by} built on it with “${builtOn.label}”` : 'what it touches was changed since'}.`,
  );
}

/** What neither of two changes did alone: a number without a value, a step without what it rests on. */
function brokenTogether(
  before: Design,
  after: Design,
  touches: readonly Touch[],
  since: readonly Earlier[],
): { readonly says: string; readonly because: Earlier | undefined } | null {
  const [was, is] = [Ledger.of(before), Ledger.of(after)];
  for (const entry of is.entries) {
    const value = is.valueOfEntry(entry);
    if (value.ok) continue;
    const known = was.index.byReference(entry.ref);
    if (known && !was.valueOfEntry(known).ok) continue;
    const ids = entry.ref.split('.');
    const wrote = ({ path, loose }: Touch) => !loose && ids.every((id) => path.includes(id));
    const because = since.findLast((s) => s.touches.some(wrote)) ?? since.at(-1);
    return { says: `${entry.path.join('.')}: ${value.message}`, because };
  }
  return missingStep(after, touches, since) ?? null;
}

/** A step used by one change and deleted by the other. */
function missingStep(after: Design, touches: readonly Touch[], since: readonly Earlier[]) {
  const inStep = ({ path }: Touch) => path[0] === 'parts' && path[2] === 'steps' && path.length >= 4;
  const gone = (of: readonly Touch[]) => of.filter((t) => inStep(t) && t.path.length === 4 && t.is === undefined).map((t) => t.path[3]!); // prettier-ignore
  const used = (of: readonly Touch[], lost: ReadonlySet<string>) => {
    for (const { path } of of.filter(inStep)) {
      const step = after.parts[path[1]!]?.steps[path[3]!];
      if (step && stepsUsedBy(step).some((id) => lost.has(id))) return `${step.name} would miss what it rests on.`;
    }
    return null;
  };
  for (const because of since) {
    const says = used(touches, new Set(gone(because.touches))) ?? used(because.touches, new Set(gone(touches)));
    if (says) return { says, because };
  }
  return null;
}
