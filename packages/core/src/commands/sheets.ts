/** Edits of sheets: what is drawn on them, how, and the sizes that stand there. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import type { Design } from '../document/schema.ts';
import {
  MAX_ISSUES,
  MAX_SHEETS,
  MAX_SIZES,
  MAX_VIEWS,
  Sheet,
  SheetIssue,
  SheetSize,
  SheetView,
} from '../document/sheet.ts';
import { Id } from '../ids/ids.ts';
import { freeName } from './free-name.ts';

function sheetIn(draft: Design, id: string): Sheet {
  const own = draft.sheets?.[id];
  if (!own) throw new EditRefused('This sheet no longer exists.');
  return own;
}

const addSheetCommand = declareCommand({
  name: 'add-sheet',
  args: z.strictObject({ id: Id, sheet: Sheet }),
  label: ({ sheet }) => `Add the sheet ${sheet.name}`,
  run(draft, { id, sheet }) {
    const sheets = (draft.sheets ??= {});
    if (sheets[id]) throw new EditRefused('A sheet of this id is there already.');
    if (Object.keys(sheets).length >= MAX_SHEETS) throw new EditRefused(`A design has at most ${MAX_SHEETS} sheets.`);
    const { of } = sheet;
    if ('part' in of ? !draft.parts[of.part] : !draft.assemblies?.[of.assembly])
      throw new EditRefused('What was to be drawn is no longer there.');
    sheets[id] = structuredClone({ ...sheet, name: freeName(sheet.name, Object.values(sheets)) });
    (draft.sheetOrder ??= []).push(id);
  },
});
export const addSheet = (id: string, sheet: Sheet): Edit => addSheetCommand({ id, sheet });

const deleteSheetCommand = declareCommand({
  name: 'delete-sheet',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete a sheet',
  run(draft, { id }) {
    sheetIn(draft, id);
    delete draft.sheets![id];
    draft.sheetOrder = draft.sheetOrder!.filter((other) => other !== id);
  },
});
export const deleteSheet = (id: string): Edit => deleteSheetCommand({ id });

const Changed = z.strictObject({
  name: z.string().max(500).optional(),
  paper: Sheet.shape.paper.optional(),
  upright: z.boolean().optional(),
  angle: Sheet.shape.angle.optional(),
  front: Sheet.shape.front.optional(),
  scale: Sheet.shape.scale.nullable().optional(),
  shown: Sheet.shape.shown.nullable().optional(),
  variant: Sheet.shape.variant.nullable().optional(),
});
export type SheetChange = z.infer<typeof Changed>;

const changeSheetCommand = declareCommand({
  name: 'change-sheet',
  args: z.strictObject({ id: Id, to: Changed }),
  label: ({ to }) => (to.name === undefined ? 'Change a sheet' : `Rename a sheet to ${to.name}`),
  run(draft, { id, to: { name, upright, scale, shown, variant, ...rest } }) {
    const own = sheetIn(draft, id);
    if (name !== undefined) {
      if (!name.trim()) throw new EditRefused('A sheet needs a name.');
      own.name = name.trim().slice(0, 80);
    }
    Object.assign(own, Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== undefined)));
    if (upright === true) own.upright = true;
    else if (upright === false) delete own.upright;
    if (shown === null) delete own.shown;
    else if (shown) own.shown = { ...shown };
    if (variant === null) delete own.variant;
    else if (variant) own.variant = variant;
    if (scale === null) delete own.scale;
    else if (scale) own.scale = [...scale];
  },
});
export const changeSheet = (id: string, to: SheetChange): Edit => changeSheetCommand({ id, to });

const FIELDS = ['title', 'number', 'drawn', 'checked', 'tolerances'] as const;
const fieldCommand = declareCommand({
  name: 'set-sheet-field',
  args: z.strictObject({ id: Id, field: z.enum(FIELDS), text: z.string().max(500) }),
  label: ({ field }) => `Write the ${field} of a sheet`,
  run(draft, { id, field, text }) {
    const { fields } = sheetIn(draft, id);
    const most = field === 'title' || field === 'tolerances' ? 120 : 60;
    if (text.trim()) fields[field] = text.trim().slice(0, most);
    else delete fields[field];
  },
});
export const setSheetField = (id: string, field: (typeof FIELDS)[number], text: string): Edit =>
  fieldCommand({ id, field, text });

const addViewCommand = declareCommand({
  name: 'add-sheet-view',
  args: z.strictObject({ sheet: Id, id: Id, view: SheetView }),
  label: ({ view }) => `Add a ${view.look} view`,
  run(draft, { sheet, id, view }) {
    const own = sheetIn(draft, sheet);
    if (own.views[id]) throw new EditRefused('A view of this id is there already.');
    if (own.viewOrder.length >= MAX_VIEWS) throw new EditRefused(`A sheet has at most ${MAX_VIEWS} views.`);
    const from = view.detail?.of ?? view.onto?.of;
    if (from !== undefined && (!own.views[from] || own.views[from].detail || (view.onto && own.views[from].onto)))
      throw new EditRefused('The view this one is told from is not there any more.');
    if (from === undefined && Object.values(own.views).some((v) => v.look === view.look && !v.detail && !v.onto))
      throw new EditRefused('This view stands on the sheet already.');
    own.views[id] = structuredClone(view);
    own.viewOrder.push(id);
  },
});
export const addSheetView = (sheet: string, id: string, view: SheetView): Edit => addViewCommand({ sheet, id, view });

function viewIn(own: Sheet, id: string): SheetView {
  const view = own.views[id];
  if (!view) throw new EditRefused('This view no longer stands on the sheet.');
  return view;
}

const removeViewCommand = declareCommand({
  name: 'remove-sheet-view',
  args: z.strictObject({ sheet: Id, id: Id }),
  label: () => 'Take a view off a sheet, with its sizes',
  run(draft, { sheet, id }) {
    const own = sheetIn(draft, sheet);
    viewIn(own, id);
    // What is told from it goes along, and what is told from that.
    const gone = new Set([id]);
    for (let before = 0; before < gone.size;) {
      before = gone.size;
      for (const other of own.viewOrder) {
        const from = own.views[other]!.detail?.of ?? own.views[other]!.onto?.of;
        if (from !== undefined && gone.has(from)) gone.add(other);
      }
    }
    for (const other of gone) delete own.views[other];
    own.viewOrder = own.viewOrder.filter((other) => !gone.has(other));
    for (const [key, size] of Object.entries(own.sizes)) if (gone.has(size.view)) delete own.sizes[key];
  },
});
export const removeSheetView = (sheet: string, id: string): Edit => removeViewCommand({ sheet, id });

const ViewChange = z.strictObject({
  shift: SheetView.shape.shift.unwrap().optional(),
  hidden: z.boolean().optional(),
  tangent: z.boolean().optional(),
  cut: SheetView.shape.cut.unwrap().nullable().optional(),
  detail: SheetView.shape.detail.unwrap().optional(),
});
const changeViewCommand = declareCommand({
  name: 'change-sheet-view',
  args: z.strictObject({ sheet: Id, id: Id, to: ViewChange }),
  label: ({ to }) => (to.shift ? 'Move a view' : 'Change a view'),
  run(draft, { sheet, id, to }) {
    const view = viewIn(sheetIn(draft, sheet), id);
    if (to.shift) view.shift = [...to.shift];
    if (to.hidden !== undefined) view.hidden = to.hidden;
    if (to.tangent === true) view.tangent = true;
    else if (to.tangent === false) delete view.tangent;
    if (to.detail) view.detail = structuredClone(to.detail);
    if (to.cut) view.cut = structuredClone(to.cut);
    else if (to.cut === null) delete view.cut;
  },
});
export const changeSheetView = (sheet: string, id: string, to: z.infer<typeof ViewChange>): Edit =>
  changeViewCommand({ sheet, id, to });

const breakCommand = declareCommand({
  name: 'break-sheet-views',
  args: z.strictObject({ sheet: Id, ids: z.array(Id).min(1).max(MAX_VIEWS), broken: SheetView.shape.broken.unwrap().nullable() }),
  label: ({ broken }) => (broken ? 'Break views off' : 'Draw views unbroken again'),
  run(draft, { sheet, ids, broken }) {
    const own = sheetIn(draft, sheet);
    for (const id of ids) {
      const view = viewIn(own, id);
      if (broken && (view.look === 'oblique' || view.detail)) throw new EditRefused('Only straight-on views are broken off; break another.');
      if (broken) view.broken = structuredClone(broken);
      else delete view.broken;
    }
  },
}); // prettier-ignore
/** @param broken between which places; null, and they are drawn whole. @param ids views that stand in line are broken alike */
export const breakSheetViews = (sheet: string, ids: readonly string[], broken: SheetView['broken'] | null): Edit =>
  breakCommand({ sheet, ids: [...ids], broken: broken ?? null });

