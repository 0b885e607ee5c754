/** Words for what one may do in a project. */
import type { Role } from '../server.ts';

export const MAY: Record<Role, { readonly short: string; readonly long: string }> = {
  reads: { short: 'looks', long: 'look at its designs, and change nothing' },
  edits: { short: 'works', long: 'work on its designs' },
  owns: { short: 'owns', long: 'work on its designs, and say who else may' },
};
