/** Appending changes to a design's log: validate by applying, rebase or refuse, keep. */
import { applyChange, Change, Design, MAX_FILE_BYTES, type LoggedChange } from '@helb/core';
import type { Sequelize, Transaction } from 'sequelize';
import { ChangeRow, DesignRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';

type Patches = Change['patches'];

export interface Acknowledged {
  /** The design's revision after this change. */
  readonly revision: number;
  /** Changes by others between the sender's revision and this one, oldest first. */
  readonly missed: readonly {
    readonly revision: number;
    readonly id: string;
    readonly kind: Change['kind'];
    readonly of?: string;
    readonly label: string;
    readonly patches: Patches;
  }[];
}

/**
 * @param base the revision the sender made the change on
 * @throws Refusal 404, 409 when it cannot be rebased, 422 when the outcome is unsound
 */
export async function appendChange(
  sequelize: Sequelize,
  designId: string,
  base: number,
  change: Change,
): Promise<Acknowledged> {
  return sequelize.transaction(async (transaction) => {
    const design = await DesignRow.findByPk(designId, { transaction, lock: transaction.LOCK.UPDATE });
    if (!design) throw new Refusal(404, 'This design no longer exists.');
    const before = await ChangeRow.findOne({ where: { designId, changeId: change.id }, transaction });
    // Sent again because the answer was lost; it is already kept.
    if (before)
      return {
        revision: before.revision,
        missed: await changesSince(designId, base, before.revision - 1, transaction),
      };
    if (base > design.revision) {
      throw new Refusal(
        409,
        `This change was made on revision ${base}, which the server does not have (it has ${design.revision}); reload the design.`,
      );
    }
    const missed = await changesSince(designId, base, design.revision, transaction);
    const clash = missed.find((m) => overlaps(m.patches, change.patches));
    if (clash)
      throw new Refusal(
        409,
        `Meanwhile someone else made a change to the same thing (“${clash.label}”); yours was not made.`,
      );

    const outcome = applyChange(
      JSON.parse(design.document) as Design,
      change.patches as Parameters<typeof applyChange>[1],
    );
    if (!outcome.ok) throw new Refusal(422, outcome.message);
    const document = JSON.stringify(outcome.design);
    if (document.length > MAX_FILE_BYTES)
      throw new Refusal(
        422,
        `This would make the design larger than ${MAX_FILE_BYTES / 1024 / 1024} MB, the most there can be.`,
      );
    const revision = design.revision + 1;
    await ChangeRow.create(
      {
        designId,
        revision,
        changeId: change.id,
        kind: change.kind,
        target: change.of ?? null,
        command: change.command,
        args: change.args === undefined ? null : JSON.stringify(change.args),
        label: change.label,
        patches: JSON.stringify(change.patches),
        inverse: JSON.stringify(outcome.inverse),
      },
      { transaction },
    );
    await design.update({ revision, document, name: outcome.design.name }, { transaction });
    return { revision, missed };
  });
}

async function changesSince(designId: string, after: number, upTo: number, transaction: Transaction) {
  const rows = await ChangeRow.findAll({
    where: { designId },
    order: ['revision'],
    offset: after,
    limit: Math.max(0, upTo - after),
    transaction,
  });
  return rows.map((r) => ({
    revision: r.revision,
    id: r.changeId,
    kind: r.kind,
    ...(r.target === null ? {} : { of: r.target }),
    label: r.label,
    patches: JSON.parse(r.patches) as Patches,
  }));
}

/** Do two sets of patches write to the same place, or one inside what the other replaces? */
function overlaps(a: Patches, b: Patches): boolean {
  return a.some((p) => b.some((q) => isPrefix(p.path, q.path) || isPrefix(q.path, p.path)));
}

function isPrefix(short: readonly (string | number)[], long: readonly (string | number)[]): boolean {
  return short.length <= long.length && short.every((key, i) => String(key) === String(long[i]));
}

/** The log without its patches: enough for undo state and a list of history. */
export async function logOf(designId: string): Promise<(LoggedChange & { revision: number })[]> {
  const rows = await ChangeRow.findAll({
    where: { designId },
    order: ['revision'],
    attributes: ['revision', 'changeId', 'kind', 'target', 'label'],
  });
  return rows.map((r) => ({
    revision: r.revision,
    id: r.changeId,
    kind: r.kind,
    of: r.target ?? undefined,
    label: r.label,
  }));
}

export async function changeNamed(
  designId: string,
  changeId: string,
): Promise<{ patches: Patches; inverse: Patches; label: string }> {
  const row = await ChangeRow.findOne({ where: { designId, changeId } });
  if (!row) throw new Refusal(404, 'This change is not in the design’s history.');
  return { label: row.label, patches: JSON.parse(row.patches) as Patches, inverse: JSON.parse(row.inverse) as Patches };
}
