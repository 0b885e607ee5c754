/** Which sketches the stage shows beside the bodies. */
import { stepsUsedBy, type Design } from '@helb/core';
import type { PartView, SketchView } from '@helb/core';

export interface VisibleSketch {
  readonly step: string;
  readonly view: SketchView;
}

/** Sketches no step has used yet, and those of the step for which something is being picked. */
export function visibleSketches(design: Design, view: PartView | undefined, picking: string | null): VisibleSketch[] {
  const part = view && design.parts[view.part];
  if (!view || !part) return [];
  const used = new Set(Object.values(part.steps).flatMap(stepsUsedBy));
  const wanted = new Set(picking && part.steps[picking] ? stepsUsedBy(part.steps[picking]) : []);
  return view.steps.flatMap((s) =>
    s.sketch && s.status !== 'suppressed' && (!used.has(s.id) || wanted.has(s.id))
      ? [{ step: s.id, view: s.sketch }]
      : [],
  );
}
