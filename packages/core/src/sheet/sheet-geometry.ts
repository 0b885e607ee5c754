/** Everything of a sheet that the kernel has to be asked for. */
import type { Design } from '../document/schema.ts';
import type { Look, Sheet, SheetView } from '../document/sheet.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { Known } from '../evaluation/known.ts';
import { standTogether } from '../evaluation/stand-together.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { Body } from '../names/body.ts';
import { flatPoint } from '../slots/regions/flatten.ts';
import { poseWithin, transformOf } from '../space/pose.ts';
import { dot, type Frame, type Vec3 } from '../space/vector.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { THREADS } from '../standards/threads.ts';
import { MATERIALS, massOf, type MaterialKey } from '../standards/materials.ts';
import { auditSheet } from './audit/audit.ts';
import { drawView, rememberedCurves, type DrawnView, type Seen } from './drawn-view.ts';
import { detailOf } from './enlarged-detail.ts';
import type { SheetGeometry } from './geometry.ts';
import { showsHidden } from './view-kinds.ts';
import type { ListedPart } from './listed-part.ts';
import { listedOf, whereSeen } from './listed.ts';
import { frameOfLook } from './looks.ts';
import { SectionMisses } from './cut-open.ts';
import { measureSize, placeOfSpot, type SizeState, type ThreadOf } from './measured.ts';

/** A sheet cannot be drawn; the message is a sentence for the user. */
export class SheetFailure extends Error {}

interface Subject {
  readonly seen: readonly Seen[];
  readonly bodies: readonly Body[];
  readonly mass: number | null;
  readonly material: MaterialKey | null;
  /** Of an assembly which part each that is seen is, and its list. */
  readonly partOf: readonly string[];
  readonly parts: readonly ListedPart[];
  /** What is not as it should be with it, as sentences. */
  readonly says: readonly string[];
  done(): void;
}

/** @throws SheetFailure where there is nothing to draw; KernelError; Superseded */
export async function sheetGeometry(
  design: Design,
  id: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  known: Known<DrawnView>,
  hooks: EvaluationHooks = {},
): Promise<SheetGeometry> {
  const sheet = design.sheets?.[id];
  if (!sheet) throw new SheetFailure('This sheet is not there any more.');
  const subject = await subjectOf(design, sheet, evaluator, kernel, hooks);
  try {
    const { seen, bodies, mass, material, says } = subject;
    if (seen.length === 0) throw new SheetFailure('Nothing solid is there to be drawn yet; make a body first.');
    const curvesOf = rememberedCurves(kernel);
    const views = new Map<string, DrawnView>();
    const cuts = new Map<string, number>();
    const told = [...says];
    for (const [at, view] of sheet.viewOrder.entries()) {
      const own = sheet.views[view]!;
      hooks.progress?.(at, sheet.viewOrder.length, `the ${own.look} view`);
      await hooks.breathe?.();
      if (own.detail) continue;
      const frame = frameOfLook(sheet.front, own.look);
      const cut = own.cut ? depthOfCut(own.cut, frame, bodies, seen, kernel) : null;
      if (cut?.says) told.push(`The ${own.look} section ${cut.says}`);
      if (cut) cuts.set(view, cut.depth);
      const beyond = own.cut?.half ? middleAlong(frame.x, seen, kernel) : null;
      const draw = (depth: number | null) => {
        const style = {
          hidden: showsHidden(own),
          smooth: own.tangent ?? false,
          cut: depth,
          beyond: depth === null ? null : beyond,
        };
        const key = [
          sheet.front,
          own.look,
          style.hidden,
          style.smooth,
          depth,
          style.beyond,
          ...seen.map((s) => s.key),
        ].join('|');
        return known.of(key, () => drawView(own.look, frame, seen, kernel, curvesOf, style));
      };
      try {
        views.set(view, draw(cut?.depth ?? null));
      } catch (error) {
        if (!(error instanceof SectionMisses)) throw error;
        told.push(`${error.message} The ${own.look} view is drawn whole.`);
        cuts.delete(view);
        views.set(view, draw(null));
      }
    }
    for (const view of sheet.viewOrder) {
      const { detail, look } = sheet.views[view]!;
      const of = detail && views.get(detail.of);
      if (!detail || !of) continue;
      const place = placeOfSpot(detail.at, bodies);
      if (!place) told.push('A detail has lost what it shows, and shows the middle of its view; take it anew.');
      const [x0, y0, x1, y1] = of.box;
      const center = place ? flatPoint(frameOfLook(sheet.front, look), place) : ([(x0 + x1) / 2, (y0 + y1) / 2] as const); // prettier-ignore
      views.set(view, detailOf(of, { center, radius: detail.radius }));
    }
    const sizes = new Map<string, SizeState>();
    for (const [key, size] of Object.entries(sheet.sizes)) {
      const view = sheet.views[size.view];
      sizes.set(key, view ? seenThere(view.look, measureSize(size, frameOfLook(sheet.front, view.look), bodies, curvesOf, threadsOf(design, sheet))) : { measured: null, lost: 'its view no longer stands on the sheet; remove it.', doubt: null }); // prettier-ignore
    }
    return {
      views,
      sizes,
      mass,
      material: material ? MATERIALS[material].label : null,
      says: told,
      cuts,
      parts: subject.parts,
      seen: new Map([...views].map(([id, view]) => [id, whereSeen(view, subject.partOf)])),
      audit: bodies.length > 0 ? auditSheet(design, sheet, bodies, views, sizes) : null,
    };
  } finally {
    subject.done();
  }
}

