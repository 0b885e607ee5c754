/** Calls to the server. Failures are sentences. */
import type { Change, Design, LoggedChange, Shared, Touch } from '@helb/core';

/** The server answered and refused. */
export class ServerRefusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** The server could not be reached, or did not answer in time. */
export class ServerAway extends Error {
  constructor() {
    super('The server cannot be reached; your work is kept here and sent when it is back.');
  }
}

const TIMEOUT_MS = 15_000;
/** Large files are read for as long as the server gives them. */
const FILE_TIMEOUT_MS = 45_000;
/** Too slow, too early, too many: the same request may be taken later. */
const NOT_NOW: ReadonlySet<number> = new Set([408, 425, 429]);

async function call<T>(method: string, path: string, body?: unknown, timeout = TIMEOUT_MS): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body === undefined
        ? {}
        : {
            body: body instanceof Blob ? body : JSON.stringify(body),
            headers: { 'content-type': 'application/json' },
          }),
      signal: AbortSignal.timeout(timeout),
    });
  } catch {
    throw new ServerAway();
  }
  if (response.status === 204) return undefined as T;
  const data: unknown = await response.json().catch(() => null);
  if (response.ok && data !== null) return data as T;
  // A proxy's, a busy or a stopping server's answer is not a verdict on the request.
  if (response.status >= 500 || NOT_NOW.has(response.status)) throw new ServerAway();
  throw new ServerRefusal(
    response.status,
    (data as { message?: string } | null)?.message ?? 'The server refused this without saying why.',
  );
}

/** What one may do in a project; each may all that stands before it. */
export type Role = 'reads' | 'edits' | 'owns';

export interface OwnAccount {
  id: string;
  name: string;
  address: string;
  /** Sees who has an account on this server, and may end it. */
  keeper: boolean;
}

export interface LinkAbout {
  kind: 'keeper' | 'invitation' | 'password';
  address: string | null;
  project: string | null;
  role: Role | null;
  hasAccount: boolean;
}

export interface Member {
  id: string;
  name: string;
  /** Only owners are told. */
  address: string | null;
  role: Role;
}

export interface Invited {
  id: string;
  address: string;
  role: Role;
  ends: string;
}

export interface Share {
  id: string;
  made: string;
  ends: string;
}

export interface Everyone {
  id: string;
  name: string;
  address: string;
  keeper: boolean;
  seen: string | null;
}

export interface AuditEntry {
  what: string;
  outcome: string;
  address: string | null;
  person: string | null;
  about: string | null;
  ip: string | null;
  at: string;
}

export interface ProjectSummary {
  id: string;
  name: string;
  designs: number;
  changed: string;
  role: Role;
}

export interface DesignSummary {
  id: string;
  name: string;
  changed: string;
  /** The last picture of its first part; null while there is none. */
  picture: { part: string; key: string } | null;
}

export interface DeletedDesign {
  id: string;
  name: string;
  deleted: string;
}

/** A change of the log. */
export interface Listed extends LoggedChange {
  revision: number;
  /** Who made it; null of changes made before that was known. */
  author: string | null;
  /** Their name; null of a browser without an account. */
  by: string | null;
  /** When, as ISO 8601. */
  at: string;
  /** A name given to the state after it. */
  named: string | null;
}

/** With what it did. */
export interface Told extends Listed {
  touches: readonly Touch[];
}

export interface OpenedDesign {
  id: string;
  project: { id: string; name: string };
  revision: number;
  document: Design;
  /** Who this browser is, among the authors of the log. */
  you: string;
  /** With an account: who comes after them in this browser is another. */
  signedIn: boolean;
  role: Role;
  /** The newest changes, oldest first. */
  log: Listed[];
  /** There are earlier ones. */
  more: boolean;
}

export interface Acknowledged {
  revision: number;
  kept: Told | null;
  missed: Told[];
}

async function bytes(method: string, path: string, body?: Uint8Array): Promise<Uint8Array> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      body: (body as Uint8Array<ArrayBuffer>) ?? null,
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch {
    throw new ServerAway();
  }
  if (!response.ok) {
    const told = (await response.json().catch(() => null)) as { message?: string } | null;
    throw new ServerRefusal(response.status, told?.message ?? 'The server refused this.');
  }
  return new Uint8Array(await response.arrayBuffer());
}

