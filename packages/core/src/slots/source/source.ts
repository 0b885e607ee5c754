/** What a part takes from another part: its bodies, or one of its sketches, where that part stands to this one. */
import { Source } from '../../references/source.ts';
import { slotKind, type SlotKind } from '../slot.ts';
import type { BorrowedPart } from '../resolving.ts';

export function source(): SlotKind<Source, BorrowedPart> {
  return slotKind<Source, BorrowedPart>({
    kind: 'source',
    schema: Source,
    outside: ({ part, sketch, at }) => [{ part, assembly: at && 'assembly' in at ? at.assembly : null, sketch: sketch ?? null }], // prettier-ignore
    ways: ({ at }) => (at && 'assembly' in at ? [at.own, at.other].map((way) => ({ assembly: at.assembly, way })) : []),
    resolve(stored, _, context) {
      const value = context.borrowed(stored);
      return { value, digest: value.digest };
    },
    label({ part, sketch, at }, _, { outside }) {
      const name = outside.partName(part) ?? 'a deleted part';
      const what = sketch ? `${outside.stepName(part, sketch) ?? 'a deleted sketch'} of ${name}` : name;
      if (!at) return { label: `${what}, drawn in the same space` };
      if ('stands' in at) return { label: `${what}, held at a fixed place` };
      return { label: `${what}, as it stands in ${outside.assemblyName(at.assembly) ?? 'a deleted assembly'}` };
    },
  });
}
