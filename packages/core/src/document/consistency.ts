/** What the schema alone cannot say: that ids meet their maps, and are unique where expressions need it. */
import type { z } from 'zod';
import { MAX_DIMENSIONS, MAX_PARTS, MAX_STEPS } from '../ids/limits.ts';
import { Step } from '../steps/schema.ts';
import { faultsOfStep } from '../steps/slots-of.ts';
import { Assembly } from './assembly.ts';
import { firstIssue } from './change.ts';
import { Dimension } from './dimension.ts';
import { numberedIn } from './numbered.ts';
import { Design, Part } from './schema.ts';
import type { Touch } from './touches.ts';

/** Faults as sentences; empty when the design is sound. */
export function checkConsistency(design: Design): string[] {
  const faults = checkOrders(design);
  const seen = new Map<string, string>();
  const claim = (id: string, where: string) => {
    const before = seen.get(id);
    if (before) faults.push(`the id “${id}” is used twice, in ${before} and in ${where}.`);
    else seen.set(id, where);
  };
  for (const id of Object.keys(design.dimensions)) claim(id, 'dimensions');
  for (const [partId, part] of Object.entries(design.parts)) {
    const where = `part “${part.name}”`;
    for (const id of [...Object.keys(part.dimensions), ...Object.keys(part.steps)]) claim(id, where);
    faults.push(...checkPart(partId, part));
    for (const [id, step] of Object.entries(part.steps)) faults.push(...faultsOfStep(id, step));
  }
  for (const own of Object.values(design.assemblies ?? {}))
    for (const { id } of numberedIn(own)) claim(id, `assembly “${own.name}”`);
  return faults;
}

function checkOrders(design: Design) {
  const { dimensionOrder, dimensions, partOrder, parts, shared, variants, requirements } = design;
  const { assemblies = {}, assemblyOrder = [], sheets = {}, sheetOrder = [], outlines = {}, outlinesOrder = [] } = design; // prettier-ignore
  return [
    ...checkOrder(sheetOrder, sheets, 'sheetOrder'),
    ...Object.entries(sheets).flatMap(([id, own]) =>
      checkOrder(own.viewOrder, own.views, `sheets › ${id} › viewOrder`),
    ),
    ...checkOrder(outlinesOrder, outlines, 'outlinesOrder'),
    ...Object.entries(outlines).flatMap(([id, own]) =>
      checkOrder(own.pieceOrder, own.pieces, `outlines › ${id} › pieceOrder`),
    ),
    ...checkOrder(assemblyOrder, assemblies, 'assemblyOrder'),
    ...Object.entries(assemblies).flatMap(([id, own]) => [
      ...checkOrder(own.instanceOrder, own.instances, `assemblies › ${id} › instanceOrder`),
      ...checkOrder(own.jointOrder, own.joints, `assemblies › ${id} › jointOrder`),
    ]),
    ...checkOrder(dimensionOrder, dimensions, 'dimensionOrder'),
    ...checkOrder(partOrder, parts, 'partOrder'),
    ...(shared ? checkOrder(shared.dimensionOrder, shared.dimensions, 'shared') : []),
    ...(variants ? checkOrder(variants.order, variants.rows, 'variants') : []),
    ...(requirements ? checkOrder(requirements.order, requirements.rows, 'requirements') : []),
  ];
}

function checkOrder(order: readonly string[], map: Readonly<Record<string, unknown>>, where: string): string[] {
  const faults: string[] = [];
  const listed = new Set(order);
  if (listed.size !== order.length) faults.push(`${where} lists an id twice.`);
  for (const id of listed) if (!Object.hasOwn(map, id)) faults.push(`${where} lists “${id}”, which does not exist.`);
  for (const id of Object.keys(map)) if (!listed.has(id)) faults.push(`${where} does not list “${id}”.`);
  return faults;
}

function checkPart(id: string, part: Part): string[] {
  return [
    ...checkOrder(part.dimensionOrder, part.dimensions, `parts › ${id} › dimensionOrder`),
    ...checkOrder(part.stepOrder, part.steps, `parts › ${id} › stepOrder`),
    ...checkOrder(part.brief?.numberOrder ?? [], part.brief?.numbers ?? {}, `parts › ${id} › brief › numberOrder`),
    ...checkOrder(part.brief?.drawingOrder ?? [], part.brief?.drawings ?? {}, `parts › ${id} › brief › drawingOrder`),
  ];
}

