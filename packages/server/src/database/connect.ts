import { Sequelize } from 'sequelize';
import { migrate } from './migrations.ts';
import { defineModels } from './models.ts';

/** Connect, migrate, and make the models usable. @throws when the database cannot be reached */
export async function connectDatabase(url: string): Promise<Sequelize> {
  const sequelize = new Sequelize(url.replace(/^mariadb:/, 'mysql:'), {
    dialect: 'mysql',
    logging: false,
    pool: { max: 8, idle: 10_000 },
    // An acknowledged change must be on disk and its order certain.
    isolationLevel: 'READ COMMITTED',
  } as ConstructorParameters<typeof Sequelize>[1]);
  await sequelize.authenticate();
  defineModels(sequelize);
  await migrate(sequelize);
  return sequelize;
}