const putSizeCommand = declareCommand({
  name: 'put-sizes',
  args: z.strictObject({
    sheet: Id,
    sizes: z
      .array(z.tuple([Id, SheetSize]))
      .min(1)
      .max(MAX_SIZES),
  }),
  label: ({ sizes }) => (sizes.length === 1 ? `Put a ${sizes[0]![1].kind === 'note' ? 'note' : 'size'} on a sheet` : `Put ${sizes.length} sizes on a sheet`), // prettier-ignore
  run(draft, { sheet, sizes }) {
    const own = sheetIn(draft, sheet);
    for (const [id, size] of sizes) {
      viewIn(own, size.view);
      if (!own.sizes[id] && Object.keys(own.sizes).length >= MAX_SIZES)
        throw new EditRefused(`A sheet has at most ${MAX_SIZES} sizes.`);
      own.sizes[id] = structuredClone(size);
    }
  },
});
/** New sizes, or others in place of those of the same ids. */
export const putSize = (sheet: string, sizes: readonly (readonly [string, SheetSize])[]): Edit =>
  putSizeCommand({ sheet, sizes: sizes.map(([id, size]): [string, SheetSize] => [id, size]) });

const removeSizeCommand = declareCommand({
  name: 'remove-size',
  args: z.strictObject({ sheet: Id, id: Id }),
  label: () => 'Take a size off a sheet',
  run(draft, { sheet, id }) {
    const own = sheetIn(draft, sheet);
    if (!own.sizes[id]) throw new EditRefused('This size no longer stands on the sheet.');
    delete own.sizes[id];
  },
});
export const removeSize = (sheet: string, id: string): Edit => removeSizeCommand({ sheet, id });

