/** Pages that are open at other servers on the same database. */
import { randomInt, randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import { OpenPageRow } from '../database/models.ts';

/** A page as others hear of it. */
export interface Seen {
  readonly tab: number;
  readonly author: string;
  readonly name: string | null;
  readonly part: string | null;
  readonly step: string | null;
}

/** A server that has not been heard of for so long has ended. */
const GONE_MS = 35_000;
/** Numbers of pages are told apart by where each server begins to count. */
const FIRST_TABS = 2_000_000;
const TABS_EACH = 1000;

export class Elsewhere {
  private readonly server = randomUUID();
  readonly firstTab = randomInt(FIRST_TABS) * TABS_EACH;

  /** What is being told of each page: the database keeps no order between questions asked at once. */
  private readonly telling = new Map<number, Promise<unknown>>();

  async tell(designId: string, { tab, author, name, part, step }: Seen): Promise<void> {
    const row = { server: this.server, tab, designId, author, name, part, step };
    await this.inTurn(tab, () => OpenPageRow.upsert({ ...row, seenAt: new Date() }));
  }

  async forget(tab: number): Promise<void> {
    await this.inTurn(tab, () => OpenPageRow.destroy({ where: { server: this.server, tab } }));
  }

  /** What is told of one page last is what stays. */
  private async inTurn(tab: number, tell: () => Promise<unknown>): Promise<void> {
    const turn = (this.telling.get(tab) ?? Promise.resolve()).then(tell, tell);
    this.telling.set(tab, turn);
    try {
      await turn;
    } finally {
      if (this.telling.get(tab) === turn) this.telling.delete(tab);
    }
  }

  /** By design. */
  async pages(designs: readonly string[]): Promise<ReadonlyMap<string, readonly Seen[]>> {
    const rows = await OpenPageRow.findAll({
      where: {
        designId: [...designs],
        server: { [Op.ne]: this.server },
        seenAt: { [Op.gt]: new Date(Date.now() - GONE_MS) },
      },
      order: ['tab'],
    });
    const pages = new Map<string, Seen[]>();
    for (const row of rows) pages.set(row.designId, [...(pages.get(row.designId) ?? []), row]);
    return pages;
  }

  /** Those that are still here; what ended without a word is forgotten. */
  async beat(tabs: readonly number[]): Promise<void> {
    await OpenPageRow.update({ seenAt: new Date() }, { where: { server: this.server, tab: [...tabs] } });
    await OpenPageRow.destroy({ where: { seenAt: { [Op.lt]: new Date(Date.now() - GONE_MS) } } });
  }

  async stop(): Promise<void> {
    await OpenPageRow.destroy({ where: { server: this.server } });
  }
}
