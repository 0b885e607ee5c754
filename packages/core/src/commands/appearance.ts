/** Edits of how parts look. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { distinctColors } from '../document/part-colors.ts';
import { Color, Opacity } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';

const setAppearanceCommand = declareCommand({
  name: 'set-appearance',
  args: z.strictObject({ part: Id, color: Color.nullable().optional(), opacity: Opacity.nullable().optional() }),
  label: () => 'Change how a part looks',
  run(draft, { part: id, color, opacity }) {
    const part = draft.parts[id];
    if (!part) throw new EditRefused('This part no longer exists.');
    if (color === null) delete part.color;
    else if (color !== undefined) part.color = color.toUpperCase();
    if (opacity === null || opacity === 1) delete part.opacity;
    else if (opacity !== undefined) part.opacity = opacity;
  },
});

/** A colour, #rrggbb, and how much of it is seen, 0.1 to 1; null gives back what it would have by itself. */
export const setAppearance = (
  part: string,
  look: { readonly color?: string | null; readonly opacity?: number | null },
): Edit => setAppearanceCommand({ part, ...look });

const tellPartsApartCommand = declareCommand({
  name: 'tell-parts-apart',
  args: z.strictObject({}),
  label: () => 'Tell the parts apart by colour',
  run(draft) {
    const colors = distinctColors(draft.partOrder.length);
    draft.partOrder.forEach((id, i) => (draft.parts[id]!.color = colors[i]!));
  },
});

/** Every part of the design in a colour of its own. */
export const tellPartsApart = (): Edit => tellPartsApartCommand({});
