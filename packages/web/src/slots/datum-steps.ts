/** Datums that the recipe sets up before a step, for its slots to choose from. */
import { useDesign } from '../design/design-store.ts';
import type { SlotProps } from './slot-props.ts';

const KINDS = {
  plane: ['datum_plane', 'datum_frame'],
  axis: ['datum_axis'],
  point: ['datum_point'],
  curve: ['helix'],
  sketch: ['sketch'],
} as const satisfies Record<string, readonly string[]>;

export function useDatumSteps(props: SlotProps) {
  const design = useDesign();
  return (of: keyof typeof KINDS): { id: string; name: string }[] => {
    const { stepOrder, steps } = design.design!.parts[props.part]!;
    return stepOrder
      .slice(0, stepOrder.indexOf(props.stepId))
      .filter((id) => (KINDS[of] as readonly string[]).includes(steps[id]?.kind ?? ''))
      .map((id) => ({ id, name: steps[id]!.name }));
  };
}
