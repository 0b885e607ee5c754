/** What an assembly needs to know of a part: its bodies by durable name, and the sketches and datums of its steps. */
import type { CorneredBody } from '../names/find-vertex.ts';
import { namedBody, type PartView } from '../part/picture.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { Datum } from '../slots/resolving.ts';
import type { Frame, Vec3 } from '../space/vector.ts';

export interface PartLook {
  readonly bodies: readonly CorneredBody[];
  /** A point of a sketch in the part’s space, with the sketch’s frame; null where it is not there. */
  sketchPoint(step: string, point: string): { readonly at: readonly [number, number]; readonly frame: Frame } | null;
  datum(step: string): Datum | null;
}

interface LookedStep {
  readonly id: string;
  readonly datum: Datum | null;
  readonly sketch: {
    readonly frame: Frame;
    readonly points: Readonly<Record<string, readonly [number, number]>>;
  } | null;
}

function look(bodies: readonly CorneredBody[], steps: readonly LookedStep[]): PartLook {
  const step = (id: string) => steps.find((s) => s.id === id);
  return {
    bodies,
    sketchPoint(id, point) {
      const sketch = step(id)?.sketch;
      const at = sketch && Object.hasOwn(sketch.points, point) ? sketch.points[point]! : null;
      return sketch && at ? { at, frame: sketch.frame } : null;
    },
    datum: (id) => step(id)?.datum ?? null,
  };
}

const seen = new WeakMap<PartView, PartLook>();

/** Of a part as it is shown. */
export function lookOfView(view: PartView): PartLook {
  const known = seen.get(view);
  if (known) return known;
  const own = look(
    view.bodies.map(namedBody),
    view.steps.map(({ id, datum, sketch }) => ({ id, datum, sketch: sketch && { frame: sketch.frame, points: sketch.geometry.points } })), // prettier-ignore
  );
  seen.set(view, own);
  return own;
}

/** Of a part as it was evaluated. */
export function lookOfOutcome({ bodies, steps }: PartOutcome): PartLook {
  return look(
    bodies,
    steps.map(({ id, datum, sketch }) => ({ id, datum, sketch: sketch && { frame: sketch.frame, points: sketch.solution.geometry.points } })), // prettier-ignore
  );
}

/** How far bodies reach, mm, for what is small beside it. */
export function reachOf(of: PartLook | null): number {
  const corners = (of?.bodies ?? []).flatMap((b) => b.facts.corners as readonly Vec3[]);
  return corners.reduce((most, c) => Math.max(most, Math.hypot(...c)), 0);
}
