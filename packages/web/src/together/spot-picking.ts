/** Frames under the pointer on the assembly’s stage: hovered, picked, listed one behind the other, kept to one face. */
import { placedAt, poseBack, poseWithin, type Member, type Vec3 } from '@helb/core';
import { computed, type ComputedRef, type ShallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import type { StackRow } from '../stage/pointing.ts';
import type { Hit, StageScene } from '../stage/scene.ts';
import { memberOfStage, spotAt, spotOfTwo, spotsBesideBodies, spotsOfFace } from './offered-spots.ts';
import { useTogether, type PickedSpot } from './together-store.ts';

/** A frame of the held face is meant within so many pixels. */
const HELD_REACH_PX = 40;
/** A point that no body shows is listed within so many. */
const POINT_REACH_PX = 12;

export function useSpotPicking(scene: ShallowRef<StageScene | null>, members: ComputedRef<readonly Member[]>) {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();

  const memberOf = ({ body }: { readonly body: string }) => members.value.find((m) => m.key === memberOfStage(body));
  const pixelOf = ({ member, frame }: PickedSpot) =>
    scene.value!.pixelOf(poseWithin(together.poseOf(member), frame).at);
  const away = (spot: PickedSpot, x: number, y: number) => {
    const [px, py] = pixelOf(spot);
    return Math.hypot(px - x, py - y);
  };

  /** While one face is kept to: all its frames. */
  const held = computed<readonly PickedSpot[] | null>(() => {
    const { onlyFace } = together;
    const member = onlyFace && memberOf(onlyFace);
    const view = member && evaluation.parts.get(member.part);
    return member && view ? spotsOfFace({ ...onlyFace, kind: 'face' }, member, view) : null;
  });

  function spotOf(hit: Hit, at: Vec3 | null): PickedSpot | null {
    const member = memberOf(hit);
    const view = member && evaluation.parts.get(member.part);
    return member && view ? spotAt(hit, member, view, at) : null;
  }

  /** The frame that a click here would take. */
  function spotUnder(x: number, y: number): PickedSpot | null {
    if (!scene.value) return null;
    if (held.value) {
      const [first] = held.value.map((spot) => ({ spot, far: away(spot, x, y) })).sort((a, b) => a.far - b.far);
      return first && first.far < HELD_REACH_PX ? first.spot : null;
    }
    const hit = scene.value.hitAt(x, y);
    if (!hit) return null;
    const key = memberOfStage(hit.body);
    const point = scene.value.pointAt(x, y);
    return spotOf(hit, point && memberOfStage(point.body) === key ? placedAt(poseBack(together.poseOf(key)), point.at) : null); // prettier-ignore
  }

  const hover = (x: number, y: number) => void (together.pointed = spotUnder(x, y));
  const leave = () => void (together.pointed = null);

  /** @param add one frame is made of this and the one picked before, where both are on one part */
  function take(spot: PickedSpot | null, add: boolean): void {
    session.notice = null;
    together.onlyFace = null;
    const last = together.picked.at(-1);
    if (add && spot && last?.member === spot.member) {
      const made = spotOfTwo(last, spot);
      if (made) together.picked = [...together.picked.slice(0, -1), made];
      else session.notice = 'These two make no frame; take two parallel faces, or two straight edges that cross.';
    } else if (!spot) together.picked = [];
    else if (together.picked.length === 1 && together.picked[0]!.path[0] !== spot.path[0])
      together.picked = [together.picked[0]!, spot];
    else together.picked = [spot];
  }

  /** What could be picked here: what lies one behind the other, then points and datums that no body shows. */
  function rowsAt(x: number, y: number): StackRow[] {
    const hits = scene.value?.stackAt(x, y) ?? [];
    const spots = hits.flatMap((hit) => spotOf(hit, null) ?? []);
    const under = [...new Set(hits.flatMap((hit) => memberOf(hit) ?? []))];
    const beside = under.flatMap((member) => {
      const view = evaluation.parts.get(member.part);
      if (!view) return [];
      return spotsBesideBodies(member, view, design.design!).filter(
        (s) => !('sketch' in s.spot) || away(s, x, y) < POINT_REACH_PX,
      );
    });
    return [...spots, ...beside].map((spot, i) => ({
      label: `${i + 1}  ${spot.label}`,
      point: (lit) => void (together.pointed = lit ? spot : null),
      take: (add) => take(spot, add),
    }));
  }

  return { held, spotUnder, hover, leave, take, rowsAt };
}
