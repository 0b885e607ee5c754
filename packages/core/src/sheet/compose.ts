/** A sheet put together: frame, views, centre lines and sizes where they stand on the paper. */
import { paperSize, type Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { formatNumber, type DisplayUnits } from '../units/units.ts';
import { balloonsRound, listedRows, partsTable } from './balloons.ts';
import { detailMarks, lettersOf, slantMarks } from './letter-marks.ts';
import { withinRound } from './enlarged-detail.ts';
import { cutMarks } from './cut-marks.ts';
import { drawSize } from './draw-size.ts';
import type { DrawnView } from './drawn-view.ts';
import type { SheetGeometry } from './geometry.ts';
import { standsFree } from './view-kinds.ts';
import { hatch } from './hatch.ts';
import { layOut, type LaidOut } from './layout.ts';
import type { Measured } from './measured.ts';
import { enlarged, line, type OnPaper, type SheetDrawing } from './paper.ts';
import type { PlacedSize, PlacedView } from './placed.ts';
import { placeSizes } from './place-sizes.ts';
import { frameAndTitle, listCorner, words } from './title-block.ts';
import { wordsOfSize } from './words-of-size.ts';

export interface Composed {
  readonly laidOut: LaidOut;
  readonly frame: readonly OnPaper[];
  readonly views: readonly PlacedView[];
  readonly sizes: readonly PlacedSize[];
}

/** How far a centre line stands out of what it is the centre of, mm on the paper. */
const OUT = 3;

/** Of capitals, mm: ISO 3098, larger on large paper. */
export const textHeight = ({ paper }: Pick<Sheet, 'paper'>): number =>
  paper === 'A0' || paper === 'A1' || paper === 'ANSI D' || paper === 'ANSI E' ? 5 : 3.5;

export function composeSheet(
  sheet: Sheet,
  of: { readonly name: string },
  geometry: SheetGeometry,
  units: DisplayUnits,
): Composed {
  const boxes = new Map([...geometry.views].map(([id, view]) => [id, view.box] as const));
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
    return [{ ...placed, items: [...placed.items, words(at[0], placed.box[1] - 7, title, letter === undefined ? 2.6 : 5, letter === undefined ? 'words' : 'strong', 'middle')] }]; // prettier-ignore
  });
  const frame = frameAndTitle(sheet, {
    title: [of.name, geometry.shown].filter((t) => t !== null).join(', '),
    material: geometry.material ?? '',
    mass: geometry.mass === null ? '' : `${formatNumber(geometry.mass, geometry.mass < 1 ? 4 : 3)} kg`,
    scale: `${on} : ${truth}`,
    units: units.length,
  });
  const about = sheet.parts ? ballooned(sheet, geometry) : null;
  const balloons = views.filter((v) => v.id === about).flatMap((v) => balloonsRound(v, rows, geometry.seen.get(v.id) ?? new Map(), sheet.parts!.places)); // prettier-ignore
  return {
    laidOut,
    frame: sheet.parts ? [...frame, ...partsTable(rows, listCorner(sheet))] : frame,
    views: slantMarks(sheet, geometry.views, detailMarks(sheet, geometry.views, cutMarks(sheet, geometry, views))),
    sizes: [...views.flatMap((v) => sizesIn(sheet, v, geometry, units)), ...balloons],
  };
}

/** The view round which balloons stand: the one chosen, or the straight-on one in which most parts are seen. */
function ballooned({ parts, viewOrder, views }: Sheet, { seen }: SheetGeometry): string | null {
  if (parts?.view !== undefined && views[parts.view]) return parts.view;
  const many = (id: string) => seen.get(id)?.size ?? 0;
  const straight = viewOrder.filter((id) => !standsFree(views[id]!));
  const of = straight.length > 0 ? straight : viewOrder;
  return of.reduce<string | null>((best, id) => (best === null || many(id) > many(best) ? id : best), null);
}

function placedView(id: string, view: DrawnView, at: Vec2, by: number): PlacedView {
  const [x0, y0, x1, y1] = view.box;
  const move: Vec2 = [at[0] - ((x0 + x1) / 2) * by, at[1] - ((y0 + y1) / 2) * by];
  const to = ([x, y]: Vec2): Vec2 => [x * by + move[0], y * by + move[1]];
  const { round } = view;
  /** A line, of a detail as far as it lies in it. */
  const within = (a: Vec2, b: Vec2, pen: 'center' | 'smooth'): OnPaper[] =>
    round ? withinRound({ kind: 'line', points: [a, b] }, { center: to(round.center), radius: round.radius * by }).map((piece) => ({ is: 'curve', pen, piece })) : [line(pen, a, b)]; // prettier-ignore
  const items: OnPaper[] = view.lines.map(({ piece, style }) => ({ is: 'curve', pen: style, piece: enlarged(piece, by, move) })); // prettier-ignore
  for (const { of, outline } of view.cut)
    for (const [a, b] of hatch(
      outline.map((piece) => enlarged(piece, by, move)),
      of,
    ))
      items.push(...within(a, b, 'smooth'));
  if (round) items.push({ is: 'curve', pen: 'smooth', piece: { kind: 'circle', points: [to(round.center)], radius: round.radius * by } }); // prettier-ignore
  for (const { at: center, radius } of view.crosses) {
    const [x, y] = to(center);
    const reach = radius * by + OUT;
    for (const [a, b] of [[[x - reach, y], [x + reach, y]], [[x, y - reach], [x, y + reach]]] as const) items.push(...within(a, b, 'center')); // prettier-ignore
  }
  for (const [a, b] of view.axes) {
    const [p, q] = [to(a), to(b)];
    const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const [u, v] = [((q[0] - p[0]) / long) * OUT, ((q[1] - p[1]) / long) * OUT];
    items.push(line('center', [p[0] - u, p[1] - v], [q[0] + u, q[1] + v]));
  }
  const [w, h] = [((x1 - x0) / 2) * by, ((y1 - y0) / 2) * by];
  return { id, at, by, move, box: [at[0] - w, at[1] - h, at[0] + w, at[1] + h], items };
}

function sizesIn(
  sheet: Sheet,
  { id: view, at, by, move, box }: PlacedView,
  geometry: SheetGeometry,
  units: DisplayUnits,
): PlacedSize[] {
  const height = textHeight(sheet);
  // From the view’s middle, on the paper.
  const off: Vec2 = [move[0] - at[0], move[1] - at[1]];
  const own = Object.entries(sheet.sizes).flatMap(([id, size]) => {
    const measured = size.view === view ? (geometry.sizes.get(id)?.measured ?? null) : null;
    return measured
      ? [{ id, size, measured: onPaper(measured, by, off), text: wordsOfSize(size, measured, units) }]
      : [];
  });
  const free = placeSizes(own.filter((s) => !s.size.place), [box[0] - at[0], box[1] - at[1], box[2] - at[0], box[3] - at[1]], height); // prettier-ignore
  return own.map(({ id, size, measured, text }) => {
    const place = size.place ?? free.get(id)!;
    const moved = onPaper(measured, 1, at);
    const where: Vec2 = [place[0] + at[0], place[1] + at[1]];
    return {
      id,
      view,
      place: where,
      items: drawSize(moved, text, where, { height, ordinate: size.ordinate ?? false }),
    };
  });
}

/** Enlarged, then moved. Its value stays the model’s. */
function onPaper(m: Measured, by: number, [dx, dy]: Vec2): Measured {
  const to = ([x, y]: Vec2): Vec2 => [x * by + dx, y * by + dy];
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
      return { ...m, apex: to(m.apex) };
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
