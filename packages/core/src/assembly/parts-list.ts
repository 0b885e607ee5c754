/** What an assembly is made of: how often each part, of what, how heavy; and what all of it weighs. */
import Papa from 'papaparse';
import { FORMULA } from '../standards/csv.ts';
import type { Member } from './members.ts';
import type { Design } from '../document/schema.ts';
import { massOf, MATERIALS, type MaterialKey } from '../standards/materials.ts';
import { placedAt, type Pose } from '../space/pose.ts';
import type { Vec3 } from '../space/vector.ts';

/** Of a part’s bodies together. */
export interface PartBulk {
  /** mm³ */
  readonly volume: number;
  /** In the part’s space, mm. */
  readonly center: Vec3;
  /** How far it reaches along x, y and z, mm. */
  readonly size: Vec3;
}

export interface PartsRow {
  readonly part: string;
  readonly name: string;
  readonly count: number;
  readonly material: MaterialKey | null;
  /** Of one, kg; null without a material. */
  readonly each: number | null;
  readonly size: Vec3 | null;
}

/** Parts of one material in the order of the design’s own list; those of another material apart. */
export function partsList(
  design: Design,
  members: readonly Member[],
  bulkOf: (part: string) => PartBulk | null,
): PartsRow[] {
  const rows = new Map<string, PartsRow>();
  for (const { part, instance } of members) {
    const material = instance.material ?? design.parts[part]?.material ?? null;
    const key = `${part} ${material}`;
    const bulk = bulkOf(part);
    const known = rows.get(key);
    rows.set(key, {
      part,
      name: design.parts[part]?.name ?? '',
      count: (known?.count ?? 0) + 1,
      material,
      each: material && bulk ? massOf(bulk.volume, material) : null,
      size: bulk?.size ?? null,
    });
  }
  const place = new Map(design.partOrder.map((id, i) => [id, i]));
  return [...rows.values()].sort((a, b) => (place.get(a.part) ?? 0) - (place.get(b.part) ?? 0));
}

export interface Whole {
  /** kg */
  readonly mass: number;
  /** In the assembly’s space, mm; null where nothing has a mass. */
  readonly center: Vec3 | null;
  /** Parts without a material, which are left out. */
  readonly without: readonly string[];
}

/** Mass and centre of these members where they stand. */
export function weighed(
  design: Design,
  members: readonly Member[],
  poses: ReadonlyMap<string, Pose>,
  bulkOf: (part: string) => PartBulk | null,
): Whole {
  let mass = 0;
  const sum: [number, number, number] = [0, 0, 0];
  const without = new Set<string>();
  for (const { key, part, name, instance } of members) {
    const material = instance.material ?? design.parts[part]?.material;
    const bulk = bulkOf(part);
    const pose = poses.get(key);
    if (!material || !bulk || !pose) {
      without.add(name);
      continue;
    }
    const own = massOf(bulk.volume, material);
    placedAt(pose, bulk.center).forEach((n, i) => (sum[i]! += n * own));
    mass += own;
  }
  return { mass, center: mass > 0 ? [sum[0] / mass, sum[1] / mass, sum[2] / mass] : null, without: [...without] };
}

/** The list as comma-separated values, with the design’s own columns; lengths in mm, masses in kg. */
export function partsCsv(
  rows: readonly PartsRow[],
  { parts, columns = [] }: Pick<Design, 'parts' | 'columns'> = { parts: {} },
): string {
  const number = (n: number | null | undefined, digits: number) => (n == null ? '' : Number(n.toFixed(digits)));
  const lines = rows.map(({ part, name, count, material, each, size }, i) => ({
    item: i + 1,
    name,
    count,
    material: material ? MATERIALS[material].label : '',
    mass_each_kg: number(each, 4),
    mass_kg: number(each === null ? null : each * count, 4),
    x_mm: number(size?.[0], 3),
    y_mm: number(size?.[1], 3),
    z_mm: number(size?.[2], 3),
    ...Object.fromEntries(columns.map((c) => [c.name, parts[part]?.cells?.[c.id] ?? ''])),
  }));
  return Papa.unparse(lines, { escapeFormulae: FORMULA });
}

/** Blanks of one size to be cut. */
export interface CutRow {
  readonly material: MaterialKey | null;
  /** The least, middle and largest side of the box round the part as it was drawn, mm. */
  readonly thickness: number;
  readonly width: number;
  readonly length: number;
  readonly count: number;
  /** Of the parts made of it. */
  readonly names: readonly string[];
}

/** Sides that differ by less, mm, are cut alike. */
const SAME_CUT = 1e-3;

/** By material and thickness, the longest first; what is not known yet is left out. */
export function cutList(rows: readonly PartsRow[]): CutRow[] {
  const cuts: CutRow[] = [];
  for (const { name, count, material, size } of rows) {
    if (!size) continue;
    const [thickness, width, length] = [...size].sort((a, b) => a - b) as [number, number, number];
    const same = (c: CutRow) =>
      c.material === material &&
      [c.thickness - thickness, c.width - width, c.length - length].every((d) => Math.abs(d) < SAME_CUT);
    const at = cuts.findIndex(same);
    const known = cuts[at];
    if (known) cuts[at] = { ...known, count: known.count + count, names: [...new Set([...known.names, name])] };
    else cuts.push({ material, thickness, width, length, count, names: [name] });
  }
  const stuff = ({ material }: CutRow) => (material ? MATERIALS[material].label : '~');
  return cuts.sort(
    (a, b) =>
      stuff(a).localeCompare(stuff(b), 'en') || a.thickness - b.thickness || b.length - a.length || b.width - a.width,
  );
}

/** The cuts as comma-separated values, mm. */
export function cutsCsv(cuts: readonly CutRow[]): string {
  const mm = (n: number) => Number(n.toFixed(3));
  const lines = cuts.map((c) => ({
    material: c.material ? MATERIALS[c.material].label : '',
    thickness_mm: mm(c.thickness),
    width_mm: mm(c.width),
    length_mm: mm(c.length),
    count: c.count,
    parts: c.names.join('; '),
  }));
  return Papa.unparse(lines, { escapeFormulae: FORMULA });
}
