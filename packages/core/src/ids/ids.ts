import { z } from 'zod';

/** Every map seems to have an entry under such a word. */
export const isInherited = (id: string): boolean => id in Object.prototype;

/**
 * Ids name things inside the document and are never shown. They are plain
 * words so that a file can be written by hand and an expression can say `$id`.
 */
export const Id = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_]{0,39}$/, 'an id starts with a letter and has only letters, digits and _')
  .refine((id) => !isInherited(id), 'this word has a meaning of its own in every map; choose another')
  .describe('A word unique in its map: a letter, then letters, digits or _.');

const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789';

/** How random numbers enter the core, so that tests can make ids repeatable. */
export type RandomSource = () => number;

/** A fresh id with a readable prefix: `newId('p')` → `pk3x9f2ma`; 40 bits of chance. */
export function newId(prefix: string, random: RandomSource = Math.random): string {
  let id = prefix;
  for (let i = 0; i < 8; i++) id += ALPHABET[Math.floor(random() * ALPHABET.length)];
  return id;
}
