import { StepFailure, type Body } from '../../part/body.ts';
import { nameOfOrigin, numberEquals } from '../../part/face-names.ts';
import { LazyFacts } from '../../part/facts.ts';
import { hashText } from '../../part/hash.ts';
import {
  mergeRegions,
  resolveRegion,
  touchingPoint,
  type Region,
  type RegionMap,
} from '../../sketch/regions/regions.ts';
import type { StepContext, StepResult } from '../context.ts';
import { combineWith } from '../combine/combine.ts';
import type { ExtrudeStep } from './schema.ts';

/** Thinner than this, mm, is nothing. */
const LEAST_THICKNESS = 1e-6;

export function evaluateExtrude(step: ExtrudeStep, context: StepContext): StepResult {
  const { name: sketchName, outcome } = context.sketch(step.sketch);
  const areas = chosenAreas(step, sketchName, outcome.regions);
  const [from, to] = reachOf(step, context);
  if (to - from < LEAST_THICKNESS) {
    throw new StepFailure('An extrude of zero makes nothing; give it a distance.');
  }
  const key = hashText(
    JSON.stringify(['extrude', context.stepId, step.name, outcome.frame, areas.map((a) => a.loops), from, to]),
  );
  const tools = context.once(key, () => areas.map((area, i) => push(context, step, area, outcome.frame, from, to, i)));
  return { bodies: combineWith(step.result, step.bodies ?? 'all', tools, step.name, context, key) };
}

/** Heights along the normal between which the solid lies. */
function reachOf(step: ExtrudeStep, context: StepContext): [number, number] {
  const distance = context.number('distance');
  let ends: [number, number];
  if (step.way === 'symmetric') ends = [-distance / 2, distance / 2];
  else if (step.way === 'one_way') ends = [0, distance];
  else {
    if (step.back_distance === undefined)
      throw new StepFailure('Both ways needs a second distance; give one, or choose one way.');
    ends = [-context.number('back_distance'), distance];
  }
  if (step.reversed) ends = [-ends[1], -ends[0]];
  return ends[0] <= ends[1] ? ends : [ends[1], ends[0]];
}

function chosenAreas(step: ExtrudeStep, sketchName: string, map: RegionMap): Region[] {
  if (map.regions.length === 0) throw new StepFailure(openProfile(sketchName, map));
  let picked: Region[];
  if (step.regions === 'all') picked = [...map.regions];
  else {
    picked = [];
    for (const ref of step.regions) {
      const region = resolveRegion(ref, map.regions);
      if (!region)
        throw new StepFailure(
          `A region of ${sketchName} that this extrudes is no longer closed; pick its regions again.`,
        );
      if (!picked.includes(region)) picked.push(region);
    }
  }
  const areas = mergeRegions(map, picked);
  for (const area of areas) {
    const touch = touchingPoint(area, map.arrangement);
    if (touch) {
      const [x, y] = touch.map((n) => Number(n.toFixed(3)));
      throw new StepFailure(
        `A region of ${sketchName} touches itself at ${x}, ${y} mm; part its lines there or make them overlap.`,
      );
    }
  }
  return areas;
}

function openProfile(sketchName: string, map: RegionMap): string {
  const gap = [...map.gaps].sort((a, b) => a.size - b.size)[0];
  if (gap)
    return `${sketchName} has no closed region: there is a gap of ${Number(gap.size.toPrecision(3))} mm at ${place(gap.from)}; join the two ends.`;
  const end = map.openEnds[0];
  if (end) return `${sketchName} has no closed region: a line ends in the open at ${place(end)}; close the outline.`;
  return `${sketchName} has no closed region yet; draw a closed outline in it.`;
}

function place([x, y]: readonly [number, number]): string {
  return `${Number(x.toFixed(2))}, ${Number(y.toFixed(2))} mm`;
}

function push(
  context: StepContext,
  step: ExtrudeStep,
  area: Region,
  frame: Parameters<StepContext['kernel']['extrude']>[0],
  from: number,
  to: number,
  i: number,
): Body {
  const made = context.kernel.extrude(frame, area.loops, from, to);
  const region = hashText(area.outer.join()).slice(0, 8);
  const names = made.faces.map((origin) => nameOfOrigin(context.stepId, origin, region));
  const facts = new LazyFacts(context.kernel, made.solid);
  const id = i === 0 ? context.stepId : `${context.stepId}/${i + 1}`;
  return context.body(
    id,
    step.name,
    made.solid,
    numberEquals(names, (f) => facts.faces[f]!.center),
  );
}
