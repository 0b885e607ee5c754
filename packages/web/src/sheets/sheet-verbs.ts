/** What can be done on a sheet with what is picked: places in a view, a size, a view, or nothing. */
import { addSheetView, breakSheetViews, changeSheetView, emptyStretch, isMain, listPartsOnSheet, LOOKS, newId, partOfBalloon, showsHidden, wordOfView, type SheetView } from '@helb/core'; // prettier-ignore
import { computed } from 'vue';
import { useSession } from '../design/session.ts';
import type { Verb } from '../verbs/verbs.ts';
import { useSheets } from './sheet-store.ts';
import type { SheetFormat } from './written-sheet.ts';
import { useSpotVerbs } from './spot-verbs.ts';

export function useSheetVerbs() {
  const session = useSession();
  const sheets = useSheets();
  const spots = useSpotVerbs();

  /** Where a long stretch of it is empty. */
  const breakVerbs = (id: string, view: SheetView): Verb[] => {
    const { broken } = view;
    const alike = () => Object.entries(sheets.sheet!.views).flatMap(([other, v]) => (JSON.stringify(v.broken) === JSON.stringify(broken) ? [other] : [])); // prettier-ignore
    if (broken) return [{ id: 'unbroken', label: 'Unbroken again', run: () => void sheets.edit(breakSheetViews(session.activeSheet!, alike(), null)) }]; // prettier-ignore
    const drawn = sheets.geometry?.views.get(id);
    const ends = drawn ? emptyStretch(drawn) : null;
    return ends ? [{ id: 'break', label: 'Break it off', run: () => sheets.breakOff(id, ends) }] : [];
  };

  const viewVerbs = (id: string, view: SheetView): Verb[] => {
    const to = (change: Parameters<typeof changeSheetView>[2]) => () => void sheets.edit(changeSheetView(session.activeSheet!, id, change)); // prettier-ignore
    const hidden = showsHidden(view);
    if (!isMain(view)) return [{ id: 'back', label: 'Back in its place', run: to({ shift: [0, 0] }) }, { id: 'remove-view', label: 'Take it off', key: 'Del', run: () => sheets.remove() }]; // prettier-ignore
    return [
      { id: 'hidden', label: hidden ? 'Without hidden lines' : 'With hidden lines', run: to({ hidden: !hidden }) },
      { id: 'tangent', label: view.tangent ? 'Without smooth edges' : 'With smooth edges', run: to({ tangent: !view.tangent }) }, // prettier-ignore
      ...(view.look === 'oblique'
        ? []
        : [
            ...breakVerbs(id, view),
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

  const verbs = computed<Verb[]>(() => {
    const own = sheets.sheet;
    if (!own) return [];
    if (sheets.picked.length > 0) return spots.verbs.value;
    if (sheets.pickedSize && partOfBalloon(sheets.pickedSize) !== null) return [{ id: 'no-list', label: 'Take the parts list off', run: () => void sheets.edit(listPartsOnSheet(session.activeSheet!, false)) }]; // prettier-ignore
    if (sheets.pickedSize) return [{ id: 'remove-size', label: 'Take it off', key: 'Del', run: () => sheets.remove() }];
    const view = sheets.pickedView ? own.views[sheets.pickedView] : undefined;
    if (view) return viewVerbs(sheets.pickedView!, view);
    const standing = new Set(Object.values(own.views).flatMap((v) => (isMain(v) ? [v.look] : [])));
    const listed: Verb[] = 'assembly' in own.of ? [{ id: 'list', label: own.parts ? 'Without parts list' : 'Parts list', run: () => void sheets.edit(listPartsOnSheet(session.activeSheet!, !own.parts)) }] : []; // prettier-ignore
    const bring: Verb[] = 'part' in own.of ? [{ id: 'bring', label: 'Bring the model’s sizes', run: () => void sheets.bring() }] : []; // prettier-ignore
    const write = (format: SheetFormat): Verb => ({ id: format, label: `Write ${format.toUpperCase()}`, run: () => void sheets.write(format) }); // prettier-ignore
    return [
      ...listed,
      ...bring,
      write('pdf'),
      { id: 'print', label: 'Print', run: () => sheets.print() },
      ...LOOKS.filter((look) => !standing.has(look)).map((look): Verb => ({ id: `add-${look}`, label: `Add the ${look} view`, run: () => void sheets.edit(addSheetView(session.activeSheet!, newId('v'), { look })) })), // prettier-ignore
      write('svg'),
      write('dxf'),
    ];
  });

  const subject = computed(() => {
    const own = sheets.sheet;
    if (!own) return '';
    if (sheets.picked.length > 0) return spots.subject.value;
    if (sheets.pickedSize) return partOfBalloon(sheets.pickedSize) === null ? 'size' : 'balloon';
    const view = sheets.pickedView ? own.views[sheets.pickedView] : undefined;
    return view ? `${wordOfView(view)} view` : '';
  });
  const hint = computed(() =>
    subject.value === '' && sheets.geometry && Object.keys(sheets.sheet?.sizes ?? {}).length === 0
      ? 'Pick an edge, a round or a corner, with Shift several, then say which size.'
      : '',
  );
  return { verbs, subject, hint };
}
