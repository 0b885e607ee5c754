/** What can be done on a sheet with what is picked. */
import {
  addSheetView,
  changeSheetView,
  listPartsOnSheet,
  LOOKS,
  newId,
  partOfBalloon,
  showsHidden,
  type Look,
  type SheetView,
  type SizeKind,
} from '@helb/core';
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import type { Verb } from '../verbs/verbs.ts';
import { useSheets, type SheetFormat } from './sheet-store.ts';

const SIZE_NAMES: Readonly<Record<SizeKind, string>> = {
  across: 'Length across', up: 'Length up', straight: 'Length', diameter: 'Diameter', hole: 'Hole', radius: 'Radius', angle: 'Angle', note: 'Note',
}; // prettier-ignore
const FORMATS: readonly SheetFormat[] = ['pdf', 'svg', 'dxf'];

export function useSheetVerbs() {
  const session = useSession();
  const sheets = useSheets();

  const kinds = computed<readonly SizeKind[]>(() => {
    const [one, other] = sheets.picked.map((p) => p.spot);
    if (!one) return [];
    const isLine = (what: string) => what === 'line' || what === 'side';
    if (other) return isLine(one.what) && isLine(other.what) ? ['straight', 'across', 'up', 'angle'] : ['across', 'up', 'straight']; // prettier-ignore
    if (one.what === 'round') return one.piece.kind === 'circle' || one.piece.kind === 'ellipse' ? ['diameter', 'hole', 'radius', 'note'] : ['radius', 'diameter', 'note']; // prettier-ignore
    if (one.what === 'side') return ['diameter', 'note'];
    return one.what === 'line' ? ['straight', 'note'] : ['note'];
  });

  const viewVerbs = (id: string, view: SheetView): Verb[] => {
    const to = (change: Parameters<typeof changeSheetView>[2]) => () => void sheets.edit(changeSheetView(session.activeSheet!, id, change)); // prettier-ignore
    const hidden = showsHidden(view);
    if (view.detail) return [{ id: 'back', label: 'Back in its place', run: to({ shift: [0, 0] }) }, { id: 'remove-view', label: 'Take it off', key: 'Del', run: () => sheets.remove() }]; // prettier-ignore
    return [
      { id: 'hidden', label: hidden ? 'Without hidden lines' : 'With hidden lines', run: to({ hidden: !hidden }) },
      { id: 'tangent', label: view.tangent ? 'Without smooth edges' : 'With smooth edges', run: to({ tangent: !view.tangent }) }, // prettier-ignore
      ...(view.look === 'oblique'
        ? []
        : [
            { id: 'cut', label: view.cut ? 'Whole again' : 'Cut it open', run: to({ cut: view.cut ? null : {} }) },
            ...(view.cut
              ? [
                  {
                    id: 'half',
                    label: view.cut.half ? 'Cut all of it' : 'Cut half of it',
                    run: to({
                      cut: view.cut.half
                        ? { ...(view.cut.at ? { at: view.cut.at } : {}) }
                        : { ...view.cut, half: true },
                    }),
                  },
                ]
              : []),
          ]),
      ...(sheets.sheet?.parts
        ? [
            {
              id: 'balloons',
              label: 'Balloons round it',
              run: () => void sheets.edit(listPartsOnSheet(session.activeSheet!, true, id)),
            },
          ]
        : []),
      { id: 'back', label: 'Back in its place', run: to({ shift: [0, 0] }) },
      { id: 'remove-view', label: 'Take it off', key: 'Del', run: () => sheets.remove() },
    ];
  };

  /** From where one may look at a plane through what is picked, square to the view it is picked in. */
  const ACROSS: Readonly<Partial<Record<Look, readonly Look[]>>> = {
    front: ['right', 'top'], rear: ['right', 'top'], left: ['front', 'top'], right: ['front', 'top'], top: ['front', 'right'], bottom: ['front', 'right'],
  }; // prettier-ignore
  const sectionVerbs = (): Verb[] => {
    const [one, other] = sheets.picked;
    const own = sheets.sheet;
    if (!one || other || !own) return [];
    return (ACROSS[own.views[one.view]!.look] ?? []).map((look): Verb => ({
      id: `section-${look}`,
      label: `Section from the ${look}`,
      run() {
        const cut = { at: one.spot.spot };
        const known = own.viewOrder.find((id) => own.views[id]!.look === look && !own.views[id]!.detail);
        const edit = known ? changeSheetView(session.activeSheet!, known, { cut }) : addSheetView(session.activeSheet!, newId('v'), { look, cut }); // prettier-ignore
        if (sheets.edit(edit)) sheets.letGo();
      },
    }));
  };

  /** So much of the view, round what is picked, a detail shows at first. */
  const SHARE = 0.12;
  const detailVerbs = (): Verb[] => {
    const [one, other] = sheets.picked;
    const own = sheets.sheet;
    const from = own && one ? own.views[one.view] : undefined;
    const box = one ? sheets.geometry?.views.get(one.view)?.box : undefined;
    if (!one || other || !from || from.detail || !box) return [];
    return [
      {
        id: 'detail',
        label: 'Enlarge here',
        run() {
          const radius = Math.max(0.01, Number((SHARE * Math.hypot(box[2] - box[0], box[3] - box[1])).toPrecision(2)));
          const id = newId('v');
          const detail = { of: one.view, at: one.spot.spot, radius };
          if (!sheets.edit(addSheetView(session.activeSheet!, id, { look: from.look, detail }))) return;
          sheets.letGo();
          sheets.pickedView = id;
        },
      },
    ];
  };

  const verbs = computed<Verb[]>(() => {
    const own = sheets.sheet;
    if (!own) return [];
    if (kinds.value.length > 0) return [...kinds.value.map((kind): Verb => ({ id: kind, label: SIZE_NAMES[kind], ...(kind === kinds.value[0] ? { key: 'd' } : {}), run: () => sheets.take(kind) })), ...sectionVerbs(), ...detailVerbs()]; // prettier-ignore
    if (sheets.pickedSize && partOfBalloon(sheets.pickedSize) !== null) return [{ id: 'no-list', label: 'Take the parts list off', run: () => void sheets.edit(listPartsOnSheet(session.activeSheet!, false)) }]; // prettier-ignore
    if (sheets.pickedSize) return [{ id: 'remove-size', label: 'Take it off', key: 'Del', run: () => sheets.remove() }];
    const view = sheets.pickedView ? own.views[sheets.pickedView] : undefined;
    if (view) return viewVerbs(sheets.pickedView!, view);
    const standing = new Set(Object.values(own.views).flatMap((v) => (v.detail ? [] : [v.look])));
    const listed: Verb[] = 'assembly' in own.of ? [{ id: 'list', label: own.parts ? 'Without parts list' : 'Parts list', run: () => void sheets.edit(listPartsOnSheet(session.activeSheet!, !own.parts)) }] : []; // prettier-ignore
    const bring: Verb[] = 'part' in own.of ? [{ id: 'bring', label: 'Bring the model’s sizes', run: () => void sheets.bring() }] : []; // prettier-ignore
    return [
      ...listed,
      ...bring,
      ...LOOKS.filter((look) => !standing.has(look)).map((look): Verb => ({ id: `add-${look}`, label: `Add the ${look} view`, run: () => void sheets.edit(addSheetView(session.activeSheet!, newId('v'), { look })) })), // prettier-ignore
      ...FORMATS.map((format): Verb => ({ id: format, label: `Write ${format.toUpperCase()}`, run: () => void sheets.write(format) })), // prettier-ignore
    ];
  });

  const subject = computed(() => {
    const own = sheets.sheet;
    if (!own) return '';
    const [one, other] = sheets.picked.map((p) => p.spot.what);
    const word = (what: string) => (what === 'line' ? 'edge' : what === 'side' ? 'round' : what);
    if (other) return `${word(one!)} and ${word(other)}`;
    if (one) return word(one);
    if (sheets.pickedSize) return partOfBalloon(sheets.pickedSize) === null ? 'size' : 'balloon';
    const view = sheets.pickedView ? own.views[sheets.pickedView] : undefined;
    return view ? (view.detail ? 'detail' : `${view.look} view`) : '';
  });
  const hint = computed(() =>
    subject.value === '' && sheets.geometry?.audit && Object.keys(sheets.sheet?.sizes ?? {}).length === 0
      ? 'Pick an edge, a round or a corner, with Shift two, then say which size.'
      : '',
  );
  return { verbs, subject, hint };
}
