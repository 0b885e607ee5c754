/** What can be done with places that are picked in a view: sizes of them, sections through them, views taken from them. */
import { addSheetView, changeSheetView, isMain, isOfModel, kindOfRound, MAX_CUT_STEPS, newId, putSize, ROWS, sizesInRow, type Look, type RowOfSizes, type SheetView, type SizeKind, type OfferedSpot } from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import type { Verb } from '../verbs/verbs.ts';
import { useSheets } from './sheet-store.ts';

const SIZE_NAMES: Readonly<Record<SizeKind, string>> = {
  across: 'Length across', up: 'Length up', straight: 'Length', diameter: 'Diameter', hole: 'Hole', radius: 'Radius', angle: 'Angle', pitch: 'Pitch circle', chamfer: 'Chamfer', surface: 'Surface mark', note: 'Note',
}; // prettier-ignore
const ROW_NAMES: Readonly<Record<RowOfSizes, string>> = { chain: 'Chain', from_first: 'All from the first', ordinates: 'Ordinates' }; // prettier-ignore

/** From where one may look at a plane through what is picked, square to the view it is picked in. */
const ACROSS: Readonly<Partial<Record<Look, readonly Look[]>>> = {
  front: ['right', 'top'], rear: ['right', 'top'], left: ['front', 'top'], right: ['front', 'top'], top: ['front', 'right'], bottom: ['front', 'right'],
}; // prettier-ignore

/** So much of the view, round what is picked, a detail shows at first. */
const SHARE = 0.12;

export function useSpotVerbs() {
  const session = useSession();
  const sheets = useSheets();
  const picks = computed<readonly OfferedSpot[]>(() => sheets.picked.map((p) => p.spot));
  /** The same where all are of the model: none else tells how other views are drawn. */
  const places = computed(() => (picks.value.every(isOfModel) ? picks.value : []));

  const kinds = computed<readonly SizeKind[]>(() => (places.value.length > 0 ? all.value : all.value.filter((kind) => kind !== 'hole' && kind !== 'chamfer'))); // prettier-ignore
  const all = computed<readonly SizeKind[]>(() => {
    const [one, other, more] = picks.value;
    if (!one || more) return [];
    const isLine = (what: string) => what === 'line' || what === 'side';
    if (other) return isLine(one.what) && isLine(other.what) ? ['straight', 'across', 'up', 'angle'] : ['across', 'up', 'straight', ...(one.what === 'round' && other.what === 'round' ? ['pitch' as const] : [])]; // prettier-ignore
    if (one.what === 'round') return kindOfRound(one.piece) === 'diameter' ? ['diameter', 'hole', 'radius', 'surface', 'note'] : ['radius', 'diameter', 'surface', 'note']; // prettier-ignore
    if (one.what === 'side') return ['diameter', 'chamfer', 'surface', 'note'];
    if (one.what === 'rounding') return ['radius', 'surface', 'note'];
    if (one.what !== 'line') return ['note'];
    if (one.across) return ['diameter', 'straight', 'surface', 'note'];
    return one.slanted ? ['straight', 'chamfer', 'surface', 'note'] : ['straight', 'surface', 'note'];
  });
  const kindVerbs = (): Verb[] => kinds.value.map((kind): Verb => ({ id: kind, label: SIZE_NAMES[kind], ...(kind === kinds.value[0] ? { key: 'd' } : {}), run: () => sheets.take(kind) })); // prettier-ignore

  /** Of three and more: rows along the ways in which they lie apart. */
  const rowVerbs = (): Verb[] => {
    const view = sheets.picked[0]?.view;
    if (picks.value.length < 3 || view === undefined) return [];
    return ROWS.flatMap((row) =>
      (['across', 'up'] as const).flatMap((kind): Verb[] => {
        const sizes = sizesInRow(row, kind, view, picks.value);
        if (sizes.length < 2) return [];
        return [{ id: `${row}-${kind}`, label: `${ROW_NAMES[row]} ${kind}`, run: () => void (sheets.edit(putSize(session.activeSheet!, sizes.map((s) => [newId('z'), s]))) && sheets.letGo()) }]; // prettier-ignore
      }),
    );
  };

  const sectionVerbs = (): Verb[] => {
    const [one, ...others] = places.value;
    const view = sheets.picked[0]?.view;
    const own = sheets.sheet;
    if (!one || !own || view === undefined || others.length > MAX_CUT_STEPS) return [];
    if (others.length > 0 && places.value.some((p) => p.what !== 'round')) return [];
    return (ACROSS[own.views[view]!.look] ?? []).map((look): Verb => ({
      id: `section-${look}`,
      label: others.length > 0 ? `Stepped section from the ${look}` : `Section from the ${look}`,
      run() {
        const more = others.map((o) => o.spot);
        const cut = { at: one.spot, ...(more.length > 0 ? { more } : {}) };
        const known = own.viewOrder.find((id) => own.views[id]!.look === look && isMain(own.views[id]!));
        const edit = known ? changeSheetView(session.activeSheet!, known, { cut }) : addSheetView(session.activeSheet!, newId('v'), { look, cut }); // prettier-ignore
        if (sheets.edit(edit)) sheets.letGo();
      },
    }));
  };

  /** Views that are taken from what is picked: enlarged round it, or straight onto the slanted face at it. */
  const viewVerbs = (): Verb[] => {
    const [one, other] = places.value;
    const view = sheets.picked[0]?.view;
    const own = sheets.sheet;
    const from = own && view !== undefined ? own.views[view] : undefined;
    const box = view !== undefined ? sheets.geometry?.views.get(view)?.box : undefined;
    if (!one || other || !from || from.detail || !box || view === undefined) return [];
    const add = (more: Pick<SheetView, 'detail' | 'onto'>) => {
      const id = newId('v');
      if (!sheets.edit(addSheetView(session.activeSheet!, id, { look: from.look, ...more }))) return;
      sheets.letGo();
      sheets.pickedView = id;
    };
    const radius = Math.max(0.01, Number((SHARE * Math.hypot(box[2] - box[0], box[3] - box[1])).toPrecision(2)));
    const { slanted } = one;
    return [
      { id: 'detail', label: 'Enlarge here', run: () => add({ detail: { of: view, at: one.spot, radius } }) },
      ...(slanted && isMain(from) ? [{ id: 'onto', label: 'Look straight onto it', run: () => add({ onto: { of: view, face: slanted } }) }] : []), // prettier-ignore
    ];
  };

  /** Between two places that lie apart. */
  const breakVerbs = (): Verb[] => {
    const [one, other, more] = places.value;
    const id = sheets.picked[0]?.view;
    const view = id !== undefined ? sheets.sheet?.views[id] : undefined;
    if (!one || !other || more || id === undefined || !view || view.look === 'oblique' || view.detail) return [];
    return [{ id: 'break', label: 'Break it off between', run: () => void (sheets.breakOff(id, [one, other]) && sheets.letGo()) }]; // prettier-ignore
  };

  const verbs = computed<Verb[]>(() => (picks.value.length === 0 ? [] : [...kindVerbs(), ...rowVerbs().slice(0, 2), ...sectionVerbs(), ...rowVerbs().slice(2), ...viewVerbs(), ...breakVerbs()])); // prettier-ignore
  const subject = computed(() => {
    const words = picks.value.map(({ what }) => (what === 'line' ? 'edge' : what === 'side' ? 'round' : what));
    return words.length > 2 ? `${words.length} places` : words.join(' and ');
  });
  return { verbs, subject };
}
