/** The views of a sheet as the kernel draws them: straight looks, sections, slanted faces, and what is enlarged of them. */
import type { Sheet, SheetSpot, SheetView } from '../document/sheet.ts';
import type { EvaluationHooks } from '../evaluation/evaluate.ts';
import type { Known } from '../evaluation/known.ts';
import type { Body } from '../names/body.ts';
import { findFace } from '../names/find-face.ts';
import { flatPoint } from '../slots/regions/flatten.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { cross, dot, opposite, unit, type Frame, type Vec3 } from '../space/vector.ts';
import { breakBetween } from './break.ts';
import { brokenView } from './broken-view.ts';
import { SectionMisses, type CutPlan } from './cut-open.ts';
import { drawView, type CurvesOf, type DrawnView, type Seen } from './drawn-view.ts';
import { detailOf } from './enlarged-detail.ts';
import { frameOfLook } from './looks.ts';
import { placeOfSpot } from './measured.ts';
import type { Subject } from './subject.ts';
import { isMain, showsHidden, wordOfView } from './view-kinds.ts';

/** mm */
const SAME_PLACE = 1e-5;
/** Trails shorter than this, mm, are seen end-on. */
const SHORT = 1e-3;

export interface DrawnViews {
  readonly views: ReadonlyMap<string, DrawnView>;
  /** Of each section how it is cut. */
  readonly cuts: ReadonlyMap<string, CutPlan>;
  /** What is not as it should be with them, as sentences. */
  readonly says: readonly string[];
}

/** @throws KernelError; Superseded */
export async function drawViews(
  sheet: Sheet,
  { seen, bodies, trails }: Pick<Subject, 'seen' | 'bodies' | 'trails'>,
  kernel: SolidKernel,
  curvesOf: CurvesOf,
  known: Known<DrawnView>,
  hooks: EvaluationHooks,
): Promise<DrawnViews> {
  const views = new Map<string, DrawnView>();
  const cuts = new Map<string, CutPlan>();
  const says: string[] = [];
  for (const [at, id] of sheet.viewOrder.entries()) {
    const own = sheet.views[id]!;
    hooks.progress?.(at, sheet.viewOrder.length, `the ${wordOfView(own)} view`);
    await hooks.breathe?.();
    if (own.detail) continue;
    const looked = own.onto ? ontoFace(own.onto, sheet, bodies) : { frame: frameOfLook(sheet.front, own.look) };
    if (typeof looked === 'string') {
      says.push(looked);
      continue;
    }
    const plan = own.cut ? planOf(own.cut, looked.frame, bodies, seen, kernel) : null;
    says.push(...(plan?.says ?? []).map((told) => `The ${own.look} section ${told}`));
    const draw = (cut: CutPlan | null): DrawnView => {
      const style = { hidden: showsHidden(own), smooth: own.tangent ?? false, cut };
      const { x, normal } = looked.frame;
      const key = JSON.stringify([own.look, x, normal, style, seen.map((s) => s.key)]);
      const drawn = known.of(key, () => drawView(own.look, looked.frame, seen, kernel, curvesOf, style));
      const drawnOff = trails.map(([from, to]) => [flatPoint(looked.frame, from), flatPoint(looked.frame, to)] as const).filter(([p, q]) => Math.hypot(p[0] - q[0], p[1] - q[1]) > SHORT); // prettier-ignore
      return { ...drawn, axes: [...drawn.axes, ...drawnOff], ...('at' in looked ? { onto: looked.at } : {}) };
    };
    try {
      views.set(id, draw(plan?.cut ?? null));
      if (plan) cuts.set(id, plan.cut);
    } catch (error) {
      if (!(error instanceof SectionMisses)) throw error;
      says.push(`${error.message} The ${own.look} view is drawn whole.`);
      views.set(id, draw(null));
    }
  }
  for (const id of sheet.viewOrder) {
    const { detail } = sheet.views[id]!;
    const of = detail && views.get(detail.of);
    if (!detail || !of) continue;
    const place = placeOfSpot(detail.at, bodies);
    if (!place) says.push('A detail has lost what it shows, and shows the middle of its view; take it anew.');
    const [x0, y0, x1, y1] = of.box;
    const center = place ? flatPoint(of.frame, place) : ([(x0 + x1) / 2, (y0 + y1) / 2] as const);
    views.set(id, detailOf(of, { center, radius: detail.radius }));
  }
  // Last: details show what a break leaves out as well.
  for (const [id, view] of views) {
    const ends = sheet.views[id]!.broken;
    if (!ends) continue;
    const [p, q] = [ends.from, ends.to].map((spot) => placeOfSpot(spot, bodies));
    const broken =
      p && q ? breakBetween(flatPoint(view.frame, p), flatPoint(view.frame, q), ends.axis, view.box) : null;
    if (broken) views.set(id, brokenView(view, broken));
    else says.push(`The ${wordOfView(sheet.views[id]!)} view ${p && q ? 'was to be broken where there is next to nothing to leave out' : 'has lost what it was broken between'}, and is drawn whole; break it anew.`); // prettier-ignore
  }
  return { views, cuts, says };
}