const MOST = { dimensions: MAX_DIMENSIONS, steps: MAX_STEPS, parts: MAX_PARTS } as const;

/**
 * Why a sound design is sound no more after these touches, as a sentence; null when it still is. What was not touched
 * is not looked at again, so that a change costs what it changes.
 */
export function faultOfTouched(design: Design, touches: readonly Touch[]): string | null {
  const looked = new Set<string>();
  const parts = new Set<string>();
  for (const { path } of touches) {
    const [first, second, third, fourth] = path as [string, ...string[]];
    const inPart = first === 'parts' && second !== undefined;
    const inMap = inPart && (third === 'steps' || third === 'dimensions');
    const place = path
      .slice(0, inMap ? 4 : inPart ? 3 : first === 'dimensions' || first === 'assemblies' ? 2 : 1)
      .join('/');
    if (looked.has(place)) continue;
    looked.add(place);
    if (inPart) parts.add(second);
    const fault = inPart ? faultInPart(design, second, third, fourth) : faultAtTop(design, first, second);
    if (fault) return fault;
  }
  for (const id of parts) {
    const part = design.parts[id];
    const [fault] = part ? checkPart(id, part) : [];
    if (fault) return fault;
  }
  return checkOrders(design)[0] ?? null;
}

const read = (schema: z.ZodType, value: unknown): string | null => {
  const parsed = schema.safeParse(value);
  return parsed.success ? null : firstIssue(parsed.error);
};

function faultAtTop(design: Design, field: string, id: string | undefined): string | null {
  if (field === 'parts') return tooMany('parts', design.parts);
  const map = field === 'dimensions' ? design.dimensions : null;
  if (map && id !== undefined)
    return tooMany('dimensions', map) ?? (map[id] ? (read(Dimension, map[id]) ?? takenTwice(design, id)) : null);
  if (field === 'assemblies' && id !== undefined) {
    const own = design.assemblies?.[id];
    return own
      ? (read(Assembly, own) ??
          numberedIn(own)
            .map((n) => takenTwice(design, n.id))
            .find((f) => f !== null) ??
          null)
      : null;
  }
  const shape: Readonly<Record<string, z.ZodType>> = Design.shape;
  return Object.hasOwn(shape, field)
    ? read(shape[field]!, (design as Record<string, unknown>)[field])
    : `${field} is unknown.`;
}

function faultInPart(design: Design, id: string, field: string | undefined, inner: string | undefined): string | null {
  const part = design.parts[id];
  if (!part) return null;
  if (field === undefined) {
    const fault = read(Part, part) ?? tooMany('parts', design.parts);
    if (fault) return fault;
    for (const own of [...Object.keys(part.steps), ...Object.keys(part.dimensions)]) {
      const twice = takenTwice(design, own);
      if (twice) return twice;
    }
    return Object.entries(part.steps).flatMap(([step, data]) => faultsOfStep(step, data))[0] ?? null;
  }
  if ((field === 'steps' || field === 'dimensions') && inner !== undefined) {
    const value = part[field][inner];
    if (!value) return null;
    return (
      tooMany(field, part[field]) ??
      read(field === 'steps' ? Step : Dimension, value) ??
      takenTwice(design, inner) ??
      (field === 'steps' ? (faultsOfStep(inner, value as Step)[0] ?? null) : null)
    );
  }
  const shape: Readonly<Record<string, z.ZodType>> = Part.shape;
  return Object.hasOwn(shape, field) ? read(shape[field]!, (part as Record<string, unknown>)[field]) : `${field} is unknown.`; // prettier-ignore
}

const tooMany = (what: keyof typeof MOST, map: object): string | null =>
  Object.keys(map).length > MOST[what] ? `there are more than ${MOST[what]} ${what}.` : null;

/** Expressions name dimensions and steps by id alone, wherever they stand. */
function takenTwice(design: Design, id: string): string | null {
  const homes = [design.dimensions, ...Object.values(design.parts).flatMap((p) => [p.dimensions, p.steps])];
  const numbered = Object.values(design.assemblies ?? {}).flatMap((a) => numberedIn(a).filter((n) => n.id === id));
  const count = homes.filter((home) => Object.hasOwn(home, id)).length + numbered.length;
  return count > 1 ? `the id “${id}” is used twice.` : null;
}
