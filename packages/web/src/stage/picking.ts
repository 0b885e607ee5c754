/** Hover and picks on the stage while no sketch is open: faces, edges, regions, datum planes. */
import {
  findRegion,
  formatQuantity,
  namedBody,
  refOfEdge,
  refOfBody,
  refOfFace,
  refOf,
  regionAt,
  toSpace,
  type Region,
  type ProfileRef,
  type SketchGeometry,
  type Vec3,
} from '@helb/core';
import { computed, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { inks } from '../theme/theme.ts';
import { useSession, type Pick } from '../design/session.ts';
import type { BodyView, PartView } from '@helb/core';
import { fillLoops, paintSketch } from '../sketch/painter.ts';
import { PlaneMap } from '../sketch/plane-map.ts';
import { useVerbs } from '../verbs/verbs.ts';
import { useFilling } from '../slots/filling.ts';
import type { StackRow } from './pointing.ts';
import type { Hit, StageScene } from './scene.ts';
import { cornerUnder, lineUnder, sketchPointUnder } from './small-things.ts';
import { filledOf, regionsFor } from './sketch-regions.ts';
import { visibleSketches } from './visible-sketches.ts';

const REGION_FILL = inks({ idle: 'region-idle', hover: 'region-hover', picked: 'region-picked', ring: 'signal' });

const keyOf = (step: string, region: Region) =>
  `${step} ${region.outer.join()} ${region.at.map((n) => n.toFixed(3)).join()}`;

/** Which small things each kind of slot takes; `free` when none waits. */
const SMALL_THINGS: Readonly<
  Record<
    string,
    {
      readonly lines?: true;
      readonly openLines?: true;
      readonly bent?: true;
      readonly points?: true;
      readonly corners?: true;
    }
  >
> = {
  free: { points: true, corners: true, openLines: true, bent: true },
  path: { lines: true, bent: true },
  sections: { points: true, corners: true },
  axis: { lines: true },
  direction: { lines: true },
  point: { points: true, corners: true },
  points: { points: true },
};

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
  const hoverSmall = shallowRef<Vec3 | null>(null);

  const { waiting, give } = useFilling();
  const { said, beginning, beginSaid, unfitForSaid } = useVerbs();
  /** What the slot that waits for regions holds now. */
  const pickingRegions = computed(() =>
    waiting.value?.kind.kind === 'regions'
      ? (waiting.value.kind.read(waiting.value.of, waiting.value.slot) as ProfileRef)
      : null,
  );
  const sketches = computed(() =>
    design.design && !session.inSketch
      ? visibleSketches(
          design.design,
          view.value,
          session.pickingFor?.step ?? null,
          session.standing,
          session.shownSketches,
        )
      : [],
  );
  /** Pointed at in the list of what lies under the pointer: lit as what is picked, which is seen through all. */
  const pointed = shallowRef<Hit | null>(null);
  const selectedHits = computed<Hit[]>(() => [
    ...(pointed.value ? [pointed.value] : []),
    ...session.picks.flatMap((p): Hit[] => {
      if (p.kind === 'face') return [{ body: p.body, kind: 'face', index: p.face }];
      return p.kind === 'edge' ? [{ body: p.body, kind: 'edge', index: p.edge }] : [];
    }),
  ]);
  const showDatums = computed(() => {
    if (session.inSketch || !session.activePart) return false;
    if (said.value && beginning(said.value, [{ kind: 'datum', datum: 'floor' }])) return true;
    return (
      waiting.value?.kind.kind === 'plane' || (bodies.value.length === 0 && sketches.value.length === 0 && !!view.value)
    );
  });

  function mapOf(step: string): PlaneMap | null {
    void frame.value;
    const sketch = sketches.value.find((s) => s.step === step);
    return scene.value && sketch ? new PlaneMap(scene.value.planeView(sketch.view.frame)) : null;
  }

  /** Regions of shown sketches lie over the bodies, as they are drawn. */
  function regionUnder(x: number, y: number): { step: string; region: Region; all: readonly Region[] } | null {
    for (const { step, view: sketch } of sketches.value) {
      const map = mapOf(step);
      if (!map || map.edgeOn) continue;
      const found = regionsFor(sketch.geometry);
      const region = regionAt(found, map.toPlane(x, y));
      if (region) return { step, region, all: found.regions };
    }
    return null;
  }

  function hover(x: number, y: number): void {
    const small = smallThingUnder(x, y);
    hoverSmall.value = small && placeOf(small);
    const region = small ? null : regionUnder(x, y);
    hoverRegion.value = region ? keyOf(region.step, region.region) : null;
    const hit = small || region ? null : (scene.value?.hitAt(x, y) ?? null);
    if (JSON.stringify(hit) !== JSON.stringify(hoverHit.value)) hoverHit.value = hit;
  }

  function leave(): void {
    hoverHit.value = null;
    hoverRegion.value = null;
    hoverSmall.value = null;
  }

  /** Where a corner or point that could be, or is, picked lies in space; null of other things. */
  function placeOf(pick: Pick): Vec3 | null {
    if (pick.kind === 'vertex') return pick.at;
    if (pick.kind !== 'sketch_point') return null;
    const shown = sketches.value.find((s) => s.step === pick.sketch)?.view;
    const place = shown?.geometry.points[pick.point];
    return shown && place ? toSpace(shown.frame, ...place) : null;
  }

  /** Corners, points and lines: nearest to the pointer they are meant before what they lie on. */
  function smallThingUnder(x: number, y: number): Pick | null {
    const wanted = waiting.value?.kind.kind;
    if (wanted && !SMALL_THINGS[wanted]) return null;
    const takes = wanted ? SMALL_THINGS[wanted]! : SMALL_THINGS.free!;
    // With nothing in hand only lines that close no region are meant, not the region beside them.
    const shown = takes.openLines
      ? sketches.value.filter((s) => regionsFor(s.view.geometry).regions.length === 0)
      : sketches.value;
    const line = takes.lines || takes.openLines ? lineUnder(shown, mapOf, x, y, takes.bent ?? false) : null;
    const point = takes.points ? sketchPointUnder(sketches.value, mapOf, x, y, !wanted) : null;
    if (line ?? point) return point ?? line;
    return takes.corners && scene.value ? cornerUnder(scene.value, bodies.value, scene.value.hitAt(x, y), x, y) : null;
  }

  function pickAt(x: number, y: number): Pick | null {
    const small = smallThingUnder(x, y);
    if (small) return small;
    const region = regionUnder(x, y);
    // What waits for regions of a sketch takes them through the bodies; what waits for other things looks past regions.
    if (region && (!waiting.value || pickingRegions.value || waiting.value.kind.kind === 'sketch'))
      return { kind: 'region', sketch: region.step, ref: refOf(region.region, region.all), key: keyOf(region.step, region.region) }; // prettier-ignore
    const hit = scene.value?.hitAt(x, y);
    return hit ? pickOf(hit) : null;
  }

  /** What could be picked under a pixel, one behind the other. */
  function stackUnder(x: number, y: number): StackRow[] {
    return (scene.value?.stackAt(x, y) ?? []).flatMap((hit, i) => {
      const pick = pickOf(hit);
      if (pick?.kind !== 'face' && pick?.kind !== 'edge') return [];
      const label = pick.kind === 'edge' ? `edge, ${pick.label}` : pick.label;
      return [
        {
          label: `${i + 1}  ${label}`,
          point(lit) {
            pointed.value = lit ? hit : null;
            if (!lit) leave();
          },
          take: (add) => take(pick, add),
        },
      ];
    });
  }

  function click(x: number, y: number, add: boolean): void {
    take(pickAt(x, y), add);
  }

  function take(pick: Pick | null, add: boolean): void {
    const more = add || session.said !== null;
    const unfit = pick && !waiting.value ? unfitForSaid(pick) : null;
    if (unfit) {
      session.notice = unfit;
      return;
    }
    if (!waiting.value) choose(pick, more || pick?.kind === 'region', more);
    else if (pick) give(pick);
    // With Shift more is picked before what was said begins.
    if (!add) beginSaid();
  }

  /** @param mixed things of all kinds stay picked together */
  function choose(pick: Pick | null, add: boolean, mixed: boolean): void {
    session.notice = null;
    if (!pick) {
      session.picks = [];
      return;
    }
    const same = (p: Pick) => JSON.stringify(p) === JSON.stringify(pick);
    // Faces, edges and points go together: a distance may lie, or a plane be set up, between them.
    const family = ({ kind }: Pick) => (kind === 'region' ? 'region' : 'thing');
    const before = mixed ? session.picks : session.picks.filter((p) => family(p) === family(pick));
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
      const ref = refOfEdge(namedBody(body), hit.index, bodies.value.map(namedBody));
      const order = design.design.parts[session.activePart ?? '']?.stepOrder ?? [];
      const by = order.findLast((step) => ref.faces.some((name) => name.split(':')[0] === step));
      const label =
        edge.radius === null
          ? `length ${length(edge.length)}`
          : `Ø${length(edge.radius * 2)}, length ${length(edge.length)}`;
      return {
        kind: 'edge',
        body: body.id,
        edge: hit.index,
        of: refOfBody(namedBody(body), bodies.value.map(namedBody)),
        ref,
        ...(by === undefined ? {} : { by }),
        curve: edge.kind,
        label,
      };
    }
    const face = body.faces[hit.index]!;
    const ref = refOfFace(namedBody(body), hit.index, bodies.value.map(namedBody));
    const label =
      face.kind === 'plane' ? 'flat face' : face.radius === null ? 'face' : `round face Ø${length(face.radius * 2)}`;
    return {
      kind: 'face',
      body: body.id,
      face: hit.index,
      of: refOfBody(namedBody(body), bodies.value.map(namedBody)),
      ref,
      flat: face.normal !== null,
      round: face.axis !== null,
      cone: face.cone !== undefined,
      label: `${label} of ${stepName(body.step)}`,
    };
  }

  const stepName = (id: string) => design.design?.parts[session.activePart ?? '']?.steps[id]?.name ?? 'a deleted step';

  function isPicked(step: string, region: Region, geometry: SketchGeometry): boolean {
    const held = pickingRegions.value;
    if (held && 'sketch' in held && step === held.sketch) {
      if (held.regions === 'holed') return filledOf(geometry).has(region);
      if (typeof held.regions === 'string') return held.regions === 'all';
      return held.regions.some((ref) => {
        const finding = findRegion(ref, regionsFor(geometry));
        return finding.how !== 'lost' && finding.found.includes(region);
      });
    }
    const key = keyOf(step, region);
    return session.picks.some((p) => p.kind === 'region' && p.key === key);
  }

  /** Rings round the picked corners and points, and the one under the pointer. */
  function paintSmallThings(ctx: CanvasRenderingContext2D): void {
    const picked = session.picks.map(placeOf).filter((p): p is Vec3 => p !== null);
    ctx.lineWidth = 2;
    ctx.setLineDash([]);
    for (const place of hoverSmall.value ? [...picked, hoverSmall.value] : picked) {
      const [x, y] = scene.value!.pixelOf(place);
      ctx.strokeStyle = REGION_FILL.ring;
      ctx.beginPath();
      ctx.arc(x, y, 5, 0, 2 * Math.PI);
      ctx.stroke();
    }
  }

  function paint(ctx: CanvasRenderingContext2D): void {
    for (const { step, view: sketch } of sketches.value) {
      const map = mapOf(step);
      if (!map || map.edgeOn) continue;
      const { regions } = regionsFor(sketch.geometry);
      for (const region of regions) {
        const picked = isPicked(step, region, sketch.geometry);
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
    paintSmallThings(ctx);
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

  return {
    hoverHit,
    hoverRegion,
    hoverSmall,
    selectedHits,
    showDatums,
    sketches,
    hover,
    leave,
    click,
    take,
    stackUnder,
    paint,
    sketchExtent,
  };
}