/** Accounts, and who may do what. */
export const people = {
  me: () => call<{ accounts: boolean; person: OwnAccount | null }>('GET', '/me'),
  signIn: (address: string, password: string) => call<undefined>('POST', '/sign-in', { address, password }),
  signOut: () => call<undefined>('POST', '/sign-out'),
  forgot: (address: string) => call<undefined>('POST', '/forgot', { address }),
  readLink: (token: string) => call<LinkAbout>('POST', '/links/read', { token }),
  useLink: (token: string, given: { address?: string; name?: string; password?: string }) =>
    call<{ project?: string | null }>('POST', '/links/use', { token, ...given }),
  rename: (name: string) => call<undefined>('PATCH', '/me', { name }),
  changePassword: (present: string, password: string) => call<undefined>('PUT', '/me/password', { present, password }),
  signOutElsewhere: () => call<undefined>('POST', '/me/sign-out-elsewhere'),
  leave: (present: string) => call<undefined>('POST', '/me/leave', { present }),
  of: (project: string) => call<{ people: Member[]; invited: Invited[] }>('GET', `/projects/${project}/people`),
  invite: (project: string, address: string, role: Role) =>
    call<undefined>('POST', `/projects/${project}/invitations`, { address, role }),
  uninvite: (project: string, invitation: string) =>
    call<undefined>('DELETE', `/projects/${project}/invitations/${invitation}`),
  setRole: (project: string, person: string, role: Role) =>
    call<undefined>('PUT', `/projects/${project}/people/${person}`, { role }),
  remove: (project: string, person: string) => call<undefined>('DELETE', `/projects/${project}/people/${person}`),
  leaveProject: (project: string) => call<undefined>('POST', `/projects/${project}/leave`),
  shares: (design: string) => call<Share[]>('GET', `/designs/${design}/shares`),
  share: (design: string, days: number) => call<{ link: string }>('POST', `/designs/${design}/shares`, { days }),
  endShare: (design: string, share: string) => call<undefined>('DELETE', `/designs/${design}/shares/${share}`),
  openShare: (token: string) => call<{ design: string }>('POST', '/shares/open', { token }),
  everyone: () => call<Everyone[]>('GET', '/people'),
  audit: () => call<AuditEntry[]>('GET', '/people/audit'),
  endAccount: (person: string) => call<undefined>('DELETE', `/people/${person}`),
};

export const server = {
  projects: () => call<ProjectSummary[]>('GET', '/projects'),
  createProject: (name: string) => call<{ id: string }>('POST', '/projects', { name }),
  renameProject: (id: string, name: string) => call<undefined>('PATCH', `/projects/${id}`, { name }),
  deleteProject: (id: string) => call<undefined>('DELETE', `/projects/${id}`),
  sharedDimensions: (project: string) =>
    call<{ revision: number; shared: Shared }>('GET', `/projects/${project}/dimensions`),
  shareDimensions: (project: string, base: number, shared: Shared) =>
    call<{ revision: number; shared: Shared }>('PUT', `/projects/${project}/dimensions`, { base, shared }),
  designs: (project: string) =>
    call<{ project: { id: string; name: string; role: Role }; designs: DesignSummary[]; deleted: DeletedDesign[] }>(
      'GET',
      `/projects/${project}/designs`,
    ),
  createDesign: (project: string, name: string) =>
    call<{ id: string }>('POST', `/projects/${project}/designs`, { name }),
  /** @param file a design file, sent as it is */
  importDesign: (project: string, file: Blob) =>
    call<{ id: string; name: string }>('POST', `/projects/${project}/designs?file`, file, FILE_TIMEOUT_MS),
  deleteDesign: (id: string) => call<undefined>('DELETE', `/designs/${id}`),
  open: (id: string) => call<OpenedDesign>('GET', `/designs/${id}`),
  /**
   * @param base what its maker had before them: this revision, and those of their own changes since, in `own`
   * @param by its maker; refused where somebody else signed in since
   */
  append: (id: string, base: number, own: readonly string[], by: string | undefined, change: Change) =>
    call<Acknowledged>('POST', `/designs/${id}/changes`, { base, own, by, change }),
  change: (design: string, id: string) => call<Told>('GET', `/designs/${design}/changes/${id}`),
  since: (design: string, revision: number) =>
    call<{ changes: Told[] }>('GET', `/designs/${design}/changes?since=${revision}`),
  earlier: (design: string, before: number) =>
    call<{ log: Listed[]; more: boolean }>('GET', `/designs/${design}/changes?before=${before}`),
  state: (design: string, revision: number) => call<Design>('GET', `/designs/${design}/states/${revision}`),
  nameState: (design: string, revision: number, name: string) =>
    call<undefined>('PUT', `/designs/${design}/states/${revision}/name`, { name }),
  restoreDesign: (id: string) => call<undefined>('POST', `/designs/${id}/restore`),
  pictures: (design: string) => call<{ part: string; key: string }[]>('GET', `/designs/${design}/pictures`),
  picture: (design: string, part: string, key: string) => bytes('GET', `/designs/${design}/pictures/${part}/${key}`),
  issued: (design: string, sheet: string, letter: string, revision: number) => bytes('GET', `/designs/${design}/issued/${sheet}/${letter}/${revision}`), // prettier-ignore
  keepIssued: (design: string, sheet: string, letter: string, revision: number, pdf: Uint8Array) =>
    bytes('PUT', `/designs/${design}/issued/${sheet}/${letter}/${revision}`, pdf),
  keepPicture: (design: string, part: string, key: string, picture: Uint8Array) =>
    bytes('PUT', `/designs/${design}/pictures/${part}/${key}`, picture),
};
