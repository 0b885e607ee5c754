/** The line to the server on which pages of one design hear of each other. */
import { defineStore } from 'pinia';
import { shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import type { Role, Told } from '../server.ts';

/** Somebody else's page on this design. */
export interface Person {
  readonly tab: number;
  /** It is this browser's own, in another tab. */
  readonly mine: boolean;
  /** Null of one without an account. */
  readonly name: string | null;
  readonly part: string | null;
  readonly step: string | null;
}

type Message =
  | { readonly kind: 'hello'; readonly tab: number; readonly revision: number; readonly role: Role }
  | { readonly kind: 'role'; readonly role: Role }
  | { readonly kind: 'changes'; readonly changes: readonly Told[] }
  | { readonly kind: 'people'; readonly people: readonly Person[] }
  | { readonly kind: 'named'; readonly revision: number; readonly name: string | null };

/** The server closes the line of those who may not look any more. */
const NOT_ALLOWED = 4403;
const RETRY_FIRST_MS = 500;
const RETRY_MOST_MS = 10_000;

export const useLive = defineStore('live', () => {
  const design = useDesign();
  const session = useSession();
  const people = shallowRef<readonly Person[]>([]);
  let socket: WebSocket | null = null;
  let retry = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  function connect(id: string): void {
    const own = new WebSocket(`${location.origin.replace(/^http/, 'ws')}/api/designs/${id}/live`);
    socket = own;
    own.onopen = () => {
      retry = 0;
      tell();
    };
    own.onmessage = ({ data }) => {
      if (socket === own && design.id === id) hear(JSON.parse(String(data)) as Message);
    };
    own.onclose = ({ code }) => {
      if (socket !== own) return;
      people.value = [];
      if (code === NOT_ALLOWED) void design.catchUp();
      timer = setTimeout(() => design.id === id && connect(id), Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** retry++));
    };
  }

  function hear(message: Message): void {
    if (message.kind === 'people') people.value = message.people;
    else if (message.kind === 'role') design.role = message.role;
    else if (message.kind === 'named') design.named(message.revision, message.name);
    else if (message.kind === 'hello') {
      design.role = message.role;
      if (message.revision > design.revision) void design.catchUp();
    } else {
      const next = design.revision + 1;
      design.hear(message.changes);
      // Some were missed while the line was down.
      if (message.changes.every((c) => c.revision > next)) void design.catchUp();
    }
  }

  function tell(): void {
    if (socket?.readyState !== WebSocket.OPEN) return;
    socket.send(JSON.stringify({ part: session.activePart, step: session.workedOn }));
  }

  function leave(): void {
    clearTimeout(timer);
    const own = socket;
    socket = null;
    own?.close();
    people.value = [];
  }

  watch(
    () => design.id,
    (id) => {
      leave();
      if (id) connect(id);
    },
    { immediate: true },
  );
  watch([() => session.activePart, () => session.workedOn], tell);

  return { people };
});
