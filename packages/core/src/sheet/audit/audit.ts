/**
 * Can the part be remade from what stands on the sheet alone? Told by the freedoms of the shape under the given sizes:
 * what is still free is missing, what follows from others is said twice.
 */
import { drawnSo } from './drawn-so.ts';
import { rowsOfHole } from './hole-rows.ts';
import type { Design } from '../../document/schema.ts';
import type { Sheet, SheetSize } from '../../document/sheet.ts';
import type { Body } from '../../names/body.ts';
import type { DrawnView } from '../drawn-view.ts';
import { frameOfLook } from '../looks.ts';
import type { Measured, SizeState } from '../measured.ts';
import { wordOfView } from '../view-kinds.ts';
import { alikeRoundings, alikeRounds, candidates } from './candidates.ts';
import { COUNT, faultsOfSizes, namedSize, type AuditFinding } from './faults-of-sizes.ts';
import { RowSpace } from './row-space.ts';
import { foundSpot, roundingSeen, roundOf, rowOfSize, type CutView } from './said.ts';
import { conesAlike, rowsOfCone } from './rims.ts';
import { Shape } from './shape.ts';

export interface Audit {
  readonly findings: readonly AuditFinding[];
  /** What is taken to be so without being said, as sentences. */
  readonly taken: readonly string[];
  /** Freedoms of the shape, and how many the sizes settle. */
  readonly freedoms: number;
  readonly settled: number;
  /** Faces that are neither flat, cylinders, cones nor roundings of turned edges: whether sizes settle them is not judged. */
  readonly unjudged: number;
}

/** In this order sizes are taken to say something; what follows from those before is said twice. */
const KINDS: readonly SheetSize['kind'][] = ['hole', 'diameter', 'radius', 'pitch', 'across', 'up', 'straight', 'angle', 'chamfer', 'surface', 'note']; // prettier-ignore

/** @param bodies of the part that is drawn */
export function auditSheet(
  design: Design,
  sheet: Sheet,
  bodies: readonly Body[],
  views: ReadonlyMap<string, DrawnView>,
  sizes: ReadonlyMap<string, SizeState>,
): Audit {
  const findings: AuditFinding[] = faultsOfSizes(sheet, sizes);
  const shape = new Shape(bodies, frameOfLook(sheet.front, 'front'));
  const space = new RowSpace<string | null>(shape.width);
  for (const row of shape.relations()) space.add(row, null);
  const taken = drawnSo(shape, frameOfLook(sheet.front, 'front')).flatMap(({ says, rows }) =>
    rows.filter((row) => space.add(row, null) === null).length > 0 ? [says] : [],
  );
  const free = shape.width - space.rank;
  let silent = 0;
  for (const [id, size] of Object.entries(sheet.sizes).sort(
    ([, a], [, b]) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind),
  )) {
    const state = sizes.get(id);
    const view = sheet.views[size.view];
    if (!state) continue;
    if (state.lost !== null || !state.measured || !view) continue;
    const { measured } = state;
    const drawn = views.get(size.view);
    if (!drawn || !('true' in measured) || !measured.true || (size.ordinate && 'value' in measured && measured.value === 0)) continue; // prettier-ignore
    const counted = countedAlike(shape, size, drawn);
    const agrees = counted !== null && counted.told === counted.there;
    const rows = agrees ? counted.rows : rowsOf(shape, size, measured, drawn);
    if (rows.length === 0) {
      silent++;
      continue;
    }
    if (counted && !agrees) findings.push({ kind: 'wrong', says: `${counted.told}× is said of a size that ${counted.there} of them have.`, sizes: [id], cure: { ...size, text: size.text!.replace(COUNT, `${counted.there}×`) } }); // prettier-ignore
    const follows = rows.map((own) => space.add(own, id));
    if (follows.every((f) => f !== null))
      findings.push(
        saidTwice(
          id,
          size,
          follows.flatMap((f) => f!),
          sheet,
        ),
      );
  }
  const settled = space.rank - (shape.width - free);
  for (const candidate of candidates(shape, design, sheet, views)) {
    if (space.rank === shape.width) break;
    if (!candidate.rows.some((row) => space.says(row))) continue;
    for (const row of candidate.rows) space.add(row, null);
    findings.push({
      kind: 'missing',
      says: `${candidate.says.charAt(0).toUpperCase()}${candidate.says.slice(1)}.`,
      sizes: [],
      cure: candidate.size,
    });
  }
  const unseen = shape.width - space.rank;
  if (unseen > 0) findings.push({ kind: 'missing', says: `${unseen === 1 ? 'One more size is' : `${unseen} more sizes are`} missing that none of these views shows; add a view.`, sizes: [], cure: null }); // prettier-ignore
  if (shape.others > 0) taken.push(`${shape.others === 1 ? 'One face is' : `${shape.others} faces are`} neither flat, a cylinder, a cone nor the rounding of a turned edge; whether sizes settle ${shape.others === 1 ? 'it' : 'them'} is not judged.`); // prettier-ignore
  if (silent > 0) taken.push(`${silent === 1 ? 'One size is' : `${silent} sizes are`} taken at what is not judged, and counted for nothing.`); // prettier-ignore
  return { findings, taken: [...new Set(taken)], freedoms: free, settled, unjudged: shape.others };
}

