/** Paints the open sketch: all of it, or while something moves, what stands still once and the rest at every frame. */
import type { RegionMap, SketchGeometry } from '@helb/core';
import { useSession } from '../design/session.ts';
import type { Sheet, SheetBox } from '../stage/sheet.ts';
import { areSlow, regionsFor } from '../stage/sketch-regions.ts';
import type { DimensionDrawing } from './dimension-layout.ts';
import { drawnDimensions, type DrawnDimension } from './dimension-places.ts';
import { Extent, keyOf, movedBetween, ringsOf, splitFillings, type Fillings } from './moving-picture.ts';
import {
  fillLoops, INKS, paintAxes, paintDimensions, paintGrid, paintNumbers, paintSketch, traceCurve, type SketchState,
} from './painter.ts'; // prettier-ignore
import type { PlaneMap } from './plane-map.ts';
import type { SketchEditing } from './sketch-editing.ts';

/** While something moves, regions are found anew only where that takes less than this. */
const MOVING_REGIONS_MS = 3;
/** Nobody sees a smaller move. */
const SEEN_PX = 0.02;
const NOTHING: Fillings = { regions: [], rings: [] };

type Ctx = CanvasRenderingContext2D;
type Size = { readonly width: number; readonly height: number };

/** @param texts the numbers as last written, by dimension */
export function useSketchPicture(
  editing: SketchEditing,
  mapNow: () => PlaneMap,
  dimensions: () => readonly DrawnDimension[],
  texts: ReadonlyMap<string, string>,
) {
  const session = useSession();
  let regionsCost = 0;
  /** The movement under way: where it began, all that has moved in it, and what its sheets show. */
  let movement: {
    readonly rest: SketchGeometry;
    readonly map: PlaneMap;
    readonly moved: Set<string>;
    painted: string;
    box: SheetBox | null;
  } | null = null;

  function timedRegions(sketch: SketchGeometry): RegionMap {
    const start = performance.now();
    const found = regionsFor(sketch);
    // A remembered answer costs nothing and says nothing of the next one.
    const cost = performance.now() - start;
    if (cost > 0.3) regionsCost = cost;
    return found;
  }

  function state(): SketchState {
    return {
      loose: editing.solution.value?.loose ?? new Set(),
      clashing: editing.clashing.value,
      picked: new Set(session.entities),
      hovered: editing.hovered.value,
      borrowed: editing.borrowed.value,
    };
  }

  /** @param still for what stands @param moving for what a drag moves, laid over it */
  function paint(still: Sheet, moving: Sheet, size: Size): void {
    const sketch = editing.geometry.value;
    const map = mapNow();
    if (!sketch || map.edgeOn) {
      still.show(false);
      moving.show(false);
      return;
    }
    const rest = editing.preview.value && (editing.solution.value?.geometry ?? editing.step.value);
    if (rest && !session.tool && !session.changing) return paintMoving(still, moving, size, rest, sketch);
    movement = null;
    moving.show(false);
    const ctx = still.begin();
    if (ctx) paintWhole(ctx, sketch, map, size.width, size.height);
  }

  function paintWhole(ctx: Ctx, sketch: SketchGeometry, map: PlaneMap, width: number, height: number): void {
    const found = timedRegions(sketch);
    paintGround(ctx, map, width, height, { regions: found.regions, rings: session.tool ? [] : ringsOf(found) });
    paintSketch(ctx, sketch, map, state());
    const moves = editing.preview.value !== null;
    paintAll(ctx, moves ? drawnDimensions(sketch, map) : dimensions(), moves);
    paintStroke(ctx, editing, map, session.tool !== null);
  }

  /** Grid, axes and what fills the outlines. */
  function paintGround(ctx: Ctx, map: PlaneMap, width: number, height: number, fillings: Fillings): void {
    paintGrid(ctx, map, width, height);
    paintFillings(ctx, map, fillings);
    paintAxes(ctx, map, width, height, state());
  }

  function paintAll(ctx: Ctx, drawn: readonly DrawnDimension[], numbers: boolean): void {
    const isLit = ({ id }: DrawnDimension) =>
      session.hoveredDimension === `${session.sketching}.${id}` || session.entities.includes(id);
    for (const lit of [false, true]) {
      const alike = drawn.filter((d) => isLit(d) === lit);
      const ink = lit ? INKS.signal : INKS.dimension;
      paintDimensions(
        ctx,
        alike.map((d) => d.drawing),
        ink,
      );
      if (!numbers) continue;
      const written = alike.map(({ id, drawing }) => ({ text: drawing.text, number: texts.get(id) ?? '' }));
      paintNumbers(ctx, written, ink);
    }
  }

  function paintMoving(still: Sheet, moving: Sheet, size: Size, rest: SketchGeometry, sketch: SketchGeometry): void {
    const map = mapNow();
    if (movement?.rest !== rest || movement.map !== map)
      movement = { rest, map, moved: new Set(), painted: '', box: null };
    const { moved } = movement;
    for (const id of movedBetween(rest, sketch, SEEN_PX / map.scale)) moved.add(id);
    const found = regionsCost > MOVING_REGIONS_MS || areSlow(sketch) ? null : timedRegions(sketch);
    const fillings = splitFillings(found ? sketch : rest, found ?? regionsFor(rest), moved);
    paintStill(still, size, rest, moved, fillings.still);

    const drawn = drawnDimensions(sketch, map, { only: moved }).filter(({ drawing }) => isOnStage(drawing, map, size));
    const shown = found ? fillings.moving : NOTHING;
    const extent = new Extent(map);
    extent.fillings(shown);
    for (const id of moved) {
      if (sketch.points[id]) extent.point(sketch.points[id]);
      if (sketch.curves[id]) extent.curve(sketch, id);
    }
    for (const { drawing } of drawn) extent.dimension(drawing);
    movement.box = extent.within(size.width, size.height, movement.box);
    if (movement.box) moving.cover(movement.box);
    const ctx = movement.box && moving.begin();
    if (!ctx) return moving.show(false);
    paintFillings(ctx, map, shown);
    paintSketch(ctx, sketch, map, state(), (id) => moved.has(id));
    paintAll(ctx, drawn, true);
  }

  /** Paint what stands still, unless the sheet shows it already. */
  function paintStill(
    sheet: Sheet,
    { width, height }: Size,
    rest: SketchGeometry,
    moved: ReadonlySet<string>,
    fillings: Fillings,
  ): void {
    const lit = [editing.hovered.value, ...session.entities, session.hoveredDimension].join();
    const key = `${width} ${height} ${lit} ${moved.size} ${keyOf(fillings)}`;
    if (movement!.painted === key) return;
    const ctx = sheet.begin();
    if (!ctx) return;
    movement!.painted = key;
    const map = mapNow();
    const isStill = (id: string) => !moved.has(id);
    paintGround(ctx, map, width, height, fillings);
    paintSketch(ctx, rest, map, state(), isStill);
    paintAll(
      ctx,
      drawnDimensions(rest, map).filter((d) => isStill(d.id)),
      true,
    );
  }

  return { paint };
}

