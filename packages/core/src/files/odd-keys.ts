/** Keys that reading JSON would drop without a word. */

/**
 * The first key of an object that stands twice in it, or has a meaning of its own to the program, as a sentence;
 * null when there is none.
 * @param text JSON that has been read without fault
 */
export function oddKey(text: string): string | null {
  /** The keys met in each object that is open, and null for each list. */
  const open: (Set<string> | null)[] = [];
  let key = false;
  for (let at = 0; at < text.length; at++) {
    const c = text[at];
    if (c === '{') {
      open.push(new Set());
      key = true;
    } else if (c === '[') {
      open.push(null);
      key = false;
    } else if (c === '}' || c === ']') {
      open.pop();
      key = false;
    } else if (c === ',') key = open.at(-1) instanceof Set;
    else if (c === ':') key = false;
    else if (c === '"') {
      const from = at;
      for (at++; text[at] !== '"'; at++) if (text[at] === '\\') at++;
      const keys = key ? open.at(-1) : null;
      if (!keys) continue;
      const name = JSON.parse(text.slice(from, at + 1)) as string;
      if (keys.has(name)) return `“${name}” stands twice in the same place.`;
      if (name === '__proto__') return 'no thing can be called “__proto__”.';
      keys.add(name);
    }
  }
  return null;
}
