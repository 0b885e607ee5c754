/**
 * 106-bit text hash: two cyrb53 hashes (public domain, bryc) with different
 * seeds. For cache keys, where a collision would show a wrong solid: at a
 * million keys the chance is below 1e-20.
 */
export function hashText(text: string): string {
  return half(text, 0x2545f491).toString(36) + half(text, 0x9e3779b9).toString(36);
}

function half(text: string, seed: number): number {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4294967296 * (2097151 & b) + (a >>> 0);
}
