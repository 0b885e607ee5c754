/** Parts of other designs of the project: brought here, looked after, renewed. */
import { applyEdit, compareDesigns, guestBundle, newId, takeGuests, type Comparison, type Design, type Guest, type GuestBundle } from '@helb/core'; // prettier-ignore
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useModes } from '../modes/mode-stack.ts';
import { server, ServerRefusal, type DesignSummary } from '../server.ts';

/** What is known of the newest state of a guest’s design. */
export type Standing =
  | { readonly kind: 'newest' }
  | { readonly kind: 'newer'; readonly revision: number; readonly changes: Comparison; readonly bundle: GuestBundle }
  | { readonly kind: 'away'; readonly why: string };

const AGAIN_AFTER_MS = 5000;

export const useGuests = defineStore('guests', () => {
  const design = useDesign();
  const session = useSession();

  const trying = useModes().slot('guest');
  const shown = ref(false);
  const others = shallowRef<readonly DesignSummary[]>([]);
  /** The other design whose parts are listed. */
  const looked = shallowRef<{ readonly id: string; readonly revision: number; readonly design: Design } | null>(null);
  const busy = ref(false);
  const guests = computed(() => Object.entries(design.kept?.guests ?? {}));
  const standing = shallowRef<ReadonlyMap<string, Standing>>(new Map());
  const newer = computed(() => guests.value.filter(([key, g]) => g.follows === 'newest' && standing.value.get(key)?.kind === 'newer').length); // prettier-ignore

  /** Of how many the design is gone, or could not be asked after; the dialog says why. */
  const outOfReach = computed(() => guests.value.filter(([key]) => standing.value.get(key)?.kind === 'away').length);

  const sentence = (error: unknown) => (error as Error).message.split('\n')[0]!;

  async function open(): Promise<void> {
    shown.value = true;
    looked.value = null;
    if (!design.project) return;
    busy.value = true;
    try {
      const { designs } = await server.designs(design.project.id);
      others.value = designs.filter((d) => d.id !== design.id);
    } catch (error) {
      session.notice = sentence(error);
    } finally {
      busy.value = false;
    }
    await lookAfter();
  }

  async function fetched(id: string): Promise<{ id: string; revision: number; design: Design }> {
    const opened = await server.open(id);
    return { id, revision: opened.revision, design: opened.document };
  }

  async function look(id: string): Promise<void> {
    busy.value = true;
    try {
      looked.value = await fetched(id);
    } catch (error) {
      session.notice = sentence(error);
    } finally {
      busy.value = false;
    }
  }

  /** Bring a part or an assembly, with what it is made of. */
  function bring(what: { readonly part: string } | { readonly assembly: string }): void {
    const from = looked.value;
    if (!from || !design.kept) return;
    const known = guests.value.find(([, g]) => g.design === from.id);
    if (known && known[1].revision !== from.revision && standing.value.get(known[0])?.kind === 'newer')
      return void (session.notice = `Other parts of ${from.design.name} stand here as of an earlier revision; take its newest first.`);
    const [key, before] = known ?? [newId('g'), null];
    const parts = [...(before?.parts ?? []), ...('part' in what ? [what.part] : [])];
    const assemblies = [...(before?.assemblies ?? []), ...('assembly' in what ? [what.assembly] : [])];
    const wanted = { design: from.id, revision: from.revision, follows: before?.follows ?? 'newest', parts: [...new Set(parts)], assemblies: [...new Set(assemblies)] } as const; // prettier-ignore
    const bundle = guestBundle(design.kept, from.design, wanted, key);
    session.notice = design.edit(takeGuests(key, bundle));
    if (session.notice === null) shown.value = false;
  }

  /** What is asked for of a design, renewed from its newest state. */
  function renewing(key: string, guest: Guest, from: { revision: number; design: Design }): GuestBundle {
    const { parts, assemblies, follows } = guest;
    return guestBundle(design.kept!, from.design, { design: guest.design, revision: from.revision, follows, parts, assemblies }, key); // prettier-ignore
  }

  let asked = 0;
  /** Ask after the designs from which parts stand here. */
  async function lookAfter(): Promise<void> {
    const own = ++asked;
    let again = false;
    const found = new Map<string, Standing>();
    for (const [key, guest] of guests.value) {
      try {
        const { changes } = await server.since(guest.design, guest.revision);
        if (changes.length === 0) {
          found.set(key, { kind: 'newest' });
          continue;
        }
        const from = await fetched(guest.design);
        if (!design.kept || own !== asked) return;
        const bundle = renewing(key, guest, from);
        const after = applyEdit(design.kept, takeGuests(key, bundle));
        if (!after.ok) found.set(key, { kind: 'away', why: after.message });
        else {
          const changed = compareDesigns(design.kept, after.design);
          const nothing = changed.numbers.length + changed.steps.length + changed.parts.length === 0;
          found.set(key, nothing ? { kind: 'newest' } : { kind: 'newer', revision: from.revision, changes: changed, bundle }); // prettier-ignore
        }
      } catch (error) {
        const gone = error instanceof ServerRefusal && [403, 404, 410].includes(error.status);
        again ||= !gone;
        found.set(key, {
          kind: 'away',
          why: gone
            ? `${guest.name} was deleted, or is not yours to look at; what stands here of it stays as it is.`
            : `${guest.name} could not be asked after: ${sentence(error)}`,
        });
      }
    }
    if (own !== asked) return;
    standing.value = found;
    // A server that was away is asked once more later.
    if (again) setTimeout(() => own === asked && void lookAfter(), AGAIN_AFTER_MS);
  }
  watch(() => [design.id, guests.value.map(([k, g]) => `${k} ${g.revision}`).join()], () => guests.value.length > 0 && void lookAfter(), { immediate: true }); // prettier-ignore

  /** Show what comes of the newest; Enter keeps it. */
  function tryNewest(key: string): void {
    const own = standing.value.get(key);
    if (own?.kind !== 'newer') return;
    session.notice = design.tryOut(takeGuests(key, own.bundle));
    if (session.notice !== null) return;
    shown.value = false;
    trying.value = key;
  }
  function keepNewest(): void {
    session.notice = design.keepAttempt();
    if (session.notice === null) trying.value = null;
  }
  function dropNewest(): void {
    design.dropAttempt();
    trying.value = null;
  }

  return {
    shown,
    others,
    looked,
    busy,
    guests,
    standing,
    newer,
    outOfReach,
    open,
    look,
    bring,
    trying,
    tryNewest,
    keepNewest,
    dropNewest,
    lookAfter,
  };
});
