/** Signing in and out, one's own account, and links by which one comes to have one. */
import type { RouterContext } from '@koa/router';
import { randomUUID } from 'node:crypto';
import { UniqueConstraintError, type Sequelize } from 'sequelize';
import { z } from 'zod';
import { cookieOptions } from '../access/access.ts';
import type { Guarded } from '../access/guarded.ts';
import { jsonOf } from '../body.ts';
import { ProjectRow } from '../database/models.ts';
import { Refusal } from '../refusal.ts';
import { audited, tried, type Attempt } from './audit.ts';
import { leave, projectsOwnedAlone } from './leaving.ts';
import { linkOf, makeLink, pageOf, takeLink } from './links.ts';
import { forgetName } from './names.ts';
import type { Outbox } from './outbox.ts';
import { hashPassword, isPassword, Password, PASSWORD_RULE } from './passwords.ts';
import { mayAs, MemberRow, PersonRow, type AuditRow, type LinkRow } from './rows.ts';
import { beginSignIn, endSignIn, endSignIns, SIGN_IN_COOKIE, type Person } from './sign-ins.ts';

export const Address = z
  .string()
  .transform((s) => s.normalize('NFKC').trim().toLowerCase())
  .pipe(z.email().max(200));
const Name = z.string().trim().min(1).max(80);
const NAME_RULE = 'A name has 1 to 80 characters.';
const AnyPassword = z.string().max(1000);
const Token = z.string().max(100);
const SignIn = z.strictObject({ address: z.string().max(1000), password: AnyPassword });
const UseLink = z.strictObject({
  token: Token,
  address: Address.optional(),
  name: Name.optional(),
  password: Password.optional(),
});
const LINK_OVER = 'This link was used already, or its time is over; ask for another.';

export interface Post {
  readonly outbox: Outbox;
  /** Where pages of this server are reached. */
  readonly home: () => string;
}

