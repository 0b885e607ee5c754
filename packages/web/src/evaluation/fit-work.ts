/** What the kernel is asked for an assembly: what does not fit in it, and what would cure that. */
import { checkFit, checkThroughMotion, curesOf, gapsAlong, evaluateAsMade, fitOverDials, Superseded, type DialFit, type MotionFinding, type Station, type Traveller, type FitCure, type FitFinding, type Pose, type FaceOf, type Standing } from '@helb/core'; // prettier-ignore
import type { Design, PartEvaluator, SolidKernel } from '@helb/core';

/** A member as the page has it standing. */
export interface PlacedMember {
  readonly key: string;
  readonly part: string;
  readonly link: number;
  readonly pose: Pose;
}

export interface FitListener {
  progress(done: number, total: number): void;
}

interface Tools {
  readonly kernel: SolidKernel;
  readonly evaluator: PartEvaluator;
}

export function fitWork(
  ready: Promise<Tools>,
  exclusive: <T>(work: () => Promise<T>) => Promise<T>,
  breathe: () => Promise<void>,
  held: () => Design,
) {
  /** Counts checks, so that a newer one, or a stop, ends the one before. */
  let checks = 0;

  /** Null when it was stopped. */
  async function told<T>(
    listener: FitListener,
    work: (
      tools: Tools,
      hooks: { progress: (done: number, total: number) => void; breathe: () => Promise<void> },
    ) => Promise<T>,
  ): Promise<T | null> {
    const own = ++checks;
    const tools = await ready;
    try {
      return await exclusive(() =>
        work(tools, {
          progress: (done, total) => listener.progress(done, total),
          async breathe() {
            await breathe();
            if (own !== checks) throw new Superseded();
          },
        }),
      );
    } catch (error) {
      if (error instanceof Superseded) return null;
      throw error;
    }
  }

  return {
    /** What does not fit where parts stand now. */
    checkFit(members: readonly PlacedMember[], clearance: number, listener: FitListener): Promise<FitFinding[] | null> {
      const design = held();
      return told(listener, async ({ kernel, evaluator }, hooks) => {
        const standing: Standing[] = [];
        for (const { key, part, link, pose } of members) {
          const { outcome, allowed } = await evaluateAsMade(design, part, evaluator);
          standing.push({ member: { key, link }, bodies: outcome.bodies, pose, allowed });
        }
        return checkFit(standing, clearance, kernel, hooks);
      });
    },
    /** What does not fit on the way of a motion; positions are as the page drove there. */
    checkMotion(
      members: readonly PlacedMember[],
      home: readonly Pose[],
      stations: readonly Station[],
      clearance: number,
      listener: FitListener,
    ): Promise<MotionFinding[] | null> {
      const design = held();
      return told(listener, async ({ kernel, evaluator }, hooks) => {
        const travellers: Traveller[] = [];
        for (const { key, part, link, pose } of members) {
          const { outcome, allowed } = await evaluateAsMade(design, part, evaluator);
          travellers.push({ key, link, within: pose, bodies: outcome.bodies, allowed });
        }
        return checkThroughMotion(travellers, home, stations, clearance, kernel, hooks);
      });
    },
    /** How far two members are apart at each position. */
    gapsAlong(
      members: readonly [PlacedMember, PlacedMember],
      stations: readonly Station[],
      listener: FitListener,
    ): Promise<number[] | null> {
      const design = held();
      return told(listener, async ({ kernel, evaluator }, hooks) => {
        const two: Traveller[] = [];
        for (const { key, part, link, pose } of members)
          two.push({ key, link, within: pose, bodies: (await evaluateAsMade(design, part, evaluator)).outcome.bodies });
        return gapsAlong(two[0]!, two[1]!, stations, kernel, hooks);
      });
    },
    /** What does not fit with each dial at the ends of its range. */
    checkDials(assembly: string, clearance: number, listener: FitListener): Promise<DialFit[] | null> {
      const design = held();
      return told(listener, ({ kernel, evaluator }, hooks) => fitOverDials(design, assembly, clearance, evaluator, kernel, hooks)); // prettier-ignore
    },
    /** Numbers that would bring two faces in line, or into one plane, at home; or free their members of each other. */
    fitCures(
      assembly: string,
      faces: readonly [FaceOf, FaceOf],
      wanted: 'level' | 'free',
      listener: FitListener,
    ): Promise<FitCure[] | null> {
      const design = held();
      return told(listener, ({ kernel, evaluator }, hooks) =>
        curesOf(design, assembly, faces, wanted === 'free' ? { freeBy: kernel } : wanted, evaluator, hooks),
      );
    },
    stopFit(): void {
      checks++;
    },
  };
}