/** Straight onto a face, its edge in the view it is told from level; a sentence where the face is not to be had. */
function ontoFace(
  { of, face }: NonNullable<SheetView['onto']>,
  sheet: Sheet,
  bodies: readonly Body[],
): { frame: Frame; at: Vec3 } | string {
  const finding = findFace(face, bodies);
  const from = sheet.views[of];
  if (finding.how === 'lost' || !from) return 'A view onto a slanted face has lost its face; take it off, or anew.';
  const { normal, center } = finding.found.body.facts.faces[finding.found.face]!;
  if (!normal) return 'The face a slanted view looks onto is no longer flat; take the view off, or anew.';
  const parent = isMain(from) ? frameOfLook(sheet.front, from.look) : null;
  const level = (parent && unit(cross(parent.normal, normal))) ?? parent?.x;
  if (!parent || !level) return 'A view onto a slanted face has lost the view it is told from; take it off, or anew.';
  const along = dot(level, parent.x) + 1e-9 * dot(level, parent.y);
  const x = along < 0 ? opposite(level) : level;
  return { frame: { origin: [0, 0, 0], x, y: cross(normal, x), normal }, at: center };
}

/** Through what it is told to go, else through the middle; in steps where that is several things. */
function planOf(
  { at, more = [], half }: NonNullable<SheetView['cut']>,
  frame: Frame,
  bodies: readonly Body[],
  seen: readonly Seen[],
  kernel: SolidKernel,
): { cut: CutPlan; says: string[] } {
  const spots: readonly SheetSpot[] = at ? [at, ...more] : [];
  const places = spots.map((spot) => placeOfSpot(spot, bodies)).filter((p): p is Vec3 => p !== null);
  const says = places.length < spots.length ? [`has lost ${spots.length === 1 ? 'what it goes through, and goes through the middle' : 'some of what it goes through'}; pick it anew.`] : []; // prettier-ignore
  const first = places[0] ? dot(places[0], frame.normal) : middleAlong(frame.normal, seen, kernel);
  if (half) return { cut: { axis: 'x', strips: [{ to: middleAlong(frame.x, seen, kernel), depth: null }, { to: Infinity, depth: first }] }, says }; // prettier-ignore
  const spread = (d: Vec3) => Math.max(...places.map((p) => dot(p, d))) - Math.min(...places.map((p) => dot(p, d)));
  const axis = places.length > 1 && spread(frame.y) > spread(frame.x) ? 'y' : 'x';
  const sorted = places.map((p) => ({ at: dot(p, frame[axis]), depth: dot(p, frame.normal) })).sort((a, b) => (Math.abs(a.at - b.at) > SAME_PLACE ? a.at - b.at : b.depth - a.depth)); // prettier-ignore
  // One behind the other there is no place for a step between them.
  const inOrder = sorted.filter((p, i) => i === 0 || p.at - sorted[i - 1]!.at > SAME_PLACE);
  if (sorted.some((p, i) => i > 0 && p.at - sorted[i - 1]!.at <= SAME_PLACE && Math.abs(p.depth - sorted[i - 1]!.depth) > SAME_PLACE)) says.push('is to go through things that lie one behind the other, and goes through the first of them; pick others.'); // prettier-ignore
  const strips = inOrder.map(({ at: own, depth }, i) => ({ to: inOrder[i + 1] ? (own + inOrder[i + 1]!.at) / 2 : Infinity, depth })); // prettier-ignore
  return {
    cut: { axis, strips: strips.length > 1 ? strips : [{ to: Infinity, depth: inOrder[0]?.depth ?? first }] },
    says,
  };
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
