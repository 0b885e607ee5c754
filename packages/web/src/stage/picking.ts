/** Hover and picks on the stage while no sketch is open: faces, edges, regions, datum planes. */
import {
  changeStep,
  formatQuantity,
  refOf,
  regionAt,
  resolveRegion,
  toSpace,
  type Region,
  type Vec3,
} from '@helb/core';
import { computed, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession, type Pick } from '../design/session.ts';
import type { BodyView, PartView } from '@helb/core';
import { fillLoops, paintSketch } from '../sketch/painter.ts';
import { PlaneMap } from '../sketch/plane-map.ts';
import type { Hit, StageScene } from './scene.ts';
import { regionsFor, visibleSketches } from './visible-sketches.ts';

const REGION_FILL = { idle: 'rgba(17,75,82,0.10)', hover: 'rgba(200,64,26,0.18)', picked: 'rgba(200,64,26,0.34)' };

const keyOf = (step: string, region: Region) =>
  `${step} ${region.outer.join()} ${region.at.map((n) => n.toFixed(3)).join()}`;

export function useStagePicking(
  scene: ShallowRef<StageScene | null>,
  view: ComputedRef<PartView | undefined>,
  bodies: ComputedRef<BodyView[]>,
  frame: Ref<number>,
) {
  const design = useDesign();
  const session = useSession();
  const hoverHit = shallowRef<Hit | null>(null);
  const hoverRegion = ref<string | null>(null);

  const pickingStep = computed(() => {
    const target = session.pickingFor;
    const step =
      target && session.activePart ? design.design?.parts[session.activePart]?.steps[target.step] : undefined;
    return target?.slot === 'regions' && step?.kind === 'extrude' ? { id: target.step, step } : null;
  });
  const sketches = computed(() =>
    design.design && !session.inSketch
      ? visibleSketches(design.design, view.value, pickingStep.value?.step.sketch ?? null)
      : [],
  );
  const selectedHits = computed<Hit[]>(() =>
    session.picks.flatMap((p): Hit[] => {
      if (p.kind === 'face') return [{ body: p.body, kind: 'face', index: p.face }];
      return p.kind === 'edge' ? [{ body: p.body, kind: 'edge', index: p.edge }] : [];
    }),
  );
  const showDatums = computed(() => {
    if (session.inSketch || !session.activePart) return false;
    return (
      session.pickingFor?.slot === 'plane' || (bodies.value.length === 0 && sketches.value.length === 0 && !!view.value)
    );
  });

  function mapOf(step: string): PlaneMap | null {
    void frame.value;
    const sketch = sketches.value.find((s) => s.step === step);
    return scene.value && sketch ? new PlaneMap(scene.value.planeView(sketch.view.frame)) : null;
  }

  /** Regions of shown sketches lie over the bodies, as they are drawn. */
  function regionUnder(x: number, y: number): { step: string; region: Region } | null {
    for (const { step, view: sketch } of sketches.value) {
      if (pickingStep.value && step !== pickingStep.value.step.sketch) continue;
      const map = mapOf(step);
      if (!map || map.edgeOn) continue;
      const region = regionAt(regionsFor(sketch.geometry), map.toPlane(x, y));
      if (region) return { step, region };
    }
    return null;
  }

  function hover(x: number, y: number): void {
    const region = regionUnder(x, y);
    hoverRegion.value = region ? keyOf(region.step, region.region) : null;
    const hit = region || pickingStep.value ? null : (scene.value?.hitAt(x, y) ?? null);
    if (JSON.stringify(hit) !== JSON.stringify(hoverHit.value)) hoverHit.value = hit;
  }

  function leave(): void {
    hoverHit.value = null;
    hoverRegion.value = null;
  }

  function click(x: number, y: number, add: boolean): void {
    const region = regionUnder(x, y);
    if (pickingStep.value) {
      if (region) toggleRegion(region.region);
      return;
    }
    const hit = region ? null : scene.value?.hitAt(x, y);
    const pick: Pick | null = region
      ? { kind: 'region', step: region.step, ref: refOf(region.region), key: keyOf(region.step, region.region) }
      : hit
        ? pickOf(hit)
        : null;
    choose(pick, add || pick?.kind === 'region');
  }

  function choose(pick: Pick | null, add: boolean): void {
    session.notice = null;
    if (!pick) {
      session.picks = [];
      return;
    }
    const same = (p: Pick) => JSON.stringify(p) === JSON.stringify(pick);
    // Faces and edges go together: a distance may lie between one of each.
    const family = ({ kind }: Pick) => (kind === 'edge' ? 'face' : kind);
    const before = session.picks.filter((p) => family(p) === family(pick));
    if (before.some(same))
      session.picks = add ? session.picks.filter((p) => !same(p)) : before.length > 1 ? [pick] : [];
    else session.picks = add ? [...before, pick] : [pick];
  }

  function pickOf(hit: Hit): Pick | null {
    const body = bodies.value.find((b) => b.id === hit.body);
    if (!body || !design.design) return null;
    const { units } = design.design;
    const length = (mm: number) => formatQuantity(mm, 'length', units);
    if (hit.kind === 'edge') {
      const edge = body.edges[hit.index]!;
      const label =
        edge.radius === null
          ? `length ${length(edge.length)}`
          : `Ø${length(edge.radius * 2)}, length ${length(edge.length)}`;
      return { kind: 'edge', body: body.id, edge: hit.index, label };
    }
    const face = body.faces[hit.index]!;
    const ref = {
      name: body.faceNames[hit.index]!,
      near: [...face.center] as [number, number, number],
      ...(face.normal ? { normal: [...face.normal] as [number, number, number] } : {}),
    };
    const label =
      face.kind === 'plane' ? 'flat face' : face.radius === null ? 'face' : `round face Ø${length(face.radius * 2)}`;
    return {
      kind: 'face',
      body: body.id,
      face: hit.index,
      ref,
      flat: face.normal !== null,
      label: `${label} of ${body.name}`,
    };
  }

  /** Add a region to the step whose regions are being picked, or take it away. */
  function toggleRegion(region: Region): void {
    const { id, step } = pickingStep.value!;
    const sketch = sketches.value.find((s) => s.step === step.sketch);
    if (!sketch || !session.activePart) return;
    const all = regionsFor(sketch.view.geometry).regions;
    const chosen =
      step.regions === 'all'
        ? [...all]
        : step.regions.map((r) => resolveRegion(r, all)).filter((r): r is Region => r !== null);
    const next = chosen.includes(region) ? chosen.filter((r) => r !== region) : [...chosen, region];
    if (next.length === 0) {
      session.notice = 'An extrude needs at least one region.';
      return;
    }
    session.notice = design.edit(
      changeStep(session.activePart, id, 'Choose regions', (s) => {
        if (s.kind === 'extrude') s.regions = next.map(refOf);
      }),
    );
  }

  function isPicked(step: string, region: Region, regions: readonly Region[]): boolean {
    const target = pickingStep.value;
    if (target && step === target.step.sketch) {
      return target.step.regions === 'all' || target.step.regions.some((r) => resolveRegion(r, regions) === region);
    }
    const key = keyOf(step, region);
    return session.picks.some((p) => p.kind === 'region' && p.key === key);
  }

  function paint(ctx: CanvasRenderingContext2D): void {
    for (const { step, view: sketch } of sketches.value) {
      const map = mapOf(step);
      if (!map || map.edgeOn) continue;
      const { regions } = regionsFor(sketch.geometry);
      for (const region of regions) {
        const picked = isPicked(step, region, regions);
        const fill = picked
          ? REGION_FILL.picked
          : hoverRegion.value === keyOf(step, region)
            ? REGION_FILL.hover
            : REGION_FILL.idle;
        fillLoops(ctx, region.loops, map, fill);
      }
      paintSketch(ctx, sketch.geometry, map, {
        loose: new Set(sketch.loose),
        clashing: new Set(),
        picked: new Set(),
        hovered: null,
      });
    }
  }

  /** Points in space the shown sketches reach to, for fitting the view. */
  function sketchExtent(): Vec3[] {
    const open = view.value?.steps.find((s) => s.id === session.sketching)?.sketch;
    const shown = open ? [open] : sketches.value.map((s) => s.view);
    return shown.flatMap(({ frame: f, geometry }) => [
      ...Object.values(geometry.points).map(([u, v]) => toSpace(f, u, v)),
      // Numbers standing outside belong to the picture while the sketch is open.
      ...Object.values(open ? geometry.constraints : {}).flatMap((c) =>
        'label' in c && c.label ? [toSpace(f, ...c.label)] : [],
      ),
      ...Object.values(geometry.curves).flatMap((c) => {
        if (c.kind !== 'circle') return [];
        const [u, v] = geometry.points[c.center] ?? [0, 0];
        return [toSpace(f, u - c.radius, v - c.radius), toSpace(f, u + c.radius, v + c.radius)];
      }),
    ]);
  }

  return { hoverHit, hoverRegion, selectedHits, showDatums, sketches, hover, leave, click, paint, sketchExtent };
}