const listCommand = declareCommand({
  name: 'list-parts-on-sheet',
  args: z.strictObject({ sheet: Id, on: z.boolean(), view: Id.optional() }),
  label: ({ on }) => (on ? 'List the parts on a sheet' : 'Take the parts list off a sheet'),
  run(draft, { sheet, on, view }) {
    const own = sheetIn(draft, sheet);
    if (!('assembly' in own.of)) throw new EditRefused('A parts list is of an assembly; this sheet shows a part.');
    if (!on) delete own.parts;
    else own.parts = { ...(view === undefined ? {} : { view }), places: view === own.parts?.view ? (own.parts?.places ?? {}) : {} }; // prettier-ignore
  },
});
/** @param view round which the balloons stand; left out, the one in which most is seen */
export const listPartsOnSheet = (sheet: string, on: boolean, view?: string): Edit =>
  listCommand({ sheet, on, ...(view === undefined ? {} : { view }) });

const balloonCommand = declareCommand({
  name: 'move-balloon',
  args: z.strictObject({ sheet: Id, part: Id, place: SheetView.shape.shift.unwrap() }),
  label: () => 'Move a balloon',
  run(draft, { sheet, part, place }) {
    const own = sheetIn(draft, sheet);
    if (!own.parts) throw new EditRefused('This sheet has no balloons any more.');
    own.parts.places[part] = [...place];
  },
});
export const moveBalloon = (sheet: string, part: string, place: readonly [number, number]): Edit =>
  balloonCommand({ sheet, part, place: [place[0], place[1]] });

const issueCommand = declareCommand({
  name: 'issue-sheet',
  args: z.strictObject({ sheet: Id, issue: SheetIssue }),
  label: ({ issue }) => `Issue a sheet as ${issue.letter}`,
  run(draft, { sheet, issue }) {
    const own = sheetIn(draft, sheet);
    const issues = own.issues ?? [];
    if (issues.some((i) => i.letter === issue.letter))
      throw new EditRefused(`Issue ${issue.letter} is there already; issue it anew.`);
    if (issues.length >= MAX_ISSUES)
      throw new EditRefused(`A sheet has at most ${MAX_ISSUES} issues; copy it to a new one.`);
    own.issues = [...issues, structuredClone(issue)];
  },
});
export const issueSheet = (sheet: string, issue: SheetIssue): Edit => issueCommand({ sheet, issue });
