/** A name that nothing beside it has yet: two people may each make an “Extrude 2” at once. */
export function freeName(wanted: string, beside: readonly { readonly name?: string | undefined }[]): string {
  const taken = new Set(beside.map((b) => b.name));
  if (!taken.has(wanted)) return wanted;
  const [, stem, joint] = /^(.*?)( |_)?\d*$/s.exec(wanted)!;
  for (let n = 2; ; n++) {
    const name = `${stem}${joint ?? ' '}${n}`;
    if (!taken.has(name)) return name.slice(-80);
  }
}
