/** Frame, title block and the symbol of projection. */
import type { TitleBlock } from '../document/shared.ts';
import { paperSize, type Sheet } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { ISSUE_ROW, MARGINS, shownIssues, TITLE_BLOCK } from './layout.ts';
import { line, type OnPaper } from './paper.ts';

export interface Told {
  /** What the project says of all its sheets. */
  readonly project: TitleBlock;
  readonly title: string;
  readonly material: string;
  readonly mass: string;
  readonly scale: string;
  readonly units: string;
}

/** Said on every sheet that names none of its own; ISO 2768 is a fallback many shops know. */
export const TOLERANCES = 'General tolerances ISO 2768-m';
const SMALL = 1.8;
const TEXT = 2.6;

const CAUTION = 'Geometry and mass only; strength was not checked.';

export function frameAndTitle(sheet: Sheet, told: Told): OnPaper[] {
  const [width, height] = paperSize(sheet);
  const [x0, y0, x1, y1] = [MARGINS.left, MARGINS.other, width - MARGINS.other, height - MARGINS.other];
  const left = x1 - TITLE_BLOCK[0];
  const [low, middle, top] = [y0 + 12, y0 + 24, y0 + TITLE_BLOCK[1]];
  const columns = [left + 70, left + 120];
  const fields = { ...told.project, ...sheet.fields };
  const cell = (x: number, y: number, label: string, text: string, strong = false): OnPaper[] => [
    words(x + 2, y + 8.4, label, SMALL, 'words'),
    words(x + 2, y + 3, text, strong ? 3.5 : TEXT, strong ? 'strong' : 'words'),
  ];
  return [
    ...box('frame', x0, y0, x1, y1),
    ...box('frame', left, y0, x1, top),
    ...[low, middle].map((y) => line('rule', [left, y], [x1, y])),
    ...columns.map((x) => line('rule', [x, y0], [x, top])),
    ...cell(left, middle, fields.firm ?? 'Title', fields.title ?? told.title, true),
    ...cell(left, low, 'Material, mass', [told.material, told.mass].filter(Boolean).join(', ') || 'not given'),
    ...cell(left, y0, CAUTION, fields.tolerances ?? TOLERANCES),
    ...cell(columns[0]!, middle, 'Number', fields.number ?? ''),
    ...cell(columns[0]!, low, 'Drawn', fields.drawn ?? ''),
    ...cell(columns[0]!, y0, 'Checked', fields.checked ?? ''),
    ...cell(columns[1]!, middle, 'Scale', told.scale),
    ...cell(columns[1]!, low, 'Paper, lengths in', `${sheet.paper}, ${told.units}`),
    ...cell(columns[1]!, y0, `${sheet.angle} angle`, ''),
    ...shownIssues(sheet).flatMap((issue, i) => {
      const y = top + i * ISSUE_ROW;
      return [
        ...box('rule', left, y, x1, y + ISSUE_ROW),
        words(left + 2, y + 1.8, issue.letter, TEXT, 'strong'),
        words(left + 12, y + 1.8, issue.date, TEXT, 'numbers'),
        words(left + 40, y + 1.8, issue.note ?? '', TEXT, 'words'),
      ];
    }),
    ...symbol(sheet.angle, [columns[1]! + 34, y0 + 6]),
  ];
}

/** Where a parts list stands: above the title block and the issues. */
export function listCorner(sheet: Sheet): Vec2 {
  const [width] = paperSize(sheet);
  return [
    width - MARGINS.other - TITLE_BLOCK[0],
    MARGINS.other + TITLE_BLOCK[1] + shownIssues(sheet).length * ISSUE_ROW,
  ];
}

export const words = (x: number, y: number, text: string, height: number, face: 'words' | 'strong' | 'numbers', anchor: 'start' | 'middle' | 'end' = 'start'): OnPaper => ({ is: 'text', at: [x, y], text, height, anchor, turn: 0, face }); // prettier-ignore

function box(pen: 'frame' | 'rule', x0: number, y0: number, x1: number, y1: number): OnPaper[] {
  const corners: Vec2[] = [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]; // prettier-ignore
  return corners.map((p, i) => line(pen, p, corners[(i + 1) % 4]!));
}

/** A cut cone and its two circles, as ISO 5456-2 has them: seen from the left, drawn on the right in first angle. */
function symbol(angle: Sheet['angle'], [x, y]: Vec2): OnPaper[] {
  const [cone, round] = angle === 'first' ? [x - 6, x + 5] : [x + 6, x - 5];
  const corners: Vec2[] = [[cone - 4, y - 1.75], [cone + 4, y - 3.5], [cone + 4, y + 3.5], [cone - 4, y + 1.75]]; // prettier-ignore
  return [
    ...corners.map((p, i) => line('rule', p, corners[(i + 1) % 4]!)),
    ...[1.75, 3.5].map((radius): OnPaper => ({ is: 'curve', pen: 'rule', piece: { kind: 'circle', points: [[round, y]], radius } })), // prettier-ignore
    line('center', [x - 12, y], [x + 12, y]),
    line('center', [round, y - 5], [round, y + 5]),
  ];
}
