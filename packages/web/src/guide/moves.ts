/** The moves of a first part: what is to be done with one's own hands, and when it was. */
import { asSketch, type Design, type PartView, type Step } from '@helb/core';

export interface Standing {
  readonly design: Design;
  /** The part one works on. */
  readonly steps: readonly Step[];
  readonly view: PartView | undefined;
  readonly showFlex: boolean;
  /** How things were when the move began. */
  readonly before: Remembered;
}

/** The numbers of the sketches as text, and whether a step has failed since. */
export interface Remembered {
  readonly numbers: string;
  readonly failed: boolean;
}

export interface Move {
  readonly title: string;
  readonly says: string;
  isDone(now: Standing): boolean;
  /** What to click first, to be ringed. */
  target?(): Element | null | undefined;
}

const of = ({ steps }: Standing, kind: string) => steps.find((s) => s.kind === kind);
const sketchOf = ({ steps }: Standing) => steps.map((s) => asSketch(s)).find((s) => s !== null);
/** Does a step fail? */
export const failing = ({ view }: Standing) => view?.steps.some((s) => s.status === 'failed') ?? false;

/** The numbers of all sketches, as one text. */
export const numbersIn = (steps: readonly Step[]): string =>
  JSON.stringify(
    steps.flatMap((s) => Object.values(asSketch(s)?.constraints ?? {}).flatMap((c) => ('value' in c ? [c.value] : []))),
  );

const button = (text: string, within = 'main, body') =>
  [...document.querySelectorAll(`:is(${within}) button`)].find((b) => b.textContent?.trim().startsWith(text));
const labelled = (label: string) => document.querySelector(`[aria-label="${label}"]`);

export const MOVES: readonly Move[] = [
  {
    title: 'A plane to draw on',
    says: 'Click the tab “floor plane” on the stage. A sketch opens on it.',
    isDone: (now) => sketchOf(now) !== undefined,
    target: () => button('floor plane', '[data-testid="stage"]'),
  },
  {
    title: 'A rectangle of true size',
    says: 'Press r. Click where the two axes cross, move up and right, and type: 60, Tab, 40, Enter. Lines turn from pencil to ink: nothing can move any more. Esc puts the tool down.',
    isDone(now) {
      const sketch = sketchOf(now);
      const numbers = Object.values(sketch?.constraints ?? {}).filter((c) => 'value' in c);
      return Object.keys(sketch?.curves ?? {}).length >= 4 && numbers.length >= 2;
    },
    target: () => labelled('Rectangle'),
  },
  {
    title: 'A solid',
    says: 'Press x: the rectangle becomes a solid, and its sentence opens at the right. Type 8, Enter; Enter once more keeps it.',
    isDone: (now) => of(now, 'extrude') !== undefined,
    target: () => button('Extrude', '[role="toolbar"]'),
  },
  {
    title: 'A hole',
    says: 'Click the top face: above the stage stands what can be done with it. Click Hole, type 12, Enter, and Enter again.',
    isDone: (now) => of(now, 'hole') !== undefined,
    target: () => button('Hole', '[role="toolbar"]') ?? document.querySelector('[data-testid="stage"]'),
  },
  {
    title: 'Round corners',
    says: 'Click an upright edge at a corner; hold Shift and click others if you like. Press r, type 5, Enter, and Enter again.',
    isDone: (now) => of(now, 'fillet') !== undefined,
    target: () => button('Fillet', '[role="toolbar"]') ?? document.querySelector('[data-testid="stage"]'),
  },
  {
    title: 'Change a number',
    says: 'In the ledger at the left, click 60 mm beside width. Write 75 mm, Enter. All that was built upon it follows.',
    isDone: (now) => numbersIn(now.steps) !== now.before.numbers,
    target: () => document.querySelector('[data-ledger$="width"] button.number'),
  },
  {
    title: 'Let one number follow another',
    says: 'Click the hole’s 12 mm in the ledger and write: width / 5. Names are suggested while you type. Now the hole keeps its share of the plate.',
    isDone: (now) => String(of(now, 'hole')?.diameter ?? '').includes('$'),
    target: () => document.querySelector('[data-ledger$="hole_1.diameter"] button.number'),
  },
  {
    title: 'Break it, and mend it',
    says: 'Set the fillet’s radius to 50 mm. It does not fit; the step says so, and what does. Press what it offers, or undo with Ctrl Z.',
    isDone: (now) => now.before.failed && !failing(now),
    target: () => document.querySelector('[data-step="Fillet 1"]'),
  },
  {
    title: 'A dial',
    says: 'Point at width in the ledger, open its menu (⋯) and choose “Make it a dial”. It stands at the top now: a number you mean to turn.',
    isDone: ({ design }) => Object.values(design.dimensions).some((d) => d.dial),
    target: () => document.querySelector('[data-ledger$="width"]'),
  },
  {
    title: 'What can it bear?',
    says: 'Click Flex in the tray. Helb turns the dial from end to end and shows where the part stands, what fails first, and why.',
    isDone: (now) => now.showFlex,
    target: () => button('Flex'),
  },
];