/** What a size says of the shape; nothing where that is not judged. */
function rowsOf(shape: Shape, size: SheetSize, measured: Measured, view: CutView): readonly Float64Array[] {
  const hole = size.kind === 'hole' ? rowsOfHole(shape, size) : null;
  if (hole) return hole;
  const at = size.kind === 'chamfer' ? foundSpot(size.of[0]!, shape.bodies, view) : null;
  const cone = at && at.edge !== null ? rowsOfCone(shape, at.body, at.edge) : null;
  if (cone) return cone;
  const ways: readonly Measured[] = measured.is === 'chamfer' ? ([[1, 0], [0, 1]] as const).map((along) => ({ is: 'length', from: along, to: along, along, value: 0, true: true })) : [measured]; // prettier-ignore
  return ways.flatMap((way) => rowOfSize(shape, size, way, view) ?? []);
}

/** Of a size that says how many have it: how many of the shape do, and what is said of all these. */
function countedAlike(
  shape: Shape,
  size: SheetSize,
  view: CutView,
): { told: number; there: number; rows: readonly Float64Array[] } | null {
  const told = COUNT.exec(size.text ?? '')?.[1];
  const found = told === undefined ? null : foundSpot(size.of[0]!, shape.bodies, view);
  if (!found) return null;
  if (size.kind === 'chamfer') {
    const alike = conesAlike(shape, found);
    return alike.length > 0 ? { told: Number(told), there: alike.length, rows: alike.flatMap((a) => a.rows) } : null;
  }
  const rounding = size.kind === 'radius' ? roundingSeen(shape, found, view.frame) : null;
  if (rounding) {
    const rounded = alikeRoundings(shape, rounding);
    return { told: Number(told), there: rounded.length, rows: rounded.map((r) => shape.only(r.unknown)) };
  }
  const round = size.kind === 'diameter' || size.kind === 'radius' ? roundOf(shape, found) : null;
  const alike = round ? alikeRounds(shape, round) : [];
  return round ? { told: Number(told), there: alike.length, rows: alike.map((r) => shape.only(r.unknown)) } : null;
}

function saidTwice(id: string, size: SheetSize, from: readonly (string | null)[], sheet: Sheet): AuditFinding {
  const others = [...new Set(from)].filter((o): o is string => o !== null && o !== id);
  const look = (s: SheetSize) => wordOfView(sheet.views[s.view]!);
  const where = others.map((o) => namedSize(sheet.sizes[o]!, look(sheet.sizes[o]!)));
  const by = others.length === 0 ? 'how the shape is drawn' : [...new Set(where)].slice(0, 3).join(', ');
  return {
    kind: 'twice',
    says: `This size in the ${look(size)} view follows already from ${by}.`,
    sizes: [id, ...others],
    cure: null,
  };
}
