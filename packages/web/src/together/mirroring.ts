/** Parts and assemblies made again on the other side of a plane, with their joints. */
import { EditRefused, lookOfView, mirrorWork, severalEdits, type MirrorPlane, type MirrorWork } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useTogether } from './together-store.ts';

/** An opposite hand is computed within so long, ms, or its joints are not made. */
const PATIENCE_MS = 30_000;

export function useMirroring() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();

  const look = (part: string) => {
    const view = evaluation.parts.get(part);
    return view ? lookOfView(view) : null;
  };

  /** Wait until the parts have been computed. */
  async function computed(parts: readonly string[]): Promise<boolean> {
    const until = performance.now() + PATIENCE_MS;
    while (performance.now() < until) {
      if (parts.every((p) => (evaluation.parts.get(p)?.bodies.length ?? 0) > 0)) return true;
      await new Promise((next) => setTimeout(next, 100));
    }
    return false;
  }

  /** @returns what of the joints could not be made there, as sentences; null where nothing was done */
  async function mirror(ids: readonly string[], plane: MirrorPlane): Promise<string[] | null> {
    const { it } = together;
    if (!it || !design.design) return null;
    let work: MirrorWork;
    try {
      work = mirrorWork(design.design, it, ids, plane, look);
    } catch (error) {
      if (!(error instanceof EditRefused)) throw error;
      session.notice = error.message;
      return null;
    }
    if (work.fresh.length > 0) {
      session.notice = design.tryOut(severalEdits('Mirror', [...work.first]));
      if (session.notice !== null) return null;
      const ready = await computed(work.fresh);
      design.dropAttempt();
      if (!ready) {
        session.notice = 'The opposite hand could not be computed in time; nothing was made.';
        return null;
      }
    }
    const { edits, lost, still } = work.joints(look);
    const label = ids.length === 1 ? 'Mirror a part' : `Mirror ${ids.length} parts`;
    session.notice = design.edit(severalEdits(label, [...work.first, ...edits]));
    if (session.notice !== null) return null;
    const many = (n: number) => `${n} joint${n === 1 ? '' : 's'}`;
    return [
      ...(lost > 0 ? [`${many(lost)} could not be made on the other side; join those parts there by hand.`] : []),
      ...(still > 0 ? [`${many(still)} found no face, edge or corner there to sit on, and will not follow its part; pick their sides anew.`] : []), // prettier-ignore
    ];
  }

  return { mirror };
}
