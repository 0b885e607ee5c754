/** Designs stored by earlier versions, brought to the present one at the start, each with its log. */
import { Design, FORMAT_VERSION, upgradedWithLog, withTouches, type LoggedTouches, type Touch } from '@helb/core';
import type { Logger } from 'pino';
import { literal, type Sequelize } from 'sequelize';
import { ChangeRow, DesignRow } from '../database/models.ts';

/** A design that cannot be upgraded stays as it is; opening it says so. */
export async function upgradeStored(sequelize: Sequelize, log: Logger): Promise<void> {
  const old = await DesignRow.findAll({
    attributes: ['id'],
    where: literal(
      `CAST(JSON_VALUE(document, '$.version') AS INT) < ${FORMAT_VERSION} OR EXISTS (SELECT 1 FROM changes c WHERE c.designId = DesignRow.id AND c.touches IS NULL)`,
    ),
  });
  for (const { id } of old) {
    try {
      await upgradeOne(sequelize, id);
    } catch (error) {
      log.error({ err: error, design: id }, 'a stored design could not be brought to the present version');
    }
  }
}

async function upgradeOne(sequelize: Sequelize, id: string): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const row = await DesignRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
    if (!row) return;
    const changes = await ChangeRow.findAll({ where: { designId: id }, order: ['revision'], transaction });
    const logged = changes.map(({ touches, inverse }): LoggedTouches =>
      touches === null ? { inverse: JSON.parse(inverse!) as [] } : { touches: JSON.parse(touches) as Touch[] },
    );
    // What was done since the state was written is done to it first.
    const later = logged.filter((_, i) => changes[i]!.revision > row.documentRevision);
    const newest = withTouches(JSON.parse(row.document) as object, later.flatMap((l) => ('touches' in l ? l.touches : [])), false); // prettier-ignore
    const { document, log } = upgradedWithLog(newest, logged);
    const sound = Design.parse(document);
    for (const [i, change] of changes.entries()) {
      const touches = JSON.stringify(log[i]!);
      if (touches !== change.touches) await change.update({ touches, inverse: null }, { transaction });
    }
    // Not an edit: nothing is newer for it.
    await row.update(
      { document: JSON.stringify(sound), documentRevision: row.revision, firstPart: sound.partOrder[0] ?? null },
      { transaction, silent: true },
    );
  });
}
