/** What is repeated: steps, or bodies. The slots of every kind that repeats. */
import type { Body } from '../../names/body.ts';
import { bodies } from '../../slots/bodies/bodies.ts';
import { choice } from '../../slots/choice/choice.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { StepData } from '../../slots/slot.ts';
import { steps } from '../../slots/steps/steps.ts';
import type { Beginning, Making, SentencePiece, StepResult } from '../step.ts';
import type { Member } from './members.ts';
import { repeatBodies, repeatSteps } from './repeat.ts';

const WHAT = { steps: 'the steps', bodies: 'the bodies' } as const;

const ofBodies = (step: StepData) => step.what === 'bodies';

export const whatSlots = {
  what: { of: choice<keyof typeof WHAT>(WHAT) },
  steps: { of: steps(), when: (step: StepData) => step.what === 'steps', says: 'Done again in every member.' },
  bodies: { of: bodies(), when: ofBodies, otherwise: () => 'all' as const },
  adapting: {
    of: flag('as they are', 'each fitted to where it goes'),
    when: (step: StepData) => step.what === 'steps',
    otherwise: () => false,
    says: 'Of steps: true makes them anew in each place, so that one “up to the next face” finds its own.',
  },
  joined: {
    of: flag('as new bodies', 'joined to them'),
    when: ofBodies,
    otherwise: () => false,
    says: 'Of bodies: true joins the copies to the bodies they are copies of.',
  },
};

export const whatSentence = (step: StepData): SentencePiece[] => [
  { slot: 'what' },
  { slot: ofBodies(step) ? 'bodies' : 'steps' },
  ...(ofBodies(step) ? [] : [{ slot: 'adapting' }]),
];

/** From picked faces and edges: the steps that made them. */
export function whatPicked({ picks }: Beginning): { what: 'steps'; steps: readonly string[] } | null {
  const stored = picks.reduce<readonly string[] | null>((now, pick) => {
    const next = now && steps().take(now, pick);
    // Picked twice over is picked once.
    return next && (now.length > next.length ? now : next);
  }, []);
  return stored && stored.length > 0 ? { what: 'steps', steps: stored } : null;
}

export function repeat(
  what: { readonly what: 'steps' | 'bodies'; readonly steps?: readonly string[] | undefined; readonly bodies?: readonly Body[] | undefined; readonly joined?: boolean | undefined; readonly adapting?: boolean | undefined }, // prettier-ignore
  members: readonly Member[],
  context: Making,
): StepResult {
  // One alone is there already.
  if (members.length === 0) return { made: [], used: [] };
  return what.what === 'steps'
    ? repeatSteps(what.steps!, members, what.adapting ?? false, context)
    : repeatBodies(what.bodies!, members, what.joined ?? false, context);
}
