/** An open outline given thickness: the area between it and the same drawn again beside it. */
import { StepFailure } from '../../names/body.ts';
import { curvesAsParents } from '../../names/name.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import type { Area, Profile } from '../../slots/regions/profile.ts';
import type { StepData } from '../../slots/slot.ts';
import { orderedChain, type ChainLink } from '../../sketch/change/chain.ts';
import { ChangeRefused } from '../../sketch/change/ends.ts';
import { offsetChain } from '../../sketch/change/offset.ts';
import { SketchPen } from '../../sketch/draw/pen.ts';
import { findRegions } from '../../sketch/regions/regions.ts';
import { endsOf, type SketchGeometry } from '../../sketch/schema.ts';
import { inMm, refuseNone } from '../rework/rework.ts';
import type { SentencePiece } from '../step.ts';

const SIDES = { left: 'to the left', right: 'to the right', middle: 'half each way' } as const;

export const isWall = (step: StepData): boolean =>
  (step.profile as { regions?: unknown } | undefined)?.regions === 'chain';

export const wallSlots = {
  wall: {
    of: expression('length'),
    when: isWall,
    otherwise: () => '2 mm',
    says: 'Of an open outline: how thick a wall.',
  },
  wall_side: {
    of: choice<keyof typeof SIDES>(SIDES),
    when: isWall,
    otherwise: () => 'middle' as const,
    says: 'On which side of the outline the wall lies, as it runs from its first curve.',
  },
};

export const wallSentence = (step: StepData): SentencePiece[] =>
  isWall(step) ? ['as a wall of', { slot: 'wall' }, { slot: 'wall_side' }] : [];

/** What is drawn, without construction. */
const drawn = ({ curves }: SketchGeometry) => Object.keys(curves).filter((id) => !curves[id]!.construction);

export function isOpenChain(sketch: SketchGeometry): boolean {
  const ids = drawn(sketch);
  if (ids.length === 0) return false;
  try {
    return !orderedChain(sketch, ids).closed;
  } catch (error) {
    if (error instanceof ChangeRefused) return false;
    throw error;
  }
}

/** The areas to sweep: those of the profile, or the wall along its open outline. @throws StepFailure */
export function areasWithWall(
  profile: Profile,
  thickness: number | undefined,
  side: keyof typeof SIDES | undefined,
): readonly Area[] {
  const { chain } = profile;
  if (!chain) return profile.areas;
  refuseNone(thickness!, 'The thickness of the wall');
  try {
    return [wallOf(chain, thickness!, side!, profile.of)];
  } catch (error) {
    if (error instanceof ChangeRefused)
      throw new StepFailure(`The outline of ${profile.of} makes no wall: ${error.message}`);
    throw error;
  }
}

function wallOf(chain: SketchGeometry, thickness: number, side: keyof typeof SIDES, of: string): Area {
  const ids = drawn(chain);
  if (ids.length === 0) throw new StepFailure(`${of} has no outline to make a wall of; draw one.`);
  const sheet = structuredClone(chain);
  const { links, closed } = orderedChain(sheet, ids);
  if (closed) throw new StepFailure(`The outline of ${of} is closed; take its regions, or open it for a wall.`);
  const [ahead, behind] = side === 'middle' ? [thickness / 2, -thickness / 2] : side === 'left' ? [thickness, 0] : [0, -thickness]; // prettier-ignore
  const called = new Map<string, string>();
  const beside = (by: number, mark: string): readonly [start: string, end: string] => {
    const copies = by === 0 ? new Map(ids.map((id) => [id, id])) : drawnBeside(sheet, ids, by);
    for (const [id, copy] of copies) called.set(copy, by === 0 ? id : `${id}~${mark}`);
    const end = ({ id, forward }: ChainLink, last: boolean) => endsOf(sheet.curves[copies.get(id)!]!)![forward === last ? 1 : 0]; // prettier-ignore
    return [end(links[0]!, false), end(links.at(-1)!, true)];
  };
  const [a, b] = [beside(ahead, 'left'), beside(behind, 'right')];
  const pen = new SketchPen(sheet);
  called.set(pen.line(a[0], b[0]), 'wall_start');
  called.set(pen.line(a[1], b[1]), 'wall_end');
  for (const id of Object.keys(sheet.curves)) if (!called.has(id)) delete sheet.curves[id];
  const { regions } = findRegions(sheet);
  if (regions.length !== 1)
    throw new StepFailure(
      `A wall of ${inMm(thickness)} along ${of} runs into itself; make it thinner or the outline wider.`,
    );
  return { ...regions[0]!, parents: curvesAsParents(ids), called };
}

/** The chain again at a distance to its left. @returns the copy of each curve */
function drawnBeside(sheet: SketchGeometry, ids: readonly string[], by: number): Map<string, string> {
  // Which way is left is told by the first curve as it is stored.
  const { of } = sheet.constraints[offsetChain(sheet, ids, by, '0 mm')]!;
  return new Map(ids.map((id) => [id, of[of.indexOf(id) + 1]!]));
}
