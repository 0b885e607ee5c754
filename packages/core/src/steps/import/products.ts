/** What a STEP file calls the things in it. */

const MOST_NAMES = 20;

/** Names of the products of a STEP file (ISO 10303-21), in its order, each once; those that are only numbers or blank are no names. */
export function productsIn(bytes: Uint8Array): string[] {
  const text = new TextDecoder().decode(bytes);
  const names = new Set<string>();
  for (const [, quoted] of text.matchAll(/=\s*PRODUCT\s*\(\s*'((?:[^']|'')*)'/g)) {
    const name = unquoted(quoted!).trim().slice(0, 80);
    if (name && !/^\d+$/.test(name)) names.add(name);
    if (names.size === MOST_NAMES) break;
  }
  return [...names];
}

/** Letters beyond ASCII are written as codes: \X2\00DC\X0\, \X\DC, \S\\. */
function unquoted(text: string): string {
  const codes = (hex: string, digits: number) => (hex.match(new RegExp(`.{${digits}}`, 'g')) ?? []).map((h) => String.fromCodePoint(Math.min(0x10ffff, parseInt(h, 16)))).join(''); // prettier-ignore
  return text
    .replaceAll("''", "'")
    .replaceAll(/\\X2\\([0-9A-F]*)\\X0\\/gi, (_, hex: string) => codes(hex, 4))
    .replaceAll(/\\X4\\([0-9A-F]*)\\X0\\/gi, (_, hex: string) => codes(hex, 8))
    .replaceAll(/\\X\\([0-9A-F]{2})/gi, (_, hex: string) => codes(hex, 2))
    .replaceAll(/\\S\\(.)/g, (_, c: string) => String.fromCodePoint(c.codePointAt(0)! + 128))
    .replaceAll('\\\\', '\\');
}
