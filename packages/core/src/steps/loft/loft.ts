/** A solid through sections. */
import { StepFailure } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import { nameOf } from '../../names/name.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { flag } from '../../slots/flag/flag.ts';
import type { PathFound } from '../../slots/path/path.ts';
import { walkAlong } from '../../slots/path/walk.ts';
import { paths } from '../../slots/paths/paths.ts';
import { sections, type Section, type SectionRef } from '../../slots/sections/sections.ts';
import type { StepData } from '../../slots/slot.ts';
import type { LoftSection } from '../../solid/kernel.ts';
import { toSpace } from '../../space/planes.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { thinExtras, thinned, thinSentence, thinSlots } from '../result/thin.ts';
import { refuseCrossing } from './crossing.ts';
import { guided } from './guides.ts';
import { centreOf, matched } from './matched.ts';
import { runningOn } from './running-on.ts';
import { squareTo, waysThrough, type Pulls } from './ways.ts';
import { wovenLoft } from './woven.ts';

const WAYS = { smooth: 'smoothly', ruled: 'straight from each to the next' } as const;
const AS = { square: 'square', running: 'as its faces run on' } as const;
type Outlined = Exclude<Section, { at: unknown }>;

export const loft = declareTools({
  kind: 'loft',
  version: 4,
  label: 'Loft',
  key: 'l',
  says: 'A solid through sections: regions, flat faces, and a place at either end.',
  slots: {
    sections: { of: sections() },
    way: { of: choice<keyof typeof WAYS>(WAYS), otherwise: () => 'smooth' as const },
    closed: { of: flag('from the first to the last', 'and back to the first'), otherwise: () => false },
    start_pull: {
      of: expression('number'),
      when: (step: StepData) => step.start_pull !== undefined,
      says: 'How strongly the first section is left, 1 being as by the distance to the next one.',
    },
    start_as: {
      of: choice<keyof typeof AS>(AS),
      when: (step: StepData) => step.start_pull !== undefined,
      otherwise: () => 'square' as const,
      says: 'square: at right angles to the section. running: of a face, as the faces beside it run on.',
    },
    end_pull: {
      of: expression('number'),
      when: (step: StepData) => step.end_pull !== undefined,
      says: 'The same of the last section.',
    },
    end_as: {
      of: choice<keyof typeof AS>(AS),
      when: (step: StepData) => step.end_pull !== undefined,
      otherwise: () => 'square' as const,
    },
    guides: {
      of: paths(),
      when: (step: StepData) => step.guides !== undefined,
      says: 'Curves that run through all the outlines; the sides keep to them.',
    },
    ...thinSlots,
    ...resultSlots,
  },
  begin({ picks }) {
    let stored: readonly SectionRef[] = [];
    for (const pick of picks) {
      if (pick.kind === 'edge') return null;
      // Regions of one sketch are of one profile; sections lie apart.
      const next = sections().take(stored, pick);
      if (!next) return null;
      stored = next;
    }
    const places = new Set(stored.map((s) => ('sketch' in s ? s.sketch : JSON.stringify(s))));
    if (stored.length < 2 || places.size < stored.length || !stored.some((s) => !('at' in s))) return null;
    return { sections: stored, way: 'smooth', closed: false, result: 'new_body' };
  },
  sentence: (step) => [
    'Loft through',
    { slot: 'sections' },
    { slot: 'way' },
    { slot: 'closed' },
    ...(step.start_pull === undefined
      ? []
      : ['leaving the first', { slot: 'start_as' }, 'pulling', { slot: 'start_pull' }]),
    ...(step.end_pull === undefined ? [] : ['reaching the last', { slot: 'end_as' }, 'pulling', { slot: 'end_pull' }]),
    ...(step.guides === undefined ? [] : ['led by', { slot: 'guides' }]),
    ...thinSentence(step),
    ...resultSentence(step),
  ],
  extras: (step) => [
    ...(step.start_pull === undefined
      ? [{ label: 'leave the first section in a direction', slot: 'start_pull', stored: '1' }]
      : []),
    ...(step.end_pull === undefined
      ? [{ label: 'reach the last section in a direction', slot: 'end_pull', stored: '1' }]
      : []),
    ...(step.guides === undefined ? [{ label: 'lead its sides by guides', slot: 'guides', stored: [] }] : []),
    ...thinExtras(step),
  ],
  tools({ sections: all, way, closed, start_pull, start_as, end_pull, end_as, guides, thin, thin_side }, context) {
    const { kernel, stepId } = context;
    const outlines = all.filter((s): s is Outlined => !('at' in s));
    refuse(all, outlines, closed);
    const pulls: Pulls = { start: start_pull ?? null, end: end_pull ?? null };
    refusePulls(pulls, all, way === 'ruled' || closed);
    if (guides) refuseGuides(guides, all, closed);
    const led = guides ? guided(outlines, guides.map((g) => walkAlong(g.pieces, kernel))) : null; // prettier-ignore
    const ready = led?.outlines ?? matched(outlines);
    if (led?.note) context.note(led.note);
    if (!led) {
      const places = all.flatMap((s, index) => ('at' in s ? [] : [index]));
      ready.forEach(({ frame, pieces }, i) => {
        const at = toSpace(frame, ...pieces[0]!.from);
        context.handle({
          slot: 'sections',
          index: places[i]!,
          at,
          center: centreOf(ready[i]!),
          x: frame.x,
          y: frame.y,
        });
      });
    }
    const leaving = (end: 'start' | 'end') => {
      const pull = pulls[end];
      if (pull === null) return null;
      if ((end === 'start' ? start_as : end_as) !== 'running') return squareTo(ready, end, pull);
      return runningOn(ready, end, pull, ready.at(end === 'start' ? 0 : -1)!.leaning);
    };
    const straight = way === 'ruled' || all.length === 2;
    const isWoven = led !== null || start_pull !== undefined || end_pull !== undefined;
    // What is woven looks at its own way.
    if (!isWoven && !closed && ready.length > 1)
      refuseCrossing(ready[0]!.pieces.length, waysThrough(ready, straight, { start: null, end: null }).place);
    let next = 0;
    const through = all.map((s): LoftSection => ('at' in s ? s : ready[next++]!));
    const { solid, faces } = isWoven
      ? kernel.woven(wovenLoft(ready, straight && !start_pull && !end_pull, { start: leaving('start'), end: leaving('end') }, led?.at ?? new Map())) // prettier-ignore
      : kernel.loft(through, straight, closed);
    const [first, final] = [ready[0]!, ready.at(-1)!];
    const called = (index: number) => {
      const { curve } = first.pieces[index]!;
      return first.called?.get(curve) ?? curve;
    };
    const faceNames = faces.map((from) => {
      const names = from.map((p) => (p.kind === 'edge' ? nameOf(stepId, 'side', [called(p.index)]) : nameOf(stepId, p.how, (p.how === 'start' ? first : final).parents))); // prettier-ignore
      return names.length > 0 ? [...new Set(names)] : [nameOf(stepId, 'new')];
    });
    const lofted = { solid, faces, faceNames, name: nameOf(stepId, BODY_ROLE, first.parents) };
    return thinned([lofted], thin, thin_side, context);
  },
});

