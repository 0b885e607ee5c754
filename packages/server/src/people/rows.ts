/** What is kept of people, and of what they may do. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize'; // prettier-ignore

/** What a person may do in a project; each may all that stands before it. */
export const ROLES = ['reads', 'edits', 'owns'] as const;
export type Role = (typeof ROLES)[number];

export const mayAs = (role: Role, needed: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(needed);

/** Of one who left only the id stays, so that their changes still have one author. */
export class PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  declare id: string;
  /** Of electronic mail, in small letters; how they are known when they sign in. */
  declare address: CreationOptional<string | null>;
  declare name: CreationOptional<string | null>;
  /** As a hash. */
  declare password: CreationOptional<string | null>;
  /** Sees who has an account here, and may end it. */
  declare keeper: CreationOptional<boolean>;
  declare leftAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

/** A browser that is signed in. */
export class SignInRow extends Model<InferAttributes<SignInRow>, InferCreationAttributes<SignInRow>> {
  /** Hash of what the browser holds. */
  declare id: string;
  declare personId: string;
  /** Of what it held before, which counts for a little while: requests may be under way. */
  declare before: CreationOptional<string | null>;
  declare turnedAt: Date;
  declare seenAt: Date;
  declare createdAt: CreationOptional<Date>;
}

export class MemberRow extends Model<InferAttributes<MemberRow>, InferCreationAttributes<MemberRow>> {
  declare projectId: string;
  declare personId: string;
  declare role: Role;
  declare createdAt: CreationOptional<Date>;
}

export type LinkKind = 'keeper' | 'invitation' | 'password';

/** A link that is used once: it is gone with its use. */
export class LinkRow extends Model<InferAttributes<LinkRow>, InferCreationAttributes<LinkRow>> {
  /** Hash of what stands in the link. */
  declare id: string;
  declare kind: LinkKind;
  declare address: CreationOptional<string | null>;
  declare personId: CreationOptional<string | null>;
  declare projectId: CreationOptional<string | null>;
  declare role: CreationOptional<Role | null>;
  declare endsAt: Date;
  declare createdAt: CreationOptional<Date>;
}

/** A link under which anyone may look at a design until it ends. */
export class ShareRow extends Model<InferAttributes<ShareRow>, InferCreationAttributes<ShareRow>> {
  /** Hash of what stands in the link. */
  declare id: string;
  declare designId: string;
  declare madeBy: CreationOptional<string | null>;
  declare endsAt: Date;
  declare createdAt: CreationOptional<Date>;
}

/** What was tried and done that decides who may do what. */
export class AuditRow extends Model<InferAttributes<AuditRow>, InferCreationAttributes<AuditRow>> {
  declare id: CreationOptional<number>;
  declare what: string;
  declare outcome: 'tried' | 'right' | 'wrong' | 'limited' | 'done';
  declare address: CreationOptional<string | null>;
  declare personId: CreationOptional<string | null>;
  declare about: CreationOptional<string | null>;
  declare ip: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

export function definePeople(sequelize: Sequelize): void {
  const text = (length: number) => DataTypes.STRING(length);
  const id = (length: number) => ({ type: text(length), primaryKey: true });
  const date = DataTypes.DATE(3);
  const as = (tableName: string) => ({ sequelize, tableName, updatedAt: false as const });
  PersonRow.init(
    { id: id(40), address: text(200), name: text(80), password: text(200), keeper: { type: DataTypes.BOOLEAN, defaultValue: false }, leftAt: date, createdAt: date }, // prettier-ignore
    as('people'),
  );
  SignInRow.init(
    { id: id(64), personId: text(40), before: text(64), turnedAt: date, seenAt: date, createdAt: date },
    as('sign_ins'),
  );
  MemberRow.init({ projectId: id(40), personId: id(40), role: text(8), createdAt: date }, as('members'));
  LinkRow.init(
    { id: id(64), kind: text(12), address: text(200), personId: text(40), projectId: text(40), role: text(8), endsAt: date, createdAt: date }, // prettier-ignore
    as('one_time_links'),
  );
  ShareRow.init({ id: id(64), designId: text(40), madeBy: text(40), endsAt: date, createdAt: date }, as('shares'));
  AuditRow.init(
    { id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true }, what: text(20), outcome: text(8), address: text(200), personId: text(40), about: text(200), ip: text(60), createdAt: date }, // prettier-ignore
    as('audit'),
  );
}
