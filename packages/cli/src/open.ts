import { applyEdit, Ledger, MAX_FILE_BYTES, readDesign, setDimension, type Design } from '@helb/core';
import { readFile, stat } from 'node:fs/promises';
import { CliError } from './cli-error.ts';

export interface SetOption {
  readonly name: string;
  readonly expression: string;
}

/** Read a design file and give dimensions new expressions. @throws CliError */
export async function openDesign(file: string, set: readonly SetOption[]): Promise<Design> {
  const text = await readText(file);
  const read = readDesign(text);
  if (!read.ok) throw new CliError(`${file}: ${read.message}`);
  return set.reduce(withDimension, read.design);
}

async function readText(file: string): Promise<string> {
  try {
    if ((await stat(file)).size > MAX_FILE_BYTES) throw new CliError(`${file} is larger than a design file can be.`);
    return await readFile(file, 'utf8');
  } catch (error) {
    if (error instanceof CliError) throw error;
    throw new CliError(`${file} cannot be read; check its name.`);
  }
}

function withDimension(design: Design, { name, expression }: SetOption): Design {
  const ledger = Ledger.of(design);
  const found = ledger.index.find(name, {});
  const byRef = ledger.index.byReference(name);
  const matches =
    found.kind === 'one' ? [found.entry] : byRef ? [byRef] : ledger.entries.filter((e) => e.name === name);
  if (matches.length === 0) throw new CliError(`No dimension is called “${name}” in this design.`);
  if (matches.length > 1) {
    throw new CliError(`“${name}” could mean ${matches.map((e) => e.path.join('.')).join(' or ')}; write it in full.`);
  }
  const outcome = applyEdit(design, setDimension(matches[0]!.ref, expression));
  if (!outcome.ok) throw new CliError(`--set ${name}: ${outcome.message}`);
  return outcome.design;
}
