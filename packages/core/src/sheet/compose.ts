/** A sheet put together: frame, views, centre lines and sizes where they stand on the paper. */
import { paperSize, type Sheet } from '../document/sheet.ts';
import type { TitleBlock } from '../document/shared.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { formatNumber, type DisplayUnits } from '../units/units.ts';
import { balloonsRound, listedRows, partsTable } from './balloons.ts';
import { detailMarks, lettersOf, slantMarks, turnedSign, turnOf } from './letter-marks.ts';
import { boxWithBreak } from './broken-view.ts';
import { cutMarks } from './cut-marks.ts';
import { drawSize } from './draw-size.ts';
import type { SheetGeometry } from './geometry.ts';
import { standsFree } from './view-kinds.ts';
import { layOut, type LaidOut } from './layout.ts';
import type { Measured } from './measured.ts';
import type { OnPaper, SheetDrawing } from './paper.ts';
import { placeOn, type PlacedSize, type PlacedView } from './placed.ts';
import { placedView } from './place-view.ts';
import { placeSizes } from './place-sizes.ts';
import { frameAndTitle, listCorner, words } from './title-block.ts';
import { wordsOfSize } from './words-of-size.ts';

export interface Composed {
  readonly laidOut: LaidOut;
  readonly frame: readonly OnPaper[];
  readonly views: readonly PlacedView[];
  readonly sizes: readonly PlacedSize[];
}

/** Of capitals, mm: ISO 3098, larger on large paper. */
export const textHeight = ({ paper }: Pick<Sheet, 'paper'>): number =>
  paper === 'A0' || paper === 'A1' || paper === 'ANSI D' || paper === 'ANSI E' ? 5 : 3.5;

export function composeSheet(
  sheet: Sheet,
  of: { readonly name: string; readonly titleBlock?: TitleBlock | undefined },
  geometry: SheetGeometry,
  units: DisplayUnits,
): Composed {
  const boxes = new Map([...geometry.views].map(([id, view]) => [id, boxWithBreak(view)] as const));
  const rows = sheet.parts ? geometry.parts : [];
  const laidOut = layOut(sheet, boxes, sheet.parts ? listedRows(rows) : 0);
  const [on, truth] = laidOut.scale;
  const by = on / truth;
  const letters = lettersOf(sheet);
  const views = sheet.viewOrder.flatMap((id): PlacedView[] => {
    const view = geometry.views.get(id);
    const at = laidOut.at.get(id);
    const own = laidOut.own.get(id);
    if (!view || !at) return [];
    const letter = letters.get(id);
    const placed = placedView(id, view, at, own ? own[0] / own[1] : by);
    const title = [letter, own ? `${own[0]} : ${own[1]}` : undefined].filter((t) => t !== undefined).join('  ');
    if (title === '') return [placed];
    const foot = placed.box[1] - 7;
    const turned = turnedSign([at[0] + 5 + 2 * title.length, foot], turnOf(sheet, geometry.views, id));
    return [{ ...placed, items: [...placed.items, words(at[0], foot, title, letter === undefined ? 2.6 : 5, letter === undefined ? 'words' : 'strong', 'middle'), ...turned] }]; // prettier-ignore
  });
  const frame = frameAndTitle(sheet, {
    project: of.titleBlock ?? {},
    title: [of.name, geometry.shown].filter((t) => t !== null).join(', '),
    material: geometry.material ?? '',
    mass: geometry.mass === null ? '' : `${formatNumber(geometry.mass, geometry.mass < 1 ? 4 : 3)} kg`,
    scale: `${on} : ${truth}`,
    units: units.length,
  });
  const about = sheet.parts ? ballooned(sheet, geometry) : null;
  const sizes = views.flatMap((v) => sizesIn(sheet, v, geometry, units));
  const balloons = views.filter((v) => v.id === about).flatMap((v) => balloonsRound(withSizes(v, sizes), rows, geometry.seen.get(v.id) ?? new Map(), sheet.parts!.places)); // prettier-ignore
  return {
    laidOut,
    frame: sheet.parts ? [...frame, ...partsTable(rows, listCorner(sheet))] : frame,
    views: slantMarks(sheet, geometry.views, detailMarks(sheet, geometry.views, cutMarks(sheet, geometry, views))),
    sizes: [...sizes, ...balloons],
  };
}

