/** Who may do what in a project, and who may look at a design by a link. */
import { Op, type Sequelize } from 'sequelize';
import { z } from 'zod';
import { cookieOptions, MOST_SHARES, SHARES_COOKIE } from '../access/access.ts';
import type { Guarded } from '../access/guarded.ts';
import { cookieIn, hashOf, newToken } from '../access/tokens.ts';
import { jsonOf } from '../body.ts';
import { rowOf } from '../designs/log-rows.ts';
import { foundProject } from '../projects/routes.ts';
import { Refusal } from '../refusal.ts';
import { Address, type Post } from './account-routes.ts';
import { audited } from './audit.ts';
import { leave } from './leaving.ts';
import { makeLink, pageOf } from './links.ts';
import { AuditRow, LinkRow, MemberRow, PersonRow, ROLES, ShareRow, SignInRow } from './rows.ts';

const RoleOf = z.enum(ROLES);
const DAY_MS = 24 * 3600 * 1000;
const LONGEST_SHARE_DAYS = 365;
const SAID = { reads: 'look at', edits: 'work on', owns: 'own' } as const;
const AUDIT_PAGE = 200;

export function memberRoutes(
  routes: Guarded,
  sequelize: Sequelize,
  { outbox, home }: Post,
  lostAccess: () => void,
): void {
  if (!routes.access.accounts) return;

  routes.get('/projects/:project/people', 'reads project', async (ctx, { person }) => {
    const { id } = await foundProject(ctx.params.project!);
    const members = await MemberRow.findAll({ where: { projectId: id }, order: ['createdAt'] });
    const people = new Map((await PersonRow.findAll({ where: { id: members.map((m) => m.personId) } })).map((p) => [p.id, p])); // prettier-ignore
    const own = members.find((m) => m.personId === person?.id)?.role === 'owns';
    const invited = own
      ? await LinkRow.findAll({ where: { projectId: id, kind: 'invitation', endsAt: { [Op.gt]: new Date() } }, order: ['createdAt'] }) // prettier-ignore
      : [];
    ctx.body = {
      people: members.map((m) => ({
        id: m.personId,
        name: people.get(m.personId)?.name ?? '',
        // Mail addresses are for those who invite.
        address: own ? (people.get(m.personId)?.address ?? null) : null,
        role: m.role,
      })),
      invited: invited.map(({ id, address, role, endsAt }) => ({ id, address, role, ends: endsAt })),
    };
  });

  /** The same answer whether the address has an account or not. */
  routes.post('/projects/:project/invitations', 'owns project', async (ctx, { person }) => {
    const form = z.strictObject({ address: Address, role: RoleOf });
    const { address, role } = await jsonOf(ctx, form, 'An invitation needs an address of mail and what they may do.');
    const project = await foundProject(ctx.params.project!);
    await LinkRow.destroy({ where: { kind: 'invitation', projectId: project.id, address } });
    const link = pageOf(
      home(),
      'welcome',
      await makeLink({ kind: 'invitation', address, projectId: project.id, role }),
    );
    outbox.send({ to: address, subject: `${project.name} in Helb`, text: `${person!.name} invites you to ${SAID[role]} “${project.name}” in Helb. Under this link you accept, within two weeks; it works once:\n\n${link}` }); // prettier-ignore
    await audited('invited', person!.id, `${role} ${project.id}`);
    ctx.status = 204;
  });

  routes.delete('/projects/:project/invitations/:invitation', 'owns project', async (ctx) => {
    const { project, invitation } = ctx.params as Record<string, string>;
    await LinkRow.destroy({ where: { id: invitation!, projectId: project!, kind: 'invitation' } });
    ctx.status = 204;
  });

  /** Another role, or with null none; a project keeps an owner. */
  async function setRole(
    projectId: string,
    personId: string,
    role: (typeof ROLES)[number] | null,
    by: string,
  ): Promise<void> {
    await sequelize.transaction(async (transaction) => {
      const members = await MemberRow.findAll({ where: { projectId }, transaction, lock: transaction.LOCK.UPDATE });
      const member = members.find((m) => m.personId === personId);
      if (!member) throw new Refusal(404, 'They are not in this project any more.');
      if (role !== 'owns' && members.every((m) => m === member || m.role !== 'owns'))
        throw new Refusal(409, 'A project needs an owner; make someone else one first.');
      if (role) await member.update({ role }, { transaction });
      else await member.destroy({ transaction });
    });
    await audited('role', by, `${role ?? 'none'} ${personId} ${projectId}`);
    lostAccess();
  }

  routes.put('/projects/:project/people/:person', 'owns project', async (ctx, { person }) => {
    const { role } = await jsonOf(ctx, z.strictObject({ role: RoleOf }), 'Say what they may do.');
    await setRole(ctx.params.project!, ctx.params.person!, role, person!.id);
    ctx.status = 204;
  });

  routes.delete('/projects/:project/people/:person', 'owns project', async (ctx, { person }) => {
    await setRole(ctx.params.project!, ctx.params.person!, null, person!.id);
    ctx.status = 204;
  });

  routes.post('/projects/:project/leave', 'reads project', async (ctx, { person }) => {
    await setRole(ctx.params.project!, person!.id, null, person!.id);
    ctx.status = 204;
  });

  routes.get('/designs/:design/shares', 'owns design', async (ctx) => {
    const { id } = await rowOf(ctx.params.design!);
    const rows = await ShareRow.findAll({ where: { designId: id, endsAt: { [Op.gt]: new Date() } }, order: ['createdAt'] }); // prettier-ignore
    ctx.body = rows.map((r) => ({ id: r.id, made: r.createdAt, ends: r.endsAt }));
  });

  /** The link is shown this once: only its hash is kept. */
  routes.post('/designs/:design/shares', 'owns design', async (ctx, { person }) => {
    const form = z.strictObject({ days: z.number().int().min(1).max(LONGEST_SHARE_DAYS) });
    const { days } = await jsonOf(ctx, form, `A link to look at a design ends after 1 to ${LONGEST_SHARE_DAYS} days.`);
    const { id } = await rowOf(ctx.params.design!);
    const token = newToken();
    await ShareRow.create({ id: hashOf(token), designId: id, madeBy: person!.id, endsAt: new Date(Date.now() + days * DAY_MS) }); // prettier-ignore
    await audited('shared', person!.id, id);
    ctx.status = 201;
    ctx.body = { link: pageOf(home(), 'shared', token) };
  });

  routes.delete('/designs/:design/shares/:share', 'owns design', async (ctx, { person }) => {
    const { design, share } = ctx.params as Record<string, string>;
    await ShareRow.destroy({ where: { id: share!, designId: design! } });
    await audited('unshared', person!.id, design!);
    lostAccess();
    ctx.status = 204;
  });

  /** Come by a link: from now on this browser may look at its design. */
  routes.post('/shares/open', 'anyone', async (ctx) => {
    const over = 'This link has ended; ask whoever sent it for another.';
    const { token } = await jsonOf(ctx, z.strictObject({ token: z.string().regex(/^[\w-]{20,100}$/) }), over);
    const row = await ShareRow.findOne({ where: { id: hashOf(token), endsAt: { [Op.gt]: new Date() } } });
    if (!row) throw new Refusal(404, over);
    const before = (cookieIn(ctx.headers.cookie, SHARES_COOKIE) ?? '').split('.').filter((t) => t && t !== token);
    ctx.cookies.set(SHARES_COOKIE, [token, ...before].slice(0, MOST_SHARES).join('.'), cookieOptions(routes.access.secure)); // prettier-ignore
    ctx.body = { design: row.designId };
  });

  routes.get('/people', 'keeper', async (ctx) => {
    const people = await PersonRow.findAll({ where: { leftAt: null }, order: ['createdAt'] });
    const signIns = await SignInRow.findAll({ attributes: ['personId', 'seenAt'] });
    const seen = new Map<string, Date>();
    for (const { personId, seenAt } of signIns) if (!(seen.get(personId)! > seenAt)) seen.set(personId, seenAt);
    ctx.body = people.map(({ id, name, address, keeper }) => ({ id, name, address, keeper, seen: seen.get(id) ?? null })); // prettier-ignore
  });

  routes.get('/people/audit', 'keeper', async (ctx) => {
    const rows = await AuditRow.findAll({ order: [['id', 'DESC']], limit: AUDIT_PAGE });
    ctx.body = rows.map((r) => ({ what: r.what, outcome: r.outcome, address: r.address, person: r.personId, about: r.about, ip: r.ip, at: r.createdAt })); // prettier-ignore
  });

  routes.delete('/people/:person', 'keeper', async (ctx, { person }) => {
    if (ctx.params.person === person!.id) throw new Refusal(409, 'To end your own account, leave in “My account”.');
    await leave(sequelize, ctx.params.person!, person!.id);
    lostAccess();
    ctx.status = 204;
  });
}