/** By the step that made a face: what its hole is tapped for. */
const threadsOf = (design: Design, { of }: Sheet): ThreadOf => {
  const steps = 'part' in of ? design.parts[of.part]?.steps : undefined;
  return (body, face) => {
    for (const name of body.faceNames[face] ?? []) {
      const step = steps?.[name.step];
      if (step?.kind !== 'hole' || step.form !== 'tapped' || typeof step.size !== 'string') continue;
      return Object.hasOwn(THREADS, step.size) ? THREADS[step.size]!.label : null;
    }
    return null;
  };
};

/** In an oblique view no length or angle is seen true, whatever it measures there. */
const seenThere = (look: Look, state: SizeState): SizeState =>
  look === 'oblique' && (state.measured?.is === 'length' || state.measured?.is === 'angle')
    ? { ...state, measured: { ...state.measured, true: false } }
    : state;

/** Through what it is told to go, else through the middle. */
function depthOfCut(
  { at }: NonNullable<SheetView['cut']>,
  { normal }: Frame,
  bodies: readonly Body[],
  seen: readonly Seen[],
  kernel: SolidKernel,
): { depth: number; says: string | null } {
  const place = at ? placeOfSpot(at, bodies) : null;
  if (place) return { depth: dot(place, normal), says: null };
  return { depth: middleAlong(normal, seen, kernel), says: at ? 'has lost what it goes through, and goes through the middle; pick it anew.' : null }; // prettier-ignore
}

/** Halfway between where all of it begins and ends along a direction, mm from the origin. */
function middleAlong(normal: Vec3, seen: readonly Seen[], kernel: SolidKernel): number {
  const reaches = seen.flatMap(({ solid }) => {
    const { min, max } = kernel.box(solid);
    return [0, 1, 2, 3, 4, 5, 6, 7].map((k) =>
      dot([k & 1 ? max[0] : min[0], k & 2 ? max[1] : min[1], k & 4 ? max[2] : min[2]], normal),
    );
  });
  return (Math.min(...reaches) + Math.max(...reaches)) / 2;
}

async function subjectOf(
  design: Design,
  { of }: Sheet,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks,
): Promise<Subject> {
  if ('part' in of) {
    const part = design.parts[of.part];
    if (!part) throw new SheetFailure('The part that was drawn here is no longer there; delete the sheet, or undo.');
    const { bodies, steps } = await evaluator.evaluate(design, Ledger.of(design), of.part, hooks);
    const failed = steps.find((s) => s.status === 'failed');
    const says = failed
      ? [`${part.steps[failed.id]!.name} fails, so the part is drawn without it: ${failed.message}`]
      : [];
    const mass = part.material ? bodies.reduce((sum, b) => sum + massOf(b.facts.volume, part.material!), 0) : null;
    return { seen: bodies.map((body) => ({ solid: body.solid, body, key: body.key })), bodies, mass, material: part.material ?? null, says, partOf: [], parts: [], done: () => undefined }; // prettier-ignore
  }
  if (!design.assemblies?.[of.assembly]) throw new SheetFailure('The assembly that was drawn here is no longer there; delete the sheet, or undo.'); // prettier-ignore
  const { it, outcomes } = await standTogether(design, of.assembly, evaluator, hooks);
  const says = it.closed
    ? [...it.faults]
    : ['The joints cannot all be met; what is drawn does not stand as it should.'];
  const placed: Seen[] = [];
  const partOf: string[] = [];
  let mass: number | null = 0;
  for (const { part, link, within, hidden, instance } of it.members) {
    if (hidden) continue;
    const bodies = outcomes.get(part)?.bodies ?? [];
    const to = transformOf(poseWithin(it.home.poses[link]!, within));
    for (const body of bodies) {
      placed.push({ solid: kernel.placed(body.solid, to).solid, body: null, key: `${body.key} ${to.flat().join()}` });
      partOf.push(part);
    }
    const own = instance.material ?? design.parts[part]?.material;
    mass = mass === null || !own ? null : bodies.reduce((sum, b) => sum + massOf(b.facts.volume, own), mass);
  }
  const parts = listedOf(design, it.members, outcomes);
  return { seen: placed, bodies: [], mass, material: null, says, partOf, parts, done: () => placed.forEach((s) => kernel.free(s.solid)) }; // prettier-ignore
}
