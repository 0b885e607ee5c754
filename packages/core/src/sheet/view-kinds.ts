/** What follows from how a view is asked for. */
import type { SheetView } from '../document/sheet.ts';

/** It stands where there is room, in no row or column with others. */
export const standsFree = ({ look, detail }: SheetView): boolean => look === 'oblique' || detail !== undefined;

/** Hidden lines are drawn in straight-on views that are not cut, unless one says otherwise. */
export const showsHidden = ({ look, hidden, cut }: SheetView): boolean => hidden ?? (look !== 'oblique' && !cut);