/** Numbers are the dearest to draw, and in a long sketch many are out of sight. */
function isOnStage(drawing: DimensionDrawing, map: PlaneMap, { width, height }: Size): boolean {
  const extent = new Extent(map);
  extent.dimension(drawing);
  return extent.within(width, height, null) !== null;
}

function paintFillings(ctx: Ctx, map: PlaneMap, { regions, rings }: Fillings): void {
  for (const { loops } of regions) fillLoops(ctx, loops, map, INKS.region);
  ctx.setLineDash([]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = INKS.clashing;
  for (const { at, radius } of rings) {
    ctx.beginPath();
    ctx.arc(...map.toPixel(at), radius, 0, 2 * Math.PI);
    ctx.stroke();
  }
}

/** The stroke being drawn, as a click would make it; or the change under way; or the box round what to pick. */
function paintStroke(ctx: Ctx, { drawing, changing, box }: SketchEditing, map: PlaneMap, isDrawing: boolean): void {
  ctx.strokeStyle = INKS.signal;
  ctx.fillStyle = INKS.signal;
  ctx.lineWidth = 1.6;
  ctx.setLineDash([6, 4]);
  const shown = isDrawing ? drawing.preview.value : changing.preview.value;
  for (const id of shown?.curves ?? []) {
    traceCurve(ctx, shown!.sketch, id, map);
    ctx.stroke();
  }
  if (box.value) {
    const [a, b] = [map.toPixel(box.value.from), map.toPixel(box.value.to)];
    ctx.strokeRect(a[0], a[1], b[0] - a[0], b[1] - a[1]);
  }
  const at = drawing.target.value;
  if (isDrawing && at) {
    if (!shown && drawing.clicks.value.length > 0) {
      ctx.beginPath();
      for (const click of [...drawing.clicks.value, at]) ctx.lineTo(...map.toPixel(click.at));
      ctx.stroke();
    }
    ctx.setLineDash([]);
    ctx.beginPath();
    ctx.arc(...map.toPixel(at.at), at.point || at.on ? 5 : 2.5, 0, 2 * Math.PI);
    ctx.fill();
  }
  ctx.setLineDash([]);
}
