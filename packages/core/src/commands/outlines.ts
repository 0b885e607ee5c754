/** Edits of outlines: what is cut, of which boards, and how it lies on them. */
import { z } from 'zod';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import {
  CutBoard,
  CutPiece,
  LaidPlace,
  MAX_CUT_PIECES,
  MAX_LAID,
  MAX_OUTLINES,
  Outlines,
} from '../document/outlines.ts';
import type { Design } from '../document/schema.ts';
import { Id } from '../ids/ids.ts';
import { freeName } from './free-name.ts';

function outlinesIn(draft: Design, id: string): Outlines {
  const own = draft.outlines?.[id];
  if (!own) throw new EditRefused('These outlines no longer exist.');
  return own;
}

const addCommand = declareCommand({
  name: 'add-outlines',
  args: z.strictObject({ id: Id, outlines: Outlines }),
  label: ({ outlines }) => `Add the outlines ${outlines.name}`,
  run(draft, { id, outlines }) {
    const all = (draft.outlines ??= {});
    if (all[id]) throw new EditRefused('Outlines of this id are there already.');
    if (Object.keys(all).length >= MAX_OUTLINES)
      throw new EditRefused(`A design has at most ${MAX_OUTLINES} outlines.`);
    all[id] = structuredClone({ ...outlines, name: freeName(outlines.name, Object.values(all)) });
    (draft.outlinesOrder ??= []).push(id);
  },
});
export const addOutlines = (id: string, outlines: Outlines): Edit => addCommand({ id, outlines });

const deleteCommand = declareCommand({
  name: 'delete-outlines',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete outlines',
  run(draft, { id }) {
    outlinesIn(draft, id);
    delete draft.outlines![id];
    draft.outlinesOrder = draft.outlinesOrder!.filter((other) => other !== id);
  },
});
export const deleteOutlines = (id: string): Edit => deleteCommand({ id });

const Changed = z.strictObject({
  name: z.string().max(500).optional(),
  of: Id.nullable().optional(),
  board: CutBoard.partial().extend({ boards: CutBoard.shape.boards.nullable() }).optional(),
  gap: Outlines.shape.gap.optional(),
  margin: Outlines.shape.margin.optional(),
  cut: Outlines.shape.cut.optional(),
  turns: Outlines.shape.turns.optional(),
  names: Outlines.shape.names.optional(),
});
export type OutlinesChange = z.infer<typeof Changed>;

const changeCommand = declareCommand({
  name: 'change-outlines',
  args: z.strictObject({ id: Id, to: Changed }),
  label: ({ to }) => (to.name === undefined ? 'Change outlines' : `Rename outlines to ${to.name}`),
  run(draft, { id, to: { name, of, board, ...rest } }) {
    const own = outlinesIn(draft, id);
    if (name !== undefined) {
      if (!name.trim()) throw new EditRefused('Outlines need a name.');
      own.name = name.trim().slice(0, 80);
    }
    if (of === null) delete own.of;
    else if (of !== undefined) own.of = of;
    const { boards, ...size } = board ?? {};
    Object.assign(own.board, set(size));
    if (boards === null) delete own.board.boards;
    else if (boards !== undefined) own.board.boards = boards;
    Object.assign(own, set(rest));
  },
});
const set = (fields: object) => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
export const changeOutlines = (id: string, to: OutlinesChange): Edit => changeCommand({ id, to });

const putCommand = declareCommand({
  name: 'put-cut-pieces',
  args: z.strictObject({ outlines: Id, pieces: z.array(z.tuple([Id, CutPiece])).min(1).max(MAX_CUT_PIECES) }), // prettier-ignore
  label: ({ pieces }) => (pieces.length === 1 ? 'Set a piece that is cut' : `Set ${pieces.length} pieces that are cut`),
  run(draft, { outlines, pieces }) {
    const own = outlinesIn(draft, outlines);
    for (const [id, piece] of pieces) {
      if (!draft.parts[piece.part]) throw new EditRefused('The part that was to be cut is no longer there.');
      if (!own.pieces[id]) {
        if (own.pieceOrder.length >= MAX_CUT_PIECES) throw new EditRefused(`Outlines hold at most ${MAX_CUT_PIECES} pieces.`); // prettier-ignore
        own.pieceOrder.push(id);
      }
      own.pieces[id] = structuredClone(piece);
    }
  },
});
/** New pieces, or others in place of those of the same ids. */
export const putCutPieces = (outlines: string, pieces: readonly (readonly [string, CutPiece])[]): Edit =>
  putCommand({ outlines, pieces: pieces.map(([id, piece]): [string, CutPiece] => [id, piece]) });

const removeCommand = declareCommand({
  name: 'remove-cut-pieces',
  args: z.strictObject({ outlines: Id, ids: z.array(Id).min(1).max(MAX_CUT_PIECES) }),
  label: ({ ids }) => (ids.length === 1 ? 'Take a piece off the boards' : `Take ${ids.length} pieces off the boards`),
  run(draft, { outlines, ids }) {
    const own = outlinesIn(draft, outlines);
    for (const id of ids) {
      if (!own.pieces[id]) throw new EditRefused('This piece is no longer among the outlines.');
      delete own.pieces[id];
    }
    own.pieceOrder = own.pieceOrder.filter((id) => own.pieces[id]);
  },
});
export const removeCutPieces = (outlines: string, ids: readonly string[]): Edit => removeCommand({ outlines, ids: [...ids] }); // prettier-ignore

const layCommand = declareCommand({
  name: 'keep-laid',
  args: z.strictObject({ outlines: Id, laid: z.array(LaidPlace).max(MAX_LAID).nullable() }),
  label: ({ laid }) => (laid ? 'Keep how pieces lie on the boards' : 'Lay pieces on the boards anew'),
  run(draft, { outlines, laid }) {
    const own = outlinesIn(draft, outlines);
    if (laid) own.laid = structuredClone(laid);
    else delete own.laid;
  },
});
/** @param laid null: it is worked out again each time */
export const keepLaid = (outlines: string, laid: readonly z.infer<typeof LaidPlace>[] | null): Edit =>
  layCommand({ outlines, laid: laid && [...laid] });
