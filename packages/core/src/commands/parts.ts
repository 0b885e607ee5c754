/** Edits of parts and of the design as a whole. */
import type { MaterialKey } from '../standards/materials.ts';
import type { DisplayUnits } from '../units/units.ts';
import { Ledger } from '../ledger/ledger.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { emptyPart, type Design, type Part } from '../document/schema.ts';
import { plain } from '../document/plain.ts';

function partOf(draft: Design, id: string): Part {
  const part = draft.parts[id];
  if (!part) throw new EditRefused('This part no longer exists.');
  return part;
}

export function addPart(id: string, name: string): Edit {
  return {
    command: 'add-part',
    label: `Add part ${name}`,
    run(draft) {
      draft.parts[id] = emptyPart(name);
      draft.partOrder.push(id);
    },
  };
}

export function renamePart(id: string, name: string): Edit {
  return {
    command: 'rename-part',
    label: `Rename a part to ${name}`,
    run(draft) {
      if (!name.trim()) throw new EditRefused('A part needs a name.');
      partOf(draft, id).name = name.trim().slice(0, 80);
    },
  };
}

export function setMaterial(id: string, material: MaterialKey | null): Edit {
  return {
    command: 'set-material',
    label: 'Change a material',
    run(draft) {
      const part = partOf(draft, id);
      if (material) part.material = material;
      else delete part.material;
    },
  };
}

export function deletePart(id: string): Edit {
  return {
    command: 'delete-part',
    label: 'Delete a part',
    run(draft) {
      const part = partOf(draft, id);
      const ledger = Ledger.of(plain(draft));
      const inside = new Set(ledger.entries.filter((e) => 'part' in e.owner && e.owner.part === id).map((e) => e.ref));
      const user = ledger.entries.find(
        (e) => !inside.has(e.ref) && !e.measured && ledger.dependenciesOf(e).some((ref) => inside.has(ref)),
      );
      if (user)
        throw new EditRefused(`${part.name} holds a number that ${user.path.join('.')} uses; change that first.`);
      const measured = ledger.entries.find((e) => e.measured?.part === id && !inside.has(e.ref));
      if (measured)
        throw new EditRefused(`${measured.path.join('.')} is measured on ${part.name}; delete that dimension first.`);
      delete draft.parts[id];
      draft.partOrder.splice(draft.partOrder.indexOf(id), 1);
    },
  };
}

export function renameDesign(name: string): Edit {
  return {
    command: 'rename-design',
    label: `Rename the design to ${name}`,
    run(draft: Design) {
      if (!name.trim()) throw new EditRefused('A design needs a name.');
      draft.name = name.trim().slice(0, 80);
    },
  };
}

export function setUnits(units: DisplayUnits): Edit {
  return {
    command: 'set-units',
    label: `Show lengths in ${units.length}`,
    run(draft) {
      draft.units = { ...units };
    },
  };
}
