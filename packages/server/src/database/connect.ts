import { Sequelize } from 'sequelize';
import { migrate } from './migrations.ts';
import { randomBytes } from 'node:crypto';
import { definePeople } from '../people/rows.ts';
import { defineModels, SecretRow } from './models.ts';

/** Connect, and make the models usable. @throws when the database cannot be reached */
export async function connectDatabase(url: string): Promise<Sequelize> {
  const sequelize = new Sequelize(url.replace(/^mariadb:/, 'mysql:'), {
    dialect: 'mysql',
    logging: false,
    pool: { max: 24, idle: 10_000 },
    // An acknowledged change must be on disk and its order certain.
    isolationLevel: 'READ COMMITTED',
  } as ConstructorParameters<typeof Sequelize>[1]);
  await sequelize.authenticate();
  defineModels(sequelize);
  definePeople(sequelize);
  await alone(sequelize, () => migrate(sequelize));
  return sequelize;
}

const LONGEST_WAIT_S = 120;

/** Do something that only one server may do at a time, whichever of those on this database is first. */
export async function alone<T>(sequelize: Sequelize, work: () => Promise<T>): Promise<T> {
  // A lock belongs to a connection; a transaction keeps one.
  return sequelize.transaction(async (transaction) => {
    const [[got]] = (await sequelize.query(`SELECT GET_LOCK('helb-start', ${LONGEST_WAIT_S}) AS got`, { transaction })) as unknown as [{ got: number }[]]; // prettier-ignore
    if (got?.got !== 1) throw new Error('Another Helb is starting on this database and does not come to an end; try again.'); // prettier-ignore
    try {
      return await work();
    } finally {
      await sequelize.query(`DO RELEASE_LOCK('helb-start')`, { transaction });
    }
  });
}

/** A secret all servers on this database share; made by the first that asks. */
export async function sharedSecret(name: string): Promise<string> {
  await SecretRow.bulkCreate([{ name, value: randomBytes(32).toString('base64url') }], { ignoreDuplicates: true });
  return (await SecretRow.findByPk(name))!.value;
}
