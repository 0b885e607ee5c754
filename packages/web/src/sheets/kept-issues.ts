/** Issues kept with the server as the very files that were given away. */
import type { SheetDrawing, SheetIssue } from '@helb/core';
import { until } from '@vueuse/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { server, ServerRefusal } from '../server.ts';
import { saveFile } from '../shell/save-file.ts';
import { writtenSheet } from './written-sheet.ts';

/** How long the issue itself may take to be saved, ms. */
const PATIENCE = 60_000;

export function useKeptIssues() {
  const design = useDesign();
  const session = useSession();

  /** Write an issue that was just made, and keep it once the design with it is saved. */
  async function keep(sheet: string, issue: SheetIssue, drawing: SheetDrawing): Promise<void> {
    const { letter, revision } = issue;
    const of = design.id;
    // Another may have issued the same letter meanwhile, and this one was refused.
    const stands = () =>
      design.design?.sheets?.[sheet]?.issues?.some(
        (i) =>
          i.letter === letter &&
          i.revision === revision &&
          i.note === issue.note &&
          JSON.stringify(i.sizes) === JSON.stringify(issue.sizes),
      ) ?? false;
    try {
      const pdf = await writtenSheet(drawing, 'pdf');
      await until(() => design.saveState === 'saved' || design.id !== of).toBe(true, { timeout: PATIENCE });
      if (!of || design.id !== of || design.saveState !== 'saved') throw new Error('the design is not saved yet');
      if (!stands()) return;
      await server.keepIssued(of, sheet, letter, revision, pdf);
    } catch (error) {
      session.notice = `Issue ${letter} stands, but its PDF is not kept with it, as ${(error as Error).message.replace(/\.$/, '')}; write the PDF, and keep it yourself.`;
    }
  }

  /** The file as it was given away. @throws Error with a sentence */
  async function open(sheet: string, name: string, { letter, revision }: SheetIssue): Promise<void> {
    try {
      saveFile(await server.issued(design.id!, sheet, letter, revision), `${name} ${letter}.pdf`, 'application/pdf');
    } catch (error) {
      const none = error instanceof ServerRefusal && error.status === 404;
      throw none ? new Error(`No file was kept of issue ${letter}; show it as it was, and write it anew.`) : error;
    }
  }
  return { keep, open };
}
