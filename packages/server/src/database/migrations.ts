import { DataTypes, type QueryInterface, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

const DOCUMENT = DataTypes.TEXT('long');
const date = { type: DataTypes.DATE(3), allowNull: false };
const key = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });

const MIGRATIONS: { name: string; up(q: QueryInterface): Promise<void> }[] = [
  {
    name: '001-projects-designs-changes',
    async up(q) {
      await q.createTable('projects', {
        id: { ...key(40), primaryKey: true },
        name: key(80),
        createdAt: date,
        updatedAt: date,
      });
      await q.createTable('designs', {
        id: { ...key(40), primaryKey: true },
        projectId: { ...key(40), references: { model: 'projects', key: 'id' }, onDelete: 'CASCADE' },
        name: key(80),
        revision: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DOCUMENT, allowNull: false },
        createdAt: date,
        updatedAt: date,
      });
      await q.createTable('changes', {
        designId: { ...key(40), primaryKey: true, references: { model: 'designs', key: 'id' }, onDelete: 'CASCADE' },
        revision: { type: DataTypes.INTEGER, primaryKey: true, allowNull: false },
        changeId: key(40),
        kind: key(8),
        target: DataTypes.STRING(40),
        command: key(60),
        label: key(300),
        patches: { type: DOCUMENT, allowNull: false },
        inverse: { type: DOCUMENT, allowNull: false },
        createdAt: date,
      });
      await q.addIndex('changes', ['designId', 'changeId'], { unique: true });
    },
  },
  {
    name: '002-pictures',
    async up(q) {
      await q.createTable('pictures', {
        designId: { ...key(40), primaryKey: true, references: { model: 'designs', key: 'id' }, onDelete: 'CASCADE' },
        part: { ...key(40), primaryKey: true },
        pictureKey: key(40),
        data: { type: DataTypes.BLOB('long'), allowNull: false },
        createdAt: date,
      });
    },
  },
  {
    name: '003-shared-dimensions',
    async up(q) {
      await q.addColumn('projects', 'shared', { type: DOCUMENT, allowNull: true });
      await q.addColumn('projects', 'sharedRevision', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
    },
  },
  {
    name: '004-arguments-of-commands',
    async up(q) {
      await q.addColumn('changes', 'args', { type: DOCUMENT, allowNull: true });
    },
  },
  {
    name: '005-touches-authors-deletion',
    async up(q) {
      const text = { type: DOCUMENT, allowNull: true };
      await q.addColumn('changes', 'author', { type: DataTypes.STRING(40), allowNull: true });
      await q.addColumn('changes', 'digest', { type: DataTypes.STRING(64), allowNull: true });
      await q.addColumn('changes', 'named', { type: DataTypes.STRING(80), allowNull: true });
      await q.addColumn('changes', 'touches', text);
      await q.removeColumn('changes', 'patches');
      await q.changeColumn('changes', 'inverse', text);
      await q.addColumn('designs', 'newest', { type: DataTypes.STRING(40), allowNull: true });
      await q.addColumn('designs', 'documentRevision', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
      await q.addColumn('designs', 'firstPart', { type: DataTypes.STRING(40), allowNull: true });
      for (const table of ['designs', 'projects'])
        await q.addColumn(table, 'deletedAt', { type: DataTypes.DATE(3), allowNull: true });
      await q.createTable('secrets', { name: { ...key(40), primaryKey: true }, value: key(200) });
      await q.sequelize.query(
        `UPDATE designs d SET documentRevision = revision, firstPart = JSON_VALUE(document, '$.partOrder[0]'), newest = (SELECT changeId FROM changes c WHERE c.designId = d.id AND c.revision = d.revision)`,
      );
      // Ids are told apart letter by letter, as the document does.
      for (const [table, column, length] of [
        ['changes', 'changeId', 40],
        ['pictures', 'part', 40],
        ['pictures', 'pictureKey', 40],
      ] as const)
        await q.sequelize.query(
          `ALTER TABLE ${table} MODIFY ${column} VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_bin NOT NULL`,
        );
    },
  },
  {
    name: '006-people',
    async up(q) {
      const optional = (type: DataTypes.StringDataType) => ({ type, allowNull: true });
      const references = (model: string) => ({ references: { model, key: 'id' }, onDelete: 'CASCADE' });
      const counted = { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true };
      await q.createTable('people', {
        id: { ...key(40), primaryKey: true },
        address: optional(DataTypes.STRING(200)),
        name: optional(DataTypes.STRING(80)),
        password: optional(DataTypes.STRING(200)),
        keeper: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        leftAt: { type: DataTypes.DATE(3), allowNull: true },
        createdAt: date,
      });
      await q.addIndex('people', ['address'], { unique: true });
      await q.createTable('sign_ins', {
        id: { ...key(64), primaryKey: true },
        personId: { ...key(40), ...references('people') },
        before: optional(DataTypes.STRING(64)),
        turnedAt: date,
        seenAt: date,
        createdAt: date,
      });
      await q.addIndex('sign_ins', ['before']);
      await q.createTable('members', {
        projectId: { ...key(40), primaryKey: true, ...references('projects') },
        personId: { ...key(40), primaryKey: true, ...references('people') },
        role: key(8),
        createdAt: date,
      });
      await q.createTable('one_time_links', {
        id: { ...key(64), primaryKey: true },
        kind: key(12),
        address: optional(DataTypes.STRING(200)),
        personId: { ...optional(DataTypes.STRING(40)), ...references('people') },
        projectId: { ...optional(DataTypes.STRING(40)), ...references('projects') },
        role: optional(DataTypes.STRING(8)),
        endsAt: date,
        createdAt: date,
      });
      await q.createTable('shares', {
        id: { ...key(64), primaryKey: true },
        designId: { ...key(40), ...references('designs') },
        madeBy: optional(DataTypes.STRING(40)),
        endsAt: date,
        createdAt: date,
      });
      await q.createTable('audit', {
        id: counted,
        what: key(20),
        outcome: key(8),
        address: optional(DataTypes.STRING(200)),
        personId: optional(DataTypes.STRING(40)),
        about: optional(DataTypes.STRING(200)),
        ip: optional(DataTypes.STRING(60)),
        createdAt: date,
      });
      await q.addIndex('audit', ['address', 'createdAt']);
      await q.addIndex('audit', ['ip', 'createdAt']);
      for (const [table, column, length] of [
        ['people', 'address', 200],
        ['one_time_links', 'address', 200],
        ['audit', 'address', 200],
      ] as const)
        await q.sequelize.query(
          `ALTER TABLE ${table} MODIFY ${column} VARCHAR(${length}) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL`,
        );
    },
  },
  {
    name: '007-pages-open',
    async up(q) {
      await q.createTable('open_pages', {
        server: { ...key(40), primaryKey: true },
        tab: { type: DataTypes.INTEGER, primaryKey: true, allowNull: false },
        designId: { ...key(40), references: { model: 'designs', key: 'id' }, onDelete: 'CASCADE' },
        author: key(40),
        name: { type: DataTypes.STRING(80), allowNull: true },
        part: { type: DataTypes.STRING(40), allowNull: true },
        step: { type: DataTypes.STRING(40), allowNull: true },
        seenAt: date,
      });
    },
  },
  {
    name: '008-issued-sheets',
    async up(q) {
      await q.createTable('issued_sheets', {
        designId: { ...key(40), primaryKey: true, references: { model: 'designs', key: 'id' }, onDelete: 'CASCADE' },
        sheet: { ...key(40), primaryKey: true },
        letter: { ...key(2), primaryKey: true },
        revision: { type: DataTypes.INTEGER, primaryKey: true, allowNull: false },
        bytes: { type: DataTypes.INTEGER, allowNull: false },
        data: { type: DataTypes.BLOB('long'), allowNull: false },
        createdAt: date,
      });
      // Ids are told apart letter by letter, as the document does.
      await q.sequelize.query(
        'ALTER TABLE issued_sheets MODIFY sheet VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL',
      );
    },
  },
];

/** Bring the database to the newest form; safe to call at every start. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: ({ context }: { context: QueryInterface }) => up(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