/** A view whose box takes in where its sizes stand. */
function withSizes(view: PlacedView, sizes: readonly PlacedSize[]): PlacedView {
  const places = sizes.filter((s) => s.view === view.id).map((s) => s.place);
  const [x0, y0, x1, y1] = view.box;
  const [xs, ys] = [places.map((p) => p[0]), places.map((p) => p[1])];
  return { ...view, box: [Math.min(x0, ...xs), Math.min(y0, ...ys), Math.max(x1, ...xs), Math.max(y1, ...ys)] };
}

/** The view round which balloons stand: the one chosen, or the straight-on one in which most parts are seen. */
function ballooned({ parts, viewOrder, views }: Sheet, { seen }: SheetGeometry): string | null {
  if (parts?.view !== undefined && views[parts.view]) return parts.view;
  const many = (id: string) => seen.get(id)?.size ?? 0;
  const straight = viewOrder.filter((id) => !standsFree(views[id]!));
  const of = straight.length > 0 ? straight : viewOrder;
  return of.reduce<string | null>((best, id) => (best === null || many(id) > many(best) ? id : best), null);
}

function sizesIn(sheet: Sheet, placed: PlacedView, geometry: SheetGeometry, units: DisplayUnits): PlacedSize[] {
  const { id: view, at, by, box } = placed;
  const height = textHeight(sheet);
  const fromMiddle = (p: Vec2): Vec2 => [placeOn(placed, p)[0] - at[0], placeOn(placed, p)[1] - at[1]];
  const own = Object.entries(sheet.sizes).flatMap(([id, size]) => {
    const measured = size.view === view ? (geometry.sizes.get(id)?.measured ?? null) : null;
    return measured
      ? [{ id, size, measured: onPaper(measured, by, fromMiddle), text: wordsOfSize(size, measured, units) }]
      : [];
  });
  const free = placeSizes(own.filter((s) => !s.size.place), [box[0] - at[0], box[1] - at[1], box[2] - at[0], box[3] - at[1]], height, !sheet.views[view]!.cut); // prettier-ignore
  return own.map(({ id, size, measured, text }) => {
    const place = size.place ?? free.get(id)!;
    const moved = onPaper(measured, 1, ([x, y]) => [x + at[0], y + at[1]]);
    const where: Vec2 = [place[0] + at[0], place[1] + at[1]];
    return {
      id,
      view,
      place: where,
      items: drawSize(moved, text, where, { height, ordinate: size.ordinate ?? false }),
    };
  });
}

/** Enlarged and brought where its places come to lie. Its value stays the model’s. */
function onPaper(m: Measured, by: number, to: (p: Vec2) => Vec2): Measured {
  switch (m.is) {
    case 'length':
      return { ...m, from: to(m.from), to: to(m.to), ...(m.edges ? { edges: [m.edges[0]?.map(to) ?? null, m.edges[1]?.map(to) ?? null] as typeof m.edges } : {}) }; // prettier-ignore
    case 'diameter':
    case 'radius':
      return {
        ...m,
        center: to(m.center),
        radius: m.radius * by,
        ends: m.ends ? [to(m.ends[0]), to(m.ends[1])] : null,
      };
    case 'angle':
      return { ...m, apex: to(m.apex), ...(m.edges ? { edges: m.edges.map((ends) => ends.map((d) => d * by)) as unknown as typeof m.edges } : {}) }; // prettier-ignore
    case 'note':
    case 'surface':
    case 'chamfer':
      return { ...m, at: to(m.at) };
  }
}

/** All of it in order, to be written to a file. */
export function drawingOf(sheet: Sheet, { frame, views, sizes }: Composed): SheetDrawing {
  return {
    size: paperSize(sheet),
    title: sheet.name,
    items: [...frame, ...views.flatMap((v) => v.items), ...sizes.flatMap((s) => s.items)],
  };
}
