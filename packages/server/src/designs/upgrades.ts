/** Designs stored by earlier versions, brought to the present one at the start, each with its log. */
import { Design, FORMAT_VERSION, upgradedWithLog, type LoggedPatches } from '@helb/core';
import type { Logger } from 'pino';
import { literal, type Sequelize } from 'sequelize';
import { ChangeRow, DesignRow } from '../database/models.ts';

/** A design that cannot be upgraded stays as it is; opening it says so. */
export async function upgradeStored(sequelize: Sequelize, log: Logger): Promise<void> {
  const old = await DesignRow.findAll({
    attributes: ['id'],
    where: literal(`CAST(JSON_VALUE(document, '$.version') AS INT) < ${FORMAT_VERSION}`),
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
    const { document, log } = upgradedWithLog(
      JSON.parse(row.document) as object,
      changes.map((c) => ({ patches: JSON.parse(c.patches), inverse: JSON.parse(c.inverse) }) as LoggedPatches),
    );
    const sound = Design.parse(document);
    for (const [i, change] of changes.entries()) {
      const { patches, inverse } = log[i]!;
      const text = { patches: JSON.stringify(patches), inverse: JSON.stringify(inverse) };
      if (text.patches !== change.patches || text.inverse !== change.inverse)
        await change.update(text, { transaction });
    }
    // Not an edit: nothing is newer for it.
    await row.update({ document: JSON.stringify(sound) }, { transaction, silent: true });
  });
}
