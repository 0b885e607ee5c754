import { beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { purgeDeleted } from '../designs/purge.ts';
import { served } from '../served.ts';
import { keeperLink, makeLink } from './links.ts';
import { newcomers, PASSWORD } from './newcomers.ts';
import { AuditRow, LinkRow, PersonRow, ShareRow, SignInRow } from './rows.ts';
import { findSignIn } from './sign-ins.ts';

const s = served(true);
const people = newcomers(s);
type Browser = ReturnType<typeof s.browser>;
let keeper: Browser;
let early: string;

const signIn = (address: string, password: string, as = s.browser()) =>
  as.post('/api/sign-in').send({ address, password });
const me = async (browser: Browser) => (await browser.get('/api/me').expect(200)).body.person as { id: string; name: string } | null; // prettier-ignore

beforeAll(async () => {
  // A project of the time before there were accounts.
  early = '11111111-2222-3333-4444-555555555555';
  await s.sequelize.query(`INSERT INTO projects (id, name, sharedRevision, createdAt, updatedAt) VALUES ('${early}', 'Early', 0, NOW(), NOW())`); // prettier-ignore
  keeper = await people.keeper();
});

describe('the first who comes', () => {
  test('keeps the server, has what was there before, and is the only one by this way', async () => {
    expect(await me(keeper)).toMatchObject({ name: 'Person keeper', keeper: true });
    expect((await keeper.get('/api/projects').expect(200)).body).toMatchObject([{ id: early, role: 'owns' }]);
    expect(await keeperLink()).toBeNull();
  });

  test('of two who use one link at once, one is let in', async () => {
    const token = await makeLink({ kind: 'invitation', address: 'twice@works.example', projectId: early, role: 'reads' }); // prettier-ignore
    const both = await Promise.all([1, 2].map(() => s.browser().post('/api/links/use').send({ token, name: 'Twice', password: PASSWORD }))); // prettier-ignore
    expect(both.filter((a) => a.status === 200)).toHaveLength(1);
    expect(await PersonRow.count({ where: { address: 'twice@works.example' } })).toBe(1);
  });
});

describe('signing in', () => {
  test('by address, however it is written, and password', async () => {
    const browser = s.browser();
    const answer = await signIn('  KEEPER@works.example ', PASSWORD, browser).expect(200);
    expect(answer.headers['set-cookie']!.toString()).toMatch(/helb_signed_in=[\w-]{43};.*samesite=lax; httponly/i);
    expect(await me(browser)).toMatchObject({ name: 'Person keeper' });
    await browser.post('/api/sign-out').expect(204);
    expect(await me(browser)).toBeNull();
    await browser.get('/api/projects').expect(401);
  });

  test('says the same of a wrong password and of an address nobody has; passwords are kept as argon2id', async () => {
    const answers = [await signIn('keeper@works.example', 'not this one'), await signIn('nobody@works.example', PASSWORD), await signIn('no address', PASSWORD)]; // prettier-ignore
    expect(new Set(answers.map((a) => `${a.status} ${a.body.message}`))).toEqual(new Set(['401 Address and password do not belong together; look at both.'])); // prettier-ignore
    const row = await PersonRow.findOne({ where: { address: 'keeper@works.example' } });
    expect(row!.password).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  test('is refused after many wrong attempts at once, known or not; each is in the records', async () => {
    for (const address of ['keeper2@works.example', 'keeper@works.example']) {
      await AuditRow.destroy({ where: { address } });
      const answers = await Promise.all(Array.from({ length: 14 }, () => signIn(address, 'guess')));
      const [wrong, limited] = [401, 429].map((status) => answers.filter((a) => a.status === status));
      expect([wrong!.length, limited!.length]).toEqual([8, 6]);
      expect(Number(limited![0]!.headers['retry-after'])).toBeGreaterThan(0);
      expect((await signIn(address, PASSWORD)).status).toBe(429);
      expect(await AuditRow.count({ where: { address, outcome: 'limited' } })).toBe(7);
    }
    await AuditRow.destroy({ where: {} });
  });

  test('is held by something that is turned now and then; a copy of the old one serves no longer', async () => {
    const browser = s.browser();
    await signIn('keeper@works.example', PASSWORD, browser).expect(200);
    const token = /helb_signed_in=([\w-]+)/.exec(people.cookies(browser))![1]!;
    const later = Date.now() + 13 * 3600 * 1000;
    const { turned } = (await findSignIn(token, true, later))!;
    expect(turned).toMatch(/^[\w-]{43}$/);
    // Requests under way still carry the old one; a minute later nobody may.
    expect(await findSignIn(token, true, later + 30_000)).toMatchObject({ person: { name: 'Person keeper' } });
    expect(await findSignIn(token, true, later + 90_000)).toBeNull();
    expect(await findSignIn(turned, true, later + 90_000)).toMatchObject({ person: { name: 'Person keeper' } });
    expect(await findSignIn(turned, true, later + 31 * 24 * 3600 * 1000)).toBeNull();
    expect(await SignInRow.count({ where: { id: turned! } })).toBe(0);
  });
});

describe('a lost password', () => {
  test('is set anew by a letter, which signs out every browser; the answer does not tell who is known', async () => {
    const person = await people.account('lost@works.example');
    const before = readdirSync(s.outbox).length;
    for (const address of ['lost@works.example', 'never@works.example']) await s.browser().post('/api/forgot').send({ address }).expect(204); // prettier-ignore
    for (let i = 0; i < 100 && readdirSync(s.outbox).length === before; i++) await new Promise((done) => setTimeout(done, 20)); // prettier-ignore
    expect(readdirSync(s.outbox)).toHaveLength(before + 1);
    const token = people.letterTo('lost@works.example');
    expect((await s.browser().post('/api/links/read').send({ token }).expect(200)).body).toMatchObject({ kind: 'password' }); // prettier-ignore
    await s.browser().post('/api/links/use').send({ token, password: 'short' }).expect(422);
    const fresh = s.browser();
    await fresh.post('/api/links/use').send({ token, password: 'another one, longer' }).expect(200);
    expect([await me(person), (await me(fresh))?.name]).toEqual([null, 'Person lost']);
    await s.browser().post('/api/links/use').send({ token, password: 'a third one, longer' }).expect(404);
    expect((await signIn('lost@works.example', PASSWORD)).status).toBe(401);
    expect((await signIn('lost@works.example', 'another one, longer')).status).toBe(200);
  });
});

describe('one’s own account', () => {
  test('name and password change; other browsers are signed out with the password', async () => {
    const here = await people.account('change@works.example');
    const there = s.browser();
    await signIn('change@works.example', PASSWORD, there).expect(200);
    await here.patch('/api/me').send({ name: '  Ada  ' }).expect(204);
    expect((await me(there))?.name).toBe('Ada');
    await here.put('/api/me/password').send({ present: 'wrong', password: 'a new one, longer' }).expect(403);
    await here.put('/api/me/password').send({ present: PASSWORD, password: 'a new one, longer' }).expect(204);
    expect([(await me(here))?.name, await me(there)]).toEqual(['Ada', null]);
  });

  test('who leaves takes nothing along; who alone owns a project hands it over first', async () => {
    const own = await people.account('leaves@works.example');
    const { id: person } = (await me(own))!;
    const project = (await own.post('/api/projects').send({ name: 'Lathe' }).expect(201)).body.id as string;
    const heir = await people.invited(own, project, 'heir@works.example', 'reads');
    const refused = await own.post('/api/me/leave').send({ present: PASSWORD });
    expect([refused.status, refused.body.message]).toEqual([409, 'Lathe: you alone own this; make someone else an owner, or delete it, first.']); // prettier-ignore
    const { id: next } = (await me(heir))!;
    await own.put(`/api/projects/${project}/people/${next}`).send({ role: 'owns' }).expect(204);
    await own.post('/api/me/leave').send({ present: PASSWORD }).expect(204);
    expect(await PersonRow.findByPk(person)).toMatchObject({ name: null, address: null, password: null });
    expect((await signIn('leaves@works.example', PASSWORD)).status).toBe(401);
    const left = await heir.delete(`/api/projects/${project}/people/${next}`);
    expect([left.status, left.body.message]).toEqual([409, 'A project needs an owner; make someone else one first.']);
    expect((await keeper.post('/api/me/leave').send({ present: PASSWORD })).status).toBe(409);
  });
});

describe('a project’s people', () => {
  test('see only their own projects; mail addresses are shown to owners; an invitation can be taken back', async () => {
    const owner = await people.account('owner@works.example');
    const project = (await owner.post('/api/projects').send({ name: 'Jig' }).expect(201)).body.id as string;
    const reader = await people.invited(owner, project, 'reader@works.example', 'reads');
    const names = async (b: Browser) => ((await b.get('/api/projects').expect(200)).body as { name: string }[]).map((p) => p.name); // prettier-ignore
    expect([await names(reader), (await names(keeper)).includes('Jig')]).toEqual([['Jig'], false]);
    const list = async (b: Browser) => (await b.get(`/api/projects/${project}/people`).expect(200)).body as { people: { address: string | null }[]; invited: { id: string; address: string }[] }; // prettier-ignore
    await owner.post(`/api/projects/${project}/invitations`).send({ address: 'late@works.example', role: 'edits' }).expect(204); // prettier-ignore
    const seen = await list(owner);
    expect(seen.people.map((p) => p.address)).toEqual(['owner@works.example', 'reader@works.example']);
    expect((await list(reader)).people.map((p) => p.address)).toEqual([null, null]);
    expect((await list(reader)).invited).toEqual([]);
    await owner.delete(`/api/projects/${project}/invitations/${seen.invited[0]!.id}`).expect(204);
    await s.browser().post('/api/links/use').send({ token: people.letterTo('late@works.example'), name: 'Late', password: PASSWORD }).expect(404); // prettier-ignore
  });

  test('who has an account accepts by being signed in, as nobody else', async () => {
    const owner = await people.account('asks@works.example');
    const project = (await owner.post('/api/projects').send({ name: 'Press' }).expect(201)).body.id as string;
    const asked = await people.account('asked@works.example');
    await owner.post(`/api/projects/${project}/invitations`).send({ address: 'asked@works.example', role: 'edits' }).expect(204); // prettier-ignore
    const token = people.letterTo('asked@works.example');
    const thief = await s.browser().post('/api/links/use').send({ token, name: 'Thief', password: PASSWORD });
    expect([thief.status, thief.body.message]).toEqual([401, expect.stringMatching(/has an account already; sign in with it/)]); // prettier-ignore
    await keeper.post('/api/links/use').send({ token }).expect(401);
    await asked.post('/api/links/use').send({ token }).expect(200);
    await asked.patch(`/api/projects/${project}`).send({ name: 'Press brake' }).expect(200);
    await asked.post(`/api/projects/${project}/leave`).expect(204);
    await asked.get(`/api/projects/${project}/designs`).expect(404);
  });

  test('links end: invitations, and those by which one looks at a design', async () => {
    const owner = await people.account('ends@works.example');
    const project = (await owner.post('/api/projects').send({ name: 'Ends' }).expect(201)).body.id as string;
    const design = (await owner.post(`/api/projects/${project}/designs`).send({ name: 'D' }).expect(201)).body.id as string; // prettier-ignore
    const { link } = (await owner.post(`/api/designs/${design}/shares`).send({ days: 3 }).expect(201)).body as { link: string }; // prettier-ignore
    const visitor = s.browser();
    await visitor.get('/api/me');
    await visitor
      .post('/api/shares/open')
      .send({ token: link.split('#')[1] })
      .expect(200);
    await visitor.get(`/api/designs/${design}`).expect(200);
    await visitor.get(`/api/projects/${project}/designs`).expect(401);
    const past = new Date(Date.now() - 1000);
    await ShareRow.update({ endsAt: past }, { where: { designId: design } });
    await visitor.get(`/api/designs/${design}`).expect(401);
    await visitor
      .post('/api/shares/open')
      .send({ token: link.split('#')[1] })
      .expect(404);
    await owner.post(`/api/projects/${project}/invitations`).send({ address: 'slow@works.example', role: 'edits' }).expect(204); // prettier-ignore
    await LinkRow.update({ endsAt: past }, { where: { address: 'slow@works.example' } });
    await s
      .browser()
      .post('/api/links/read')
      .send({ token: people.letterTo('slow@works.example') })
      .expect(404);
    // What has ended is cleared away; who is signed in stays so.
    const left = async () => [await ShareRow.count({ where: { designId: design } }), await LinkRow.count({ where: { address: 'slow@works.example' } })]; // prettier-ignore
    expect(await left()).toEqual([1, 1]);
    await purgeDeleted();
    expect(await left()).toEqual([0, 0]);
    await owner.get('/api/projects').expect(200);
  });
});
