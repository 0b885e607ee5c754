/** The stroke being drawn: its clicks so far, what is typed, and what a click now would make. */
import {
  SketchPen, toolNamed, type Anchor, type Chain, type DrawField, type DrawTool, type SketchGeometry, type Typed, type TypedNumber,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useSession } from '../design/session.ts';
import { snapAt } from './snap.ts';
import type { PlaneMap } from './plane-map.ts';

/** Two clicks this near in place are one. */
const SAME_PLACE_MM = 1e-6;

/** How a chain of lines goes on: straight, or with an arc. */
export type ChainMode = 'line' | 'tangent arc' | 'square arc';

export function useDrawing(
  geometry: Ref<SketchGeometry | null>,
  hovered: Ref<string | null>,
  change: (label: string, run: (sketch: SketchGeometry) => void) => boolean,
) {
  const session = useSession();
  const clicks = shallowRef<readonly Anchor[]>([]);
  const end = shallowRef<Anchor | null>(null);
  const typed = shallowRef<Typed>({});
  const chain = shallowRef<Chain | null>(null);
  const chainMode = ref<ChainMode>('line');
  let awake: string | null = null;

  /** The tool in hand; a chain of lines may go on with an arc. */
  const tool = computed<DrawTool | null>(() => {
    const picked = session.tool ? toolNamed(session.tool) : undefined;
    if (picked?.name === 'line' && chain.value && chainMode.value !== 'line') return toolNamed(chainMode.value)!;
    return picked ?? null;
  });
  const fields = computed<readonly DrawField[]>(() => tool.value?.fields(clicks.value.length) ?? []);
  const hint = computed(() => tool.value?.hints[Math.min(clicks.value.length, tool.value.hints.length - 1)] ?? '');

  function drop(): void {
    clicks.value = [];
    end.value = null;
    typed.value = {};
    chain.value = null;
    chainMode.value = 'line';
  }
  watch(() => session.tool, drop);

  /** Straight, tangent arc, square arc, and round again. Only a chain can bend. */
  function bendChain(): boolean {
    if (session.tool !== 'line' || !chain.value) return false;
    const modes: ChainMode[] = ['line', 'tangent arc', 'square arc'];
    chainMode.value = modes[(modes.indexOf(chainMode.value) + 1) % modes.length]!;
    return true;
  }

  function setTyped(field: string, value: TypedNumber | undefined): void {
    typed.value = { ...typed.value, [field]: value };
  }

  function follow(map: PlaneMap, x: number, y: number, free: boolean): void {
    const sketch = geometry.value;
    if (!sketch || !tool.value) return;
    const snap = snapAt(sketch, map, x, y, {
      start: clicks.value.at(-1)?.at ?? null,
      from: clicks.value.at(-1)?.point,
      chain: chain.value,
      awake,
      free,
      curvesOnly: tool.value.picksCurves === true,
    });
    end.value = snap;
    hovered.value = snap.point ?? snap.on ?? null;
    if (snap.on && sketch.curves[snap.on]?.kind === 'line') awake = snap.on;
  }

  /** Where the click would land, typed numbers taken into account. */
  const target = computed<Anchor | null>(() => {
    if (!end.value || !tool.value) return null;
    return tool.value.place && clicks.value.length > 0
      ? tool.value.place(clicks.value, end.value, typed.value)
      : end.value;
  });

  /** The curves a click now would leave, drawn into a copy; null while the stroke needs more clicks. */
  const preview = computed<{ sketch: SketchGeometry; curves: string[] } | null>(() => {
    const sketch = geometry.value;
    if (!sketch || !tool.value || !target.value) return null;
    const all = [...clicks.value, target.value];
    if (tool.value.picksCurves) return null;
    if (tool.value.clicks === 'open' ? all.length < (tool.value.least ?? 1) : all.length < tool.value.clicks)
      return null;
    const copy = { points: { ...sketch.points }, curves: { ...sketch.curves }, constraints: { ...sketch.constraints } };
    run(copy, all);
    return { sketch: copy, curves: Object.keys(copy.curves).filter((id) => !(id in sketch.curves)) };
  });

  function run(sketch: SketchGeometry, all: readonly Anchor[]): Chain | undefined {
    const went = chain.value ? { chain: chain.value } : {};
    return tool.value!.draw({ pen: new SketchPen(sketch), clicks: all, typed: typed.value, ...went });
  }

  /** Take the pointer's place as the next click of the stroke. */
  function click(): void {
    const at = target.value;
    const now = tool.value;
    if (!at || !now || (now.picksCurves && !at.on)) return;
    const last = clicks.value.at(-1);
    const again = last && Math.hypot(at.at[0] - last.at[0], at.at[1] - last.at[1]) < SAME_PLACE_MM;
    if (now.clicks === 'open') {
      // The same place twice ends the stroke.
      if (again) finish();
      else clicks.value = [...clicks.value, at];
      return;
    }
    if (again && !now.picksCurves) return;
    clicks.value = [...clicks.value, at];
    if (clicks.value.length < now.clicks) return;
    commit();
  }

  /** End a stroke of any number of clicks. */
  function finish(): void {
    if (tool.value?.clicks === 'open' && clicks.value.length >= (tool.value.least ?? 1)) commit();
    else drop();
  }

  function commit(): void {
    const all = clicks.value;
    const name = session.tool!;
    let next: Chain | undefined;
    const made = change(`Draw a ${name}`, (sketch) => (next = run(sketch, all)));
    drop();
    const at = made && next ? geometry.value?.points[next.point] : undefined;
    if (!next || !at || session.tool !== 'line') return;
    // After an arc, too, the chain goes on straight.
    chain.value = next;
    clicks.value = [{ at, point: next.point }];
  }

  return { tool, fields, hint, clicks, end, target, typed, chain, chainMode, preview, follow, click, finish, drop, setTyped, bendChain }; // prettier-ignore
}

export type Drawing = ReturnType<typeof useDrawing>;
