/** What follows from how a view is asked for. */
import type { SheetView } from '../document/sheet.ts';

/** It shows no stretch of another view, nor a face seen from another: one of the six straight looks, or the oblique one. */
export const isMain = ({ detail, onto }: SheetView): boolean => detail === undefined && onto === undefined;

/** It stands where there is room, in no row or column with others. */
export const standsFree = (view: SheetView): boolean => view.look === 'oblique' || !isMain(view);

/** Sizes of the shape can be given in it: it is no part of another view. */
export const isJudged = ({ look, detail }: SheetView): boolean => look !== 'oblique' && detail === undefined;

/** Hidden lines are drawn in straight-on views that are not cut, unless one says otherwise. */
export const showsHidden = ({ look, hidden, cut, onto }: SheetView): boolean => hidden ?? (look !== 'oblique' && !cut && !onto); // prettier-ignore

/** What it is called in sentences. */
export const wordOfView = ({ look, detail, onto }: SheetView): string => (detail ? 'enlarged' : onto ? 'slanted' : look); // prettier-ignore
