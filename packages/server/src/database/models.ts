import {
  DataTypes,
  Model,
  Sequelize,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
} from 'sequelize';

export class ProjectRow extends Model<InferAttributes<ProjectRow>, InferCreationAttributes<ProjectRow>> {
  declare id: string;
  declare name: string;
  /** Dimensions shared by its designs, as JSON; null while there are none. */
  declare shared: string | null;
  /** Counts changes of `shared`. */
  declare sharedRevision: number;
  /** Deleted then, and gone for good some time later. */
  declare deletedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class DesignRow extends Model<InferAttributes<DesignRow>, InferCreationAttributes<DesignRow>> {
  declare id: string;
  declare projectId: string;
  declare name: string;
  /** Number of changes made. */
  declare revision: number;
  /** Id of the last of them. */
  declare newest: CreationOptional<string | null>;
  /** A state of the design, written now and then; what was done since is in the log. */
  declare document: string;
  /** Number of changes in that state. */
  declare documentRevision: CreationOptional<number>;
  declare firstPart: CreationOptional<string | null>;
  /** Deleted then, and gone for good some time later. */
  declare deletedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** The log: one row a change, altered only when a new version of the design's format writes it anew. */
export class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare designId: string;
  declare revision: number;
  declare changeId: string;
  declare kind: 'edit' | 'undo' | 'redo' | 'follow' | 'restore';
  /** The change an undo or redo concerns. */
  declare target: string | null;
  declare command: string;
  /** What the command was given, as JSON, where it can be run again. */
  declare args: string | null;
  declare label: string;
  /** Who made it; null of changes made before that was known. */
  declare author: CreationOptional<string | null>;
  /** Tells it from another change sent under its id. */
  declare digest: CreationOptional<string | null>;
  /** A name given to the state after it. */
  declare named: CreationOptional<string | null>;
  /** What it did; null of changes of an earlier version until they are brought to this one. */
  declare touches: CreationOptional<string | null>;
  /** How an earlier version kept it. */
  declare inverse: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

/** A sheet as it was given away: a PDF that stays as it is. */
export class IssuedRow extends Model<InferAttributes<IssuedRow>, InferCreationAttributes<IssuedRow>> {
  declare designId: string;
  declare sheet: string;
  declare letter: string;
  /** Of the design, as the issue tells. */
  declare revision: number;
  declare bytes: number;
  declare data: Buffer;
  declare createdAt: CreationOptional<Date>;
}

/** The last picture of a part, so that a design opens at once; never the truth, only what was last seen. */
export class PictureRow extends Model<InferAttributes<PictureRow>, InferCreationAttributes<PictureRow>> {
  declare designId: string;
  declare part: string;
  /** Of the content it shows; a picture whose key no longer fits is not shown. */
  declare pictureKey: string;
  declare data: Buffer;
  declare createdAt: CreationOptional<Date>;
}

/** What only this server, and others on the same database, know. */
export class SecretRow extends Model<InferAttributes<SecretRow>, InferCreationAttributes<SecretRow>> {
  declare name: string;
  declare value: string;
}

/** A page that is open at one of several servers, so that the others can tell of it. */
export class OpenPageRow extends Model<InferAttributes<OpenPageRow>, InferCreationAttributes<OpenPageRow>> {
  declare server: string;
  declare tab: number;
  declare designId: string;
  declare author: string;
  declare name: string | null;
  declare part: string | null;
  declare step: string | null;
  declare seenAt: Date;
}

const DOCUMENT = DataTypes.TEXT('long');

export function defineModels(sequelize: Sequelize): void {
  const id = { type: DataTypes.STRING(40), primaryKey: true };
  const date = DataTypes.DATE(3);
  ProjectRow.init(
    {
      id,
      name: DataTypes.STRING(80),
      shared: DOCUMENT,
      sharedRevision: DataTypes.INTEGER,
      deletedAt: date,
      createdAt: date,
      updatedAt: date,
    },
    { sequelize, tableName: 'projects' },
  );
  DesignRow.init(
    {
      id,
      projectId: DataTypes.STRING(40),
      name: DataTypes.STRING(80),
      revision: DataTypes.INTEGER,
      newest: DataTypes.STRING(40),
      document: DOCUMENT,
      documentRevision: DataTypes.INTEGER,
      firstPart: DataTypes.STRING(40),
      deletedAt: date,
      createdAt: date,
      updatedAt: date,
    },
    { sequelize, tableName: 'designs' },
  );
  PictureRow.init(
    {
      designId: { type: DataTypes.STRING(40), primaryKey: true },
      part: { type: DataTypes.STRING(40), primaryKey: true },
      pictureKey: DataTypes.STRING(40),
      data: DataTypes.BLOB('long'),
      createdAt: date,
    },
    { sequelize, tableName: 'pictures', updatedAt: false },
  );
  IssuedRow.init(
    {
      designId: { type: DataTypes.STRING(40), primaryKey: true },
      sheet: { type: DataTypes.STRING(40), primaryKey: true },
      letter: { type: DataTypes.STRING(2), primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      bytes: DataTypes.INTEGER,
      data: DataTypes.BLOB('long'),
      createdAt: date,
    },
    { sequelize, tableName: 'issued_sheets', updatedAt: false },
  );
  OpenPageRow.init(
    {
      server: { type: DataTypes.STRING(40), primaryKey: true },
      tab: { type: DataTypes.INTEGER, primaryKey: true },
      designId: DataTypes.STRING(40),
      author: DataTypes.STRING(40),
      name: DataTypes.STRING(80),
      part: DataTypes.STRING(40),
      step: DataTypes.STRING(40),
      seenAt: date,
    },
    { sequelize, tableName: 'open_pages', timestamps: false },
  );
  SecretRow.init(
    { name: { type: DataTypes.STRING(40), primaryKey: true }, value: DataTypes.STRING(200) },
    { sequelize, tableName: 'secrets', timestamps: false },
  );
  ChangeRow.init(
    {
      designId: { type: DataTypes.STRING(40), primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      changeId: DataTypes.STRING(40),
      kind: DataTypes.STRING(8),
      target: DataTypes.STRING(40),
      command: DataTypes.STRING(60),
      args: DOCUMENT,
      label: DataTypes.STRING(300),
      author: DataTypes.STRING(40),
      digest: DataTypes.STRING(64),
      named: DataTypes.STRING(80),
      touches: DOCUMENT,
      inverse: DOCUMENT,
      createdAt: date,
    },
    { sequelize, tableName: 'changes', updatedAt: false },
  );
}
