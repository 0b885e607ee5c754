/** A design's dimensions, sketches, steps, bodies and joints as plain data, for people and programs without a page. */
import { lookOfOutcome } from '../assembly/look.ts';
import type { Design } from '../document/schema.ts';
import { Ledger } from '../ledger/ledger.ts';
import { hangingOn, hangingSentence } from '../ledger/trace.ts';
import { PartEvaluator } from '../evaluation/evaluate.ts';
import type { PartOutcome } from '../part/outcome.ts';
import { massOf } from '../standards/materials.ts';
import type { SolidKernel, Vec3 } from '../solid/kernel.ts';
import { asSketch } from '../steps/schema.ts';
import { describeConstraint } from '../steps/sketch/clash-sentence.ts';
import { inspectAssembly, type InspectedAssembly } from './inspect-assembly.ts';
import { settledReadings } from '../readings/read.ts';
import { kindOfPowers } from '../units/units.ts';

export interface Inspection {
  readonly name: string;
  readonly dimensions: readonly {
    readonly id: string;
    readonly name: string;
    readonly path: string;
    readonly expression: string;
    /** mm, rad or a number; null when it has no value. */
    readonly value: number | null;
    readonly kind: string | null;
    readonly shown: string;
    readonly error: string | null;
    /** Why what it is measured on may be something else, or cannot be read and keeps its last reading. */
    readonly doubt: string | null;
  }[];
  readonly parts: readonly {
    readonly id: string;
    readonly name: string;
    readonly material: string | null;
    readonly mass_kg: number | null;
    readonly steps: readonly {
      readonly id: string;
      readonly name: string;
      readonly kind: string;
      readonly status: string;
      readonly message: string | null;
      /** References that were not found for sure. */
      readonly doubts: readonly string[];
    }[];
    readonly sketches: readonly {
      readonly step: string;
      readonly name: string;
      readonly solved: boolean;
      readonly freedoms: number;
      readonly settled: boolean;
      readonly loose: readonly string[];
      readonly redundant: readonly string[];
      readonly clashes: readonly string[];
      readonly regions: readonly {
        readonly outer: readonly string[];
        readonly area_mm2: number;
        readonly at: readonly [number, number];
      }[];
      readonly points: Readonly<Record<string, readonly [number, number]>>;
    }[];
    readonly bodies: readonly {
      readonly id: string;
      readonly name: string;
      readonly volume_mm3: number;
      readonly area_mm2: number;
      readonly center_mm: Vec3;
      readonly box_mm: { readonly min: Vec3; readonly max: Vec3 };
      readonly faces: readonly { readonly name: string; readonly kind: string; readonly area_mm2: number }[];
      readonly edges: number;
      readonly valid: boolean;
    }[];
  }[];
  readonly assemblies: readonly InspectedAssembly[];
}

/** What the design is, with its readings true to its parts: numbers may have been set since they were read. */
export async function inspectDesign(
  given: Design,
  kernel: SolidKernel,
  evaluator = new PartEvaluator(kernel),
): Promise<Inspection> {
  const { design, faults, adrift } = await settledReadings(given, evaluator, kernel);
  const ledger = Ledger.of(design);
  const parts: Inspection['parts'][number][] = [];
  const outcomes = new Map<string, PartOutcome>();
  for (const partId of design.partOrder) {
    const outcome = await evaluator.evaluate(design, ledger, partId);
    outcomes.set(partId, outcome);
    parts.push(inspectPart(design, partId, outcome));
  }
  const hanging = hangingOn(ledger, faults.keys());
  return {
    name: design.name,
    dimensions: ledger.entries.map((entry) => {
      const hangs = hanging.get(entry.ref);
      const doubt = faults.get(entry.ref) ?? (hangs === undefined ? null : hangingSentence(ledger, hangs));
      const value = adrift.has(entry.ref) ? { ok: false as const, message: doubt!, from: 0, to: 0 } : ledger.valueOfEntry(entry); // prettier-ignore
      return {
        id: entry.ref,
        name: entry.name,
        path: entry.path.join('.'),
        expression: ledger.shown(entry),
        value: value.ok ? value.quantity.value : null,
        kind: value.ok ? kindOfPowers(value.quantity.powers) : null,
        shown: ledger.format(value),
        error: value.ok ? null : value.message,
        doubt: value.ok ? doubt : null,
      };
    }),
    parts,
    assemblies: (design.assemblyOrder ?? []).map((id) =>
      inspectAssembly(design, ledger, id, (part) => {
        const outcome = outcomes.get(part);
        return outcome ? lookOfOutcome(outcome) : null;
      }),
    ),
  };
}

function inspectPart(design: Design, partId: string, outcome: PartOutcome): Inspection['parts'][number] {
  const part = design.parts[partId]!;
  const volume = outcome.bodies.reduce((sum, b) => sum + b.facts.volume, 0);
  return {
    id: partId,
    name: part.name,
    material: part.material ?? null,
    mass_kg: part.material ? massOf(volume, part.material) : null,
    steps: outcome.steps.map((s) => {
      const step = part.steps[s.id]!;
      return {
        id: s.id,
        name: step.name,
        kind: step.kind,
        status: s.status,
        message: s.message,
        doubts: s.doubts.map((d) => d.says),
      };
    }),
    sketches: outcome.steps.flatMap((s) => {
      const step = asSketch(part.steps[s.id]);
      if (!s.sketch || !step) return [];
      const { solution, regions } = s.sketch;
      return [
        {
          step: s.id,
          name: step.name,
          solved: solution.solved,
          freedoms: solution.freedoms,
          settled: solution.solved && solution.freedoms === 0,
          loose: [...solution.loose],
          redundant: solution.redundant.map((id) => describeConstraint(step, id)),
          clashes: solution.clash.map((id) => describeConstraint(step, id)),
          regions: regions.regions.map((r) => ({ outer: r.outer, area_mm2: r.area, at: r.at })),
          points: solution.geometry.points,
        },
      ];
    }),
    bodies: outcome.bodies.map(({ name, facts, faceNames }) => ({
      id: name.text,
      name: part.steps[name.step]?.name ?? name.step,
      volume_mm3: facts.volume,
      area_mm2: facts.area,
      center_mm: facts.center,
      box_mm: facts.box,
      faces: facts.faces.map((f, i) => ({ name: faceNames[i]![0]!.text, kind: f.kind, area_mm2: f.area })),
      edges: facts.edges.length,
      valid: facts.valid,
    })),
  };
}
