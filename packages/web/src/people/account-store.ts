/** Whether people sign in on this server, and who is signed in here. */
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { people, type OwnAccount } from '../server.ts';

export const signInTo = (path: string): RouteLocationRaw => ({ path: '/sign-in', query: { to: path } });

export const useAccount = defineStore('account', () => {
  /** Null until the server has said. */
  const accounts = ref<boolean | null>(null);
  const person = shallowRef<OwnAccount | null>(null);

  /** Where the server is away, pages say so themselves. */
  async function load(): Promise<void> {
    try {
      const told = await people.me();
      accounts.value = told.accounts;
      person.value = told.person;
    } catch {
      accounts.value = null;
    }
  }

  async function signOut(): Promise<void> {
    await people.signOut();
    person.value = null;
  }

  return { accounts, person, load, signOut };
});