export function accountRoutes(routes: Guarded, sequelize: Sequelize, { outbox, home }: Post): void {
  const { access } = routes;

  async function counted(ctx: RouterContext, attempt: Omit<Attempt, 'ip'>): Promise<AuditRow> {
    const counted = await tried({ ...attempt, ip: ctx.ip.slice(0, 60) });
    if ('row' in counted) return counted.row;
    ctx.set('Retry-After', String(counted.waitS));
    throw new Refusal(429, 'Too many attempts; wait a quarter of an hour.');
  }

  async function signIn(ctx: RouterContext, person: PersonRow): Promise<void> {
    ctx.cookies.set(SIGN_IN_COOKIE, await beginSignIn(person.id), cookieOptions(access.secure));
    ctx.body = { id: person.id, name: person.name };
  }

  routes.get('/me', 'anyone', (ctx, { person }) => {
    const { id, name, address, keeper } = person ?? {};
    ctx.body = { accounts: access.accounts, person: person && { id, name, address, keeper } };
  });
  if (!access.accounts) return;

  routes.post('/sign-in', 'anyone', async (ctx, asker) => {
    const { address: given, password } = await jsonOf(ctx, SignIn, 'Give an address and a password.');
    const address = Address.safeParse(given).data ?? null;
    const attempt = await counted(ctx, { what: 'sign-in', address: address ?? given.slice(0, 200) });
    const person = address && (await PersonRow.findOne({ where: { address } }));
    const right = await isPassword((person && person.password) || null, password);
    await attempt.update({ outcome: right ? 'right' : 'wrong', personId: right ? (person as PersonRow).id : null });
    if (!right) throw new Refusal(401, 'Address and password do not belong together; look at both.');
    // What this browser held of another sign-in serves no longer.
    if (asker.person) await endSignIn(asker.person.signIn);
    await signIn(ctx, person as PersonRow);
  });

  routes.post('/sign-out', 'anyone', async (ctx, { person }) => {
    if (person) await endSignIn(person.signIn);
    ctx.cookies.set(SIGN_IN_COOKIE, null);
    ctx.status = 204;
  });

  routes.post('/forgot', 'anyone', async (ctx) => {
    const { address } = await jsonOf(ctx, z.strictObject({ address: Address }), 'This is not an address of mail.');
    const attempt = await counted(ctx, { what: 'forgot', address });
    ctx.status = 204;
    // After the answer, so that its time does not tell whether the address is known.
    setImmediate(() => void sendNewPassword(address, attempt).catch(() => {}));
  });

  async function sendNewPassword(address: string, attempt: AuditRow): Promise<void> {
    const person = await PersonRow.findOne({ where: { address } });
    await attempt.update({ outcome: 'done', personId: person?.id ?? null });
    if (!person) return;
    const link = pageOf(home(), 'new-password', await makeLink({ kind: 'password', personId: person.id }));
    outbox.send({ to: address, subject: 'A new password for Helb', text: `Under this link you set a new password within an hour; it works once:\n\n${link}\n\nIf you did not ask for it, nothing needs to be done.` }); // prettier-ignore
  }

  /** What a link is for. Its holder is who the letter was sent to. */
  routes.post('/links/read', 'anyone', async (ctx) => {
    const { token } = await jsonOf(ctx, z.strictObject({ token: Token }), LINK_OVER);
    const attempt = await counted(ctx, { what: 'link', address: null });
    const link = await linkOf(token);
    await attempt.update({ outcome: link ? 'right' : 'wrong' });
    if (!link) throw new Refusal(404, LINK_OVER);
    const project = link.projectId && (await ProjectRow.findByPk(link.projectId));
    ctx.body = {
      kind: link.kind,
      address: link.address,
      project: project ? project.name : null,
      role: link.role,
      hasAccount: link.address !== null && (await PersonRow.count({ where: { address: link.address } })) > 0,
    };
  });

  routes.post('/links/use', 'anyone', async (ctx, { person }) => {
    const given = await jsonOf(ctx, UseLink, `${NAME_RULE} ${PASSWORD_RULE}`);
    const attempt = await counted(ctx, { what: 'link', address: null });
    const link = await linkOf(given.token);
    await attempt.update({ outcome: link ? 'right' : 'wrong' });
    if (!link) throw new Refusal(404, LINK_OVER);
    await (link.kind === 'password' ? setPassword(ctx, link, given.password) : welcome(ctx, link, given, person));
  });

  async function setPassword(ctx: RouterContext, link: LinkRow, password: string | undefined): Promise<void> {
    if (!password) throw new Refusal(422, PASSWORD_RULE);
    const row = await PersonRow.findByPk(link.personId!);
    const hashed = await hashPassword(password);
    if (!row || row.leftAt || !(await takeLink(link))) throw new Refusal(404, LINK_OVER);
    await row.update({ password: hashed });
    await endSignIns(row.id);
    await audited('password', row.id, 'set by a link');
    await signIn(ctx, row);
  }

  async function welcome(
    ctx: RouterContext,
    link: LinkRow,
    given: z.infer<typeof UseLink>,
    asking: Person | null,
  ): Promise<void> {
    const address = link.address ?? given.address;
    if (!address) throw new Refusal(422, 'Give the address of mail you will sign in with.');
    const there = await PersonRow.findOne({ where: { address } });
    if (there && asking?.id !== there.id) throw new Refusal(401, `${address} has an account already; sign in with it, then open the link again.`); // prettier-ignore
    if (asking && !there) throw new Refusal(409, `This link is for ${address}; sign out first.`);
    if (!there && (!given.name || !given.password)) throw new Refusal(422, `${NAME_RULE} ${PASSWORD_RULE}`);
    const made = there ? null : { id: randomUUID(), address, name: given.name!, password: await hashPassword(given.password!), keeper: link.kind === 'keeper' }; // prettier-ignore
    if (!(await takeLink(link))) throw new Refusal(404, LINK_OVER);
    let row: PersonRow;
    try {
      row = there ?? (await PersonRow.create(made!));
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new Refusal(409, `${address} has an account already; sign in with it.`); // prettier-ignore
      throw error;
    }
    if (link.kind === 'keeper') {
      await row.update({ keeper: true });
      await takeOverOrphans(sequelize, row.id);
    } else if (link.projectId && link.role) {
      const member = await MemberRow.findOne({ where: { projectId: link.projectId, personId: row.id } });
      if (!member) await MemberRow.create({ projectId: link.projectId, personId: row.id, role: link.role });
      else if (mayAs(link.role, member.role)) await member.update({ role: link.role });
    }
    await audited(link.kind === 'keeper' ? 'keeper' : 'joined', row.id, link.role ? `${link.role} ${link.projectId}` : ''); // prettier-ignore
    if (asking) ctx.body = { id: row.id, name: row.name };
    else await signIn(ctx, row);
    (ctx.body as { project?: string | null }).project = link.projectId;
  }

  routes.patch('/me', 'signed in', async (ctx, { person }) => {
    const { name } = await jsonOf(ctx, z.strictObject({ name: Name }), NAME_RULE);
    await PersonRow.update({ name }, { where: { id: person!.id } });
    forgetName(person!.id);
    ctx.status = 204;
  });

  /** The present password stands for the person, where a browser left open does not. */
  async function confirmed(ctx: RouterContext, person: Person, password: string): Promise<void> {
    const attempt = await counted(ctx, { what: 'password', address: person.address });
    const row = await PersonRow.findByPk(person.id);
    const right = await isPassword(row?.password ?? null, password);
    await attempt.update({ outcome: right ? 'right' : 'wrong', personId: person.id });
    if (!right) throw new Refusal(403, 'This is not your present password.');
  }

  routes.put('/me/password', 'signed in', async (ctx, { person }) => {
    const body = z.strictObject({ present: AnyPassword, password: Password });
    const { present, password } = await jsonOf(ctx, body, PASSWORD_RULE);
    await confirmed(ctx, person!, present);
    await PersonRow.update({ password: await hashPassword(password) }, { where: { id: person!.id } });
    await endSignIns(person!.id, person!.signIn);
    await audited('password', person!.id, 'changed');
    ctx.status = 204;
  });

  routes.post('/me/sign-out-elsewhere', 'signed in', async (ctx, { person }) => {
    await endSignIns(person!.id, person!.signIn);
    ctx.status = 204;
  });

  /** Leave for good. What one made stays, under nobody's name. */
  routes.post('/me/leave', 'signed in', async (ctx, { person }) => {
    const { present } = await jsonOf(ctx, z.strictObject({ present: AnyPassword }), 'Give your present password.');
    await confirmed(ctx, person!, present);
    const alone = await projectsOwnedAlone(person!.id);
    if (alone.length > 0) throw new Refusal(409, `${alone.map((p) => p.name).join(', ')}: you alone own this; make someone else an owner, or delete it, first.`); // prettier-ignore
    await leave(sequelize, person!.id, null);
    ctx.cookies.set(SIGN_IN_COOKIE, null);
    ctx.status = 204;
  });
}

/** Projects made before there were accounts, or left by all, go to who keeps the server. */
async function takeOverOrphans(sequelize: Sequelize, keeper: string): Promise<void> {
  await sequelize.query(
    `INSERT INTO members (projectId, personId, role, createdAt)
     SELECT p.id, ?, 'owns', NOW(3) FROM projects p
     WHERE NOT EXISTS (SELECT 1 FROM members m WHERE m.projectId = p.id AND m.role = 'owns')
     ON DUPLICATE KEY UPDATE role = 'owns'`,
    { replacements: [keeper] },
  );
}
