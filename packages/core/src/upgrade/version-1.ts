/**
 * From version 1 to 2. An extrude held its sketch and regions as two fields, and its bodies as texts
 * (`step`, or `step/2` for the second it made); faces were named by a digest of their region, `start`
 * and `end` by the plane's normal, and pieces numbered by position (`name#2`). In expressions `36 mm^2` was
 * the square of 36 mm.
 */
import { hashText } from '../ids/hash.ts';
import { BODY_ROLE } from '../names/find-body.ts';
import { curvesAsParents, nameOf } from '../names/name.ts';
import type { RegionRef } from '../references/references.ts';
import { findRegion } from '../sketch/regions/find-region.ts';
import { isInside } from '../sketch/regions/loop.ts';
import { findRegions, mergeRegions, type Region } from '../sketch/regions/regions.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import { UNITS } from '../units/units.ts';

type Data = Record<string, unknown>;

const isData = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);
const entriesOf = (value: unknown): [string, Data][] =>
  isData(value) ? Object.entries(value).filter((e): e is [string, Data] => isData(e[1])) : [];

/** An extrude as names speak of it. */
interface Extruded {
  readonly reversed: boolean;
  /** The curves each body it made was told apart by, in the order in which they were numbered. */
  readonly parents: readonly (readonly string[])[];
  /** The same by the digest that stood in names. */
  readonly byDigest: ReadonlyMap<string, readonly string[]>;
}

export function fromVersion1(document: object): object {
  const design = structuredClone(document) as Data;
  design.version = 2;
  for (const expressions of homesOfExpressions(design))
    for (const [key, text] of Object.entries(expressions))
      if (typeof text === 'string' && EXPRESSIONS.has(key)) expressions[key] = withBracketedPowers(text);
  for (const [, { cells }] of entriesOf(isData(design.variants) ? design.variants.rows : null))
    if (isData(cells))
      for (const [key, text] of Object.entries(cells))
        if (key.startsWith('dimension:') && typeof text === 'string') cells[key] = withBracketedPowers(text);
  const extruded = new Map<string, Extruded>();
  const parts = entriesOf(design.parts).map(([, part]) => part);
  for (const part of parts)
    for (const [id, step] of entriesOf(part.steps))
      if (step.kind === 'extrude') extruded.set(id, asNamed(step, isData(part.steps) ? part.steps : {}));
  for (const part of parts)
    for (const [, step] of entriesOf(part.steps)) {
      if (step.kind === 'extrude') renewExtrude(step, extruded);
      if (step.kind === 'sketch') renewSketch(step, extruded);
    }
  for (const home of [design, design.shared, ...parts])
    if (isData(home))
      for (const [, dimension] of entriesOf(home.dimensions)) renewMeasure(dimension.measured, extruded);
  return design;
}

const EXPRESSIONS: ReadonlySet<string> = new Set(['value', 'distance', 'back_distance', 'min', 'max', 'step']);

/** Everything that holds an expression: dimensions and their dials, constraints, steps. */
function homesOfExpressions(design: Data): Data[] {
  const parts = entriesOf(design.parts).map(([, part]) => part);
  const dimensions = [design, design.shared, ...parts].flatMap((home) =>
    isData(home) ? entriesOf(home.dimensions).map(([, d]) => d) : [],
  );
  const steps = parts.flatMap((part) => entriesOf(part.steps).map(([, s]) => s));
  return [
    ...dimensions.flatMap((d) => (isData(d.dial) ? [d, d.dial] : [d])),
    ...steps.flatMap((s) => [s, ...entriesOf(s.constraints).map(([, c]) => c)]),
  ];
}

const MEASURE_TO_A_POWER = new RegExp(
  `(?<![\\w.$])(\\d[\\d./ ]*\\s*(?:${Object.keys(UNITS)
    .sort((a, b) => b.length - a.length)
    .join('|')}|["'°]))\\s*\\^`,
  'g',
);

/** `36 mm^2` as it was meant: `(36 mm)^2`. */
function withBracketedPowers(text: string): string {
  return text.replace(MEASURE_TO_A_POWER, '($1)^');
}

function asNamed(step: Data, steps: Data): Extruded {
  const areas = areasOf(step, steps[String(step.sketch)]);
  const backwards = Number.parseFloat(String(step.distance)) < 0;
  return {
    reversed: (step.reversed === true) !== backwards,
    parents: areas.map((a) => a.parents),
    byDigest: new Map(areas.map((a) => [hashText(a.outer.join()).slice(0, 8), a.parents])),
  };
}