/** @throws StepFailure where no solid goes through these */
function refuse(all: readonly Section[], outlines: readonly Outlined[], closed: boolean): void {
  if (outlines.length === 0)
    throw new StepFailure('A loft needs at least one outline; choose a region or a flat face.');
  if (all.slice(1, -1).some((s) => 'at' in s))
    throw new StepFailure('A place can only be the first or the last section; take the one between away.');
  if (closed && (outlines.length < 3 || outlines.length < all.length))
    throw new StepFailure(
      'A closed loft needs three outlines at least, and no place; add a section, or leave it open.',
    );
}

const MOST_PULLED = 10;

/** @throws StepFailure where ends cannot be left square */
function refusePulls(pulls: Pulls, all: readonly Section[], straight: boolean): void {
  const given = [pulls.start, pulls.end].filter((pull) => pull !== null);
  if (given.length === 0) return;
  if (straight || all.some((s) => 'at' in s))
    throw new StepFailure('Only a smooth loft through outlines, not closed, can leave its ends in a direction; make it smooth, or take the pull away.'); // prettier-ignore
  if (given.some((pull) => !(pull > 0 && pull <= MOST_PULLED)))
    throw new StepFailure(`A pull is more than 0 and at most ${MOST_PULLED}; give such a number.`);
}

/** @throws StepFailure where no guides can lead */
function refuseGuides(guides: readonly PathFound[], all: readonly Section[], closed: boolean): void {
  if (guides.length === 0)
    throw new StepFailure('No guide is chosen yet; choose a sketch or pick edges that run through all outlines.');
  if (closed || all.some((s) => 'at' in s))
    throw new StepFailure('Guides lead a loft through outlines from the first to the last; take the place or the way back to the first away, or the guides.'); // prettier-ignore
}
