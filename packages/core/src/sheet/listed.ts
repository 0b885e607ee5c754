/** What an assembly is made of, as its sheet lists it, and where each part is seen in a view. */
import type { Member } from '../assembly/members.ts';
import { partsList } from '../assembly/parts-list.ts';
import type { Design } from '../document/schema.ts';
import { onOval, ovalOf } from '../exchange/face-drawing.ts';
import type { PartOutcome } from '../part/outcome.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { MATERIALS } from '../standards/materials.ts';
import type { ListedPart } from './listed-part.ts';
import type { DrawnView } from './drawn-view.ts';
import { boxOfPieces } from './piece-places.ts';

/** Hidden ones are not there to be counted. A part in two materials is one row; the design's own stands for it. */
export function listedOf(
  design: Design,
  members: readonly Member[],
  outcomes: ReadonlyMap<string, PartOutcome>,
): ListedPart[] {
  const bulkOf = (part: string) => {
    const bodies = outcomes.get(part)?.bodies ?? [];
    return { volume: bodies.reduce((sum, b) => sum + b.facts.volume, 0), center: [0, 0, 0] as const, size: [0, 0, 0] as const };
  }; // prettier-ignore
  const rows = new Map<string, ListedPart>();
  for (const { part, name, count, material, each } of partsList(design, members.filter((m) => !m.hidden), bulkOf)) {
    const known = rows.get(part);
    if (known) rows.set(part, { ...known, count: known.count + count, material: 'several', each: null });
    else rows.set(part, { part, name, count, material: material ? MATERIALS[material].label : '', each });
  } // prettier-ignore
  return [...rows.values()];
}

/** Of each part the middle of the longest line that is seen of it, mm of the model. */
export function whereSeen({ lines }: DrawnView, partOf: readonly string[]): ReadonlyMap<string, Vec2> {
  const best = new Map<string, { readonly long: number; readonly at: Vec2 }>();
  for (const { piece, style, of } of lines) {
    const part = partOf[of];
    if (part === undefined || style !== 'visible') continue;
    const [x0, y0, x1, y1] = boxOfPieces([piece]);
    const long = Math.hypot(x1 - x0, y1 - y0);
    if (long > (best.get(part)?.long ?? 0)) best.set(part, { long, at: middleOf(piece) });
  }
  return new Map([...best].map(([part, { at }]) => [part, at]));
}

function middleOf(piece: FlatPiece): Vec2 {
  if (piece.kind === 'spline' || piece.kind === 'point') return piece.points[Math.floor(piece.points.length / 2)]!;
  if (piece.kind === 'line') return [(piece.points[0][0] + piece.points[1][0]) / 2, (piece.points[0][1] + piece.points[1][1]) / 2]; // prettier-ignore
  const oval = ovalOf(piece);
  return onOval(oval, (oval.from + oval.to) / 2);
}
