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
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class DesignRow extends Model<InferAttributes<DesignRow>, InferCreationAttributes<DesignRow>> {
  declare id: string;
  declare projectId: string;
  declare name: string;
  /** Number of changes made; the document is the state after them. */
  declare revision: number;
  declare document: string;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** The log: one row a change, altered only when a new version of the design's format writes it anew. */
export class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare designId: string;
  declare revision: number;
  declare changeId: string;
  declare kind: 'edit' | 'undo' | 'redo' | 'follow';
  /** The change an undo or redo concerns. */
  declare target: string | null;
  declare command: string;
  /** What the command was given, as JSON, where it can be run again. */
  declare args: string | null;
  declare label: string;
  declare patches: string;
  declare inverse: string;
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
      document: DOCUMENT,
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
      patches: DOCUMENT,
      inverse: DOCUMENT,
      createdAt: date,
    },
    { sequelize, tableName: 'changes', updatedAt: false },
  );
}
