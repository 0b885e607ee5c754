/** Looking at something flat on the stage: it fits until one zooms at the pointer or drags it along. */
import { useElementSize } from '@vueuse/core';
import { computed, reactive, type Ref } from 'vue';

interface Place {
  readonly x: number;
  readonly y: number;
}

const ZOOM_A_STEP = 0.0015;
/** A press becomes a drag beyond so many pixels. */
const BEGINS_PX = 4;

/**
 * @param size of what is looked at, in its own units, y running down
 * @param round pixels left free round it when it fits
 * @param most pixels a unit at the largest
 */
export function useFlatView(
  frame: Readonly<Ref<HTMLElement | null>>,
  size: () => readonly [width: number, height: number],
  round: number,
  most: number,
) {
  const { width, height } = useElementSize(frame);
  const look = reactive<{ zoom: number | null; x: number; y: number }>({ zoom: null, x: 0, y: 0 });
  const fitting = computed(() => Math.max(1e-3, Math.min((width.value - 2 * round) / size()[0], (height.value - 2 * round) / size()[1]))); // prettier-ignore
  /** Pixels a unit. */
  const zoom = computed(() => look.zoom ?? fitting.value);
  /** Where its upper left corner lies in the frame, pixels. */
  const corner = computed<Place>(() =>
    look.zoom === null
      ? { x: (width.value - size()[0] * zoom.value) / 2, y: (height.value - size()[1] * zoom.value) / 2 }
      : { x: look.x, y: look.y },
  );
  const fit = (): void => void (look.zoom = null);

  function inFrame({ clientX, clientY }: MouseEvent): readonly [number, number] {
    const box = frame.value!.getBoundingClientRect();
    return [clientX - box.left, clientY - box.top];
  }
  /** Where the pointer is, in its own units. */
  function placeOf(event: MouseEvent): [number, number] {
    const [px, py] = inFrame(event);
    return [(px - corner.value.x) / zoom.value, (py - corner.value.y) / zoom.value];
  }
  function wheel(event: WheelEvent): void {
    const [px, py] = inFrame(event);
    const next = Math.min(most, Math.max(fitting.value / 2, zoom.value * Math.exp(-event.deltaY * ZOOM_A_STEP)));
    const by = next / zoom.value;
    const { x, y } = corner.value;
    Object.assign(look, { zoom: next, x: px - (px - x) * by, y: py - (py - y) * by });
  }
  /** So that its corner lies so many pixels from where it lay. */
  const moveFrom = ({ x, y }: Place, dx: number, dy: number): void => void Object.assign(look, { zoom: zoom.value, x: x + dx, y: y + dy }); // prettier-ignore
  const isDrag = (dx: number, dy: number): boolean => Math.hypot(dx, dy) > BEGINS_PX;

  return { width, height, zoom, corner, fit, placeOf, wheel, moveFrom, isDrag };
}
