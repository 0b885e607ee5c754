/** Everything of a sheet that the kernel has to be asked for. */
import type { Design } from '../document/schema.ts';
import type { Look, Sheet } from '../document/sheet.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import type { Known } from '../evaluation/known.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { THREADS } from '../standards/threads.ts';
import { MATERIALS } from '../standards/materials.ts';
import { acrossBreak } from './break.ts';
import { auditSheet } from './audit/audit.ts';
import { faultsOfSizes } from './audit/faults-of-sizes.ts';
import { drawViews } from './draw-views.ts';
import { rememberedCurves, type DrawnView } from './drawn-view.ts';
import type { SheetGeometry } from './geometry.ts';
import { whereSeen } from './listed.ts';
import { stepOfName } from './member-bodies.ts';
import { asShown, SheetFailure, subjectOf, type Subject } from './subject.ts';
import { measureSize, placesOfMeasured, type SizeState, type ThreadOf } from './measured.ts';
import { wordOfView } from './view-kinds.ts';

/** @throws SheetFailure where there is nothing to draw; KernelError; Superseded */
export async function sheetGeometry(
  asked: Design,
  id: string,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  known: Known<DrawnView>,
  hooks: EvaluationHooks = {},
): Promise<SheetGeometry> {
  const sheet = asked.sheets?.[id];
  if (!sheet) throw new SheetFailure('This sheet is not there any more.');
  const { design, called } = asShown(asked, sheet);
  const subject = await subjectOf(design, sheet, evaluator, kernel, hooks);
  try {
    const { seen, bodies, mass, material, says } = subject;
    if (seen.length === 0) throw new SheetFailure('Nothing solid is there to be drawn yet; make a body first.');
    const curvesOf = rememberedCurves(kernel, seen);
    const { views, cuts, says: told } = await drawViews(sheet, subject, kernel, curvesOf, known, hooks);
    const sizes = new Map<string, SizeState>();
    for (const [key, size] of Object.entries(sheet.sizes)) {
      const view = sheet.views[size.view];
      const drawn = views.get(size.view);
      const state = !view ? lostView('its view no longer stands on the sheet; remove it.') : !drawn ? lostView('its view cannot be drawn; see what is said of it.') : seenThere(view.look, measureSize(size, drawn.frame, bodies, curvesOf, threadsOf(design, sheet, subject), drawn.cutLines)); // prettier-ignore
      sizes.set(key, state);
    }
    const leftOut = sizesLeftOut(sheet, views, sizes);
    return {
      views,
      sizes,
      mass,
      material: material ? MATERIALS[material].label : null,
      says: [...says, ...told, ...leftOut],
      cuts,
      parts: subject.parts,
      shown: [called, subject.shown].filter((t) => t !== null).join(', ') || null,
      seen: new Map([...views].map(([id, view]) => [id, whereSeen(view, subject.partOf)])),
      faults: faultsOfSizes(sheet, sizes),
      audit: 'part' in sheet.of ? auditSheet(design, sheet, bodies, views, sizes) : null,
    };
  } finally {
    subject.done();
  }
}

/** Sizes that are taken in a stretch which a break leaves out, as sentences. */
function sizesLeftOut(
  sheet: Sheet,
  views: ReadonlyMap<string, DrawnView>,
  sizes: ReadonlyMap<string, SizeState>,
): string[] {
  return [...views].flatMap(([id, { broken }]) => {
    if (!broken) return [];
    const { leavesOut } = acrossBreak(broken);
    const own = Object.entries(sheet.sizes).filter(([key, { view }]) => view === id && placesOfMeasured(sizes.get(key)?.measured ?? null).some((ends) => ends.every(leavesOut))).length; // prettier-ignore
    const many = own === 1 ? 'A size is' : `${own} sizes are`;
    return own > 0 ? [`${many} taken where the ${wordOfView(sheet.views[id]!)} view is broken off; break it elsewhere, or take ${own === 1 ? 'it' : 'them'} in another view.`] : []; // prettier-ignore
  });
}

/** By the step that made a face: what its hole is tapped for. */
const threadsOf = ({ parts }: Design, { of }: Sheet, { bodies, partOf }: Subject): ThreadOf => {
  return (body, face) => {
    const part = 'part' in of ? of.part : partOf[bodies.indexOf(body)];
    const steps = part === undefined ? undefined : parts[part]?.steps;
    for (const name of body.faceNames[face] ?? []) {
      const step = steps?.[stepOfName(name)];
      if (step?.kind !== 'hole' || step.form !== 'tapped' || typeof step.size !== 'string') continue;
      return Object.hasOwn(THREADS, step.size) ? THREADS[step.size]!.label : null;
    }
    return null;
  };
};

const lostView = (lost: string): SizeState => ({ measured: null, lost, doubt: null });

/** In an oblique view no length or angle is seen true, whatever it measures there. */
const seenThere = (look: Look, state: SizeState): SizeState =>
  look === 'oblique' && (state.measured?.is === 'length' || state.measured?.is === 'angle')
    ? { ...state, measured: { ...state.measured, true: false } }
    : state;