/** The areas it extruded, found on the sketch as it was stored; none where that cannot be told. */
function areasOf(step: Data, sketch: unknown): (Region & { readonly parents: readonly string[] })[] {
  try {
    const map = findRegions(sketch as SketchGeometry);
    if (step.regions === 'all')
      return mergeRegions(map, map.regions).map((a) => ({ ...a, parents: curvesAsParents(a.outer) }));
    const chosen = (step.regions as RegionRef[]).flatMap((ref) => {
      const finding = findRegion(ref, map);
      return finding.how === 'lost' ? [] : finding.found.map((region) => ({ region, outer: ref.outer }));
    });
    return mergeRegions(map, [...new Set(chosen.map((c) => c.region))]).map((area) => {
      const within = chosen.filter((c) => isInside(area.loops, c.region.at)).flatMap((c) => c.outer);
      return { ...area, parents: curvesAsParents([...new Set(within)]) };
    });
  } catch {
    return [];
  }
}

function renewExtrude(step: Data, extruded: ReadonlyMap<string, Extruded>): void {
  if ('sketch' in step || 'regions' in step) {
    const { sketch, regions, ...rest } = step;
    for (const key of Object.keys(step)) delete step[key];
    const { kind, name, suppressed, ...slots } = rest;
    Object.assign(step, { kind, name, ...(suppressed ? { suppressed } : {}), profile: { sketch, regions }, ...slots });
  }
  if (Array.isArray(step.bodies)) step.bodies = step.bodies.map((id) => bodyFrom(id, extruded));
}

function bodyFrom(id: unknown, extruded: ReadonlyMap<string, Extruded>): unknown {
  if (typeof id !== 'string') return id;
  const [step, which] = id.split('/') as [string, string | undefined];
  const own = extruded.get(step);
  const place = which === undefined ? 0 : Number(which) - 1;
  const parents = own?.parents[place];
  // A piece that a cut made had the cutting step behind it; only its beginning is known.
  return { name: parents && own.parents.length > 1 ? nameOf(step, BODY_ROLE, parents).text : step };
}

function renewSketch(step: Data, extruded: ReadonlyMap<string, Extruded>): void {
  if (isData(step.plane)) renewFace(step.plane.face, extruded);
  for (const [, { source }] of entriesOf(step.borrowed)) {
    if (!isData(source)) continue;
    if (source.kind === 'edge' || source.kind === 'vertex') renewEdge(source.edge, extruded);
    if (source.kind === 'face' && typeof source.face === 'string') {
      source.face = { name: source.face, near: source.near };
      delete source.near;
      renewFace(source.face, extruded);
    }
    if (source.kind === 'section' || source.kind === 'silhouette') source.body = bodyFrom(source.body, extruded);
  }
}

function renewMeasure(measure: unknown, extruded: ReadonlyMap<string, Extruded>): void {
  if (!isData(measure)) return;
  renewFace(measure.face, extruded);
  renewEdge(measure.edge, extruded);
  if (Array.isArray(measure.between))
    for (const thing of measure.between as unknown[])
      if (isData(thing)) (Array.isArray(thing.faces) ? renewEdge : renewFace)(thing, extruded);
}

function renewFace(ref: unknown, extruded: ReadonlyMap<string, Extruded>): void {
  if (!isData(ref) || typeof ref.name !== 'string') return;
  if (ref.name.includes('#')) ref.piece = true;
  ref.name = renewName(ref.name, extruded);
}

function renewEdge(ref: unknown, extruded: ReadonlyMap<string, Extruded>): void {
  if (isData(ref) && Array.isArray(ref.faces))
    ref.faces = ref.faces.map((name: unknown) => (typeof name === 'string' ? renewName(name, extruded) : name));
}

const OTHER: Readonly<Record<string, string>> = { start: 'end', end: 'start' };

function renewName(text: string, extruded: ReadonlyMap<string, Extruded>): string {
  const [step, role, detail] = text.replace(/#.*$/, '').split(':') as [string, string | undefined, string | undefined];
  const own = extruded.get(step);
  if (role === undefined || !(role in OTHER)) return text.replace(/#.*$/, '');
  const side = own?.reversed ? OTHER[role]! : role;
  const parents = detail === undefined ? undefined : own?.byDigest.get(detail);
  return nameOf(step, side, parents ?? []).text;
}
