/** Edits of parts and of the design as a whole. */
import { z } from 'zod';
import { MATERIAL_KEYS, type MaterialKey } from '../standards/materials.ts';
import type { DisplayUnits } from '../units/units.ts';
import { Ledger } from '../ledger/ledger.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { declareCommand } from '../document/command.ts';
import { emptyPart, Units, type Design, type Part } from '../document/schema.ts';
import { plain } from '../document/plain.ts';
import { Id } from '../ids/ids.ts';
import { forgetGuest } from './forget-guest.ts';
import { freeName } from './free-name.ts';

const Typed = z.string().max(500);

function partOf(draft: Design, id: string): Part {
  const part = draft.parts[id];
  if (!part) throw new EditRefused('This part no longer exists.');
  return part;
}

const addPartCommand = declareCommand({
  name: 'add-part',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Add part ${name}`,
  run(draft, { id, name }) {
    if (draft.parts[id]) throw new EditRefused('A part of this id is there already.');
    draft.parts[id] = emptyPart(freeName(name, Object.values(draft.parts)));
    draft.partOrder.push(id);
  },
});

export const addPart = (id: string, name: string): Edit => addPartCommand({ id, name });

const renamePartCommand = declareCommand({
  name: 'rename-part',
  args: z.strictObject({ id: Id, name: Typed }),
  label: ({ name }) => `Rename a part to ${name}`,
  run(draft, { id, name }) {
    if (!name.trim()) throw new EditRefused('A part needs a name.');
    partOf(draft, id).name = name.trim().slice(0, 80);
  },
});

export const renamePart = (id: string, name: string): Edit => renamePartCommand({ id, name });

const setMaterialCommand = declareCommand({
  name: 'set-material',
  args: z.strictObject({ id: Id, material: z.enum(MATERIAL_KEYS).nullable() }),
  label: () => 'Change a material',
  run(draft, { id, material }) {
    const part = partOf(draft, id);
    if (material) part.material = material;
    else delete part.material;
  },
});

export const setMaterial = (id: string, material: MaterialKey | null): Edit => setMaterialCommand({ id, material });

const deletePartCommand = declareCommand({
  name: 'delete-part',
  args: z.strictObject({ id: Id }),
  label: () => 'Delete a part',
  run(draft, { id }) {
    const part = partOf(draft, id);
    const ledger = Ledger.of(plain(draft));
    const inside = new Set(ledger.entries.filter((e) => 'part' in e.owner && e.owner.part === id).map((e) => e.ref));
    const user = ledger.entries.find(
      (e) => !inside.has(e.ref) && !e.measured && ledger.dependenciesOf(e).some((ref) => inside.has(ref)),
    );
    if (user) throw new EditRefused(`${part.name} holds a number that ${user.path.join('.')} uses; change that first.`);
    const measured = ledger.entries.find((e) => e.measured?.part === id && !inside.has(e.ref));
    if (measured)
      throw new EditRefused(`${measured.path.join('.')} is measured on ${part.name}; delete that dimension first.`);
    const placed = Object.values(draft.assemblies ?? {}).find((a) => Object.values(a.instances).some((i) => 'part' in i.of && i.of.part === id)); // prettier-ignore
    if (placed) throw new EditRefused(`${part.name} stands in ${placed.name}; remove it there first.`);
    delete draft.parts[id];
    forgetGuest(draft, part.guest, id);
    draft.partOrder.splice(draft.partOrder.indexOf(id), 1);
  },
});

export const deletePart = (id: string): Edit => deletePartCommand({ id });

const renameDesignCommand = declareCommand({
  name: 'rename-design',
  args: z.strictObject({ name: Typed }),
  label: ({ name }) => `Rename the design to ${name}`,
  run(draft, { name }) {
    if (!name.trim()) throw new EditRefused('A design needs a name.');
    draft.name = name.trim().slice(0, 80);
  },
});

export const renameDesign = (name: string): Edit => renameDesignCommand({ name });

const setUnitsCommand = declareCommand({
  name: 'set-units',
  args: z.strictObject({ units: Units }),
  label: ({ units }) => `Show lengths in ${units.length}`,
  run(draft, { units }) {
    draft.units = { ...units };
  },
});

export const setUnits = (units: DisplayUnits): Edit => setUnitsCommand({ units });
