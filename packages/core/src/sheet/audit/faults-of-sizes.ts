/** What is wrong with sizes on a sheet by themselves: lost, not sure, not seen true, written by hand. */
import type { Sheet, SheetSize } from '../../document/sheet.ts';
import type { SizeState } from '../measured.ts';
import { wordOfView } from '../view-kinds.ts';

export interface AuditFinding {
  readonly kind: 'missing' | 'twice' | 'wrong' | 'lost';
  readonly says: string;
  /** Sizes on the sheet that it is about. */
  readonly sizes: readonly string[];
  /** What would settle it: a size to be added, or to stand in place of the one it is about. */
  readonly cure: SheetSize | null;
}

export const COUNT = /^\s*(\d+)\s*[×x]/;

export function faultsOfSizes(sheet: Sheet, sizes: ReadonlyMap<string, SizeState>): AuditFinding[] {
  return Object.entries(sheet.sizes).flatMap(([id, size]): AuditFinding[] => {
    const state = sizes.get(id);
    const view = sheet.views[size.view];
    if (!state) return [];
    if (state.lost === null && state.measured && view) return faultsOf(id, size, state, wordOfView(view));
    const name = view ? namedSize(size, wordOfView(view)).replace('the', 'The') : 'A size';
    return [{ kind: 'lost', says: `${name}: ${state.lost ?? 'its view no longer stands on the sheet.'}`, sizes: [id], cure: null }]; // prettier-ignore
  });
}

/** What a size is called in a sentence. */
export const namedSize = ({ kind }: SheetSize, look: string): string =>
  `the ${kind === 'across' || kind === 'up' || kind === 'straight' ? 'length' : kind} in the ${look} view`;

/** What is wrong with a size by itself. */
function faultsOf(id: string, size: SheetSize, { measured, doubt }: SizeState, look: string): AuditFinding[] {
  const found: AuditFinding[] = [];
  if (doubt) found.push({ kind: 'lost', says: doubt.says, sizes: [id], cure: { ...size, of: [...doubt.of] } });
  if (measured && 'true' in measured && !measured.true) found.push({ kind: 'wrong', says: `In the ${look} view this size is not seen true; take it in a view straight onto it.`, sizes: [id], cure: null }); // prettier-ignore
  if (measured?.is === 'radius' && measured.whole) found.push({ kind: 'wrong', says: 'A radius is given of a full circle; its diameter is what is made and measured.', sizes: [id], cure: { ...size, kind: 'diameter' } }); // prettier-ignore
  if (size.kind !== 'note' && size.kind !== 'surface' && size.text && !size.text.includes('<>') && /\d/.test(size.text.replace(COUNT, ''))) found.push({ kind: 'wrong', says: `A number is written by hand in “${size.text}”, which does not follow the model; let <> stand for the size.`, sizes: [id], cure: null }); // prettier-ignore
  return found;
}
