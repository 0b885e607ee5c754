/** Which sketches the stage shows beside the bodies. */
import { stepsUsedBy, type Design } from '@helb/core';
import type { PartView, SketchView } from '@helb/core';

export interface VisibleSketch {
  readonly step: string;
  readonly view: SketchView;
}

/**
 * Sketches no step has used yet, or only one that failed, those of the step for which something is being picked, and those asked for.
 * @param standing only those up to this step are there yet
 */
export function visibleSketches(
  design: Design,
  view: PartView | undefined,
  picking: string | null,
  standing: string | null,
  shown: ReadonlySet<string>,
): VisibleSketch[] {
  const part = view && design.parts[view.part];
  if (!view || !part) return [];
  const end = standing === null ? -1 : part.stepOrder.indexOf(standing);
  const here = new Set(end < 0 ? part.stepOrder : part.stepOrder.slice(0, end + 1));
  const failed = new Set(view.steps.flatMap((s) => (s.status === 'failed' ? [s.id] : [])));
  const used = new Set([...here].flatMap((id) => (failed.has(id) ? [] : stepsUsedBy(part.steps[id]!))));
  const wanted = new Set(picking && part.steps[picking] ? stepsUsedBy(part.steps[picking]) : []);
  return view.steps.flatMap((s) =>
    s.sketch && s.status !== 'suppressed' && here.has(s.id) && (shown.has(s.id) || !used.has(s.id) || wanted.has(s.id))
      ? [{ step: s.id, view: s.sketch }]
      : [],
  );
}
