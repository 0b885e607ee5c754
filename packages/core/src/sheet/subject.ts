/** What a sheet shows: a part as it is made, or an assembly at home, in a kept position or taken apart; as a variant has it. */
import { atPose, drawnOff } from '../assembly/at-pose.ts';
import type { Assembled } from '../assembly/assembled.ts';
import { exploded } from '../assembly/exploded.ts';
import type { Design } from '../document/schema.ts';
import type { Sheet } from '../document/sheet.ts';
import type { EvaluationHooks, PartEvaluator } from '../evaluation/evaluate.ts';
import { standTogether } from '../evaluation/stand-together.ts';
import { linkBoxes } from '../fit/link-boxes.ts';
import { Ledger } from '../ledger/ledger.ts';
import type { Body } from '../names/body.ts';
import type { SolidKernel } from '../solid/kernel.ts';
import { poseWithin, transformOf, type Pose } from '../space/pose.ts';
import { further, type Vec3 } from '../space/vector.ts';
import { massOf, type MaterialKey } from '../standards/materials.ts';
import { asVariant } from '../variants/apply.ts';
import type { Seen } from './drawn-view.ts';
import { placedBody } from './member-bodies.ts';
import type { ListedPart } from './listed-part.ts';
import { listedOf } from './listed.ts';

/** A sheet cannot be drawn; the message is a sentence for the user. */
export class SheetFailure extends Error {}

export interface Subject {
  readonly seen: readonly Seen[];
  /** In which sizes are found. */
  readonly bodies: readonly Body[];
  readonly mass: number | null;
  readonly material: MaterialKey | null;
  /** Of an assembly which part each that is seen is, and its list. */
  readonly partOf: readonly string[];
  readonly parts: readonly ListedPart[];
  /** Along which parts were drawn off, from where they stand at home to where they are drawn, mm. */
  readonly trails: readonly (readonly [Vec3, Vec3])[];
  /** What is not as it should be with it, as sentences. */
  readonly says: readonly string[];
  /** What of it is shown, where that is not all of it at home: a variant, a position. */
  readonly shown: string | null;
  done(): void;
}

/** The design as the sheet’s variant has it, and what that is called. @throws SheetFailure */
export function asShown(
  design: Design,
  { variant }: Pick<Sheet, 'variant'>,
): { design: Design; called: string | null } {
  // prettier-ignore
  if (variant === undefined) return { design, called: null };
  const row = design.variants?.rows[variant];
  if (!row) throw new SheetFailure('The variant that was drawn here is no longer there; choose another.');
  const own = asVariant(design, variant);
  if ('message' in own) throw new SheetFailure(`The variant ${row.name} cannot be drawn: ${own.message}`);
  return { design: own.design, called: row.name };
}

/** @param design as the sheet’s variant has it. @throws SheetFailure, KernelError, Superseded */
export async function subjectOf(
  design: Design,
  { of, shown }: Sheet,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
  hooks: EvaluationHooks,
): Promise<Subject> {
  if ('part' in of) return partDrawn(design, of.part, evaluator, hooks);
  if (!design.assemblies?.[of.assembly]) throw new SheetFailure('The assembly that was drawn here is no longer there; delete the sheet, or undo.'); // prettier-ignore
  const { it, outcomes } = await standTogether(design, of.assembly, evaluator, hooks);
  const bodiesOf = (part: string) => outcomes.get(part)?.bodies ?? [];
  const standing = standingAs(design, of.assembly, shown, it, bodiesOf);
  const placed: Seen[] = [];
  const partOf: string[] = [];
  const trails: [Vec3, Vec3][] = [];
  let mass: number | null = 0;
  for (const { key, part, link, within, hidden, instance } of it.members) {
    if (hidden) continue;
    const to = transformOf(poseWithin(standing.poses[link]!, within));
    for (const own of bodiesOf(part)) {
      const body = placedBody(own, key, to, kernel);
      placed.push({ solid: body.solid, body, key: body.key, copy: { of: own.solid, to } });
      partOf.push(part);
    }
    const own = instance.material ?? design.parts[part]?.material;
    mass = mass === null || !own ? null : bodiesOf(part).reduce((sum, b) => sum + massOf(b.facts.volume, own), mass);
  }
  linkBoxes(it, bodiesOf).forEach((box, link) => {
    const by = standing.off?.[link];
    if (!box || !by || by.every((n) => Math.abs(n) < 1e-6)) return;
    const middle = [0, 1, 2].map((k) => (box.min[k]! + box.max[k]!) / 2) as unknown as Vec3;
    trails.push([middle, further(middle, by, 1)]);
  });
  return { seen: placed, bodies: placed.map((s) => s.body), mass, material: null, says: standing.says, partOf, parts: listedOf(design, it.members, outcomes), trails, shown: standing.called, done: () => placed.forEach((s) => kernel.free(s.solid)) }; // prettier-ignore
}

async function partDrawn(
  design: Design,
  id: string,
  evaluator: PartEvaluator,
  hooks: EvaluationHooks,
): Promise<Subject> {
  // prettier-ignore
  const part = design.parts[id];
  if (!part) throw new SheetFailure('The part that was drawn here is no longer there; delete the sheet, or undo.');
  const { bodies, steps } = await evaluator.evaluate(design, Ledger.of(design), id, hooks);
  const failed = steps.find((s) => s.status === 'failed');
  const says = failed ? [`${part.steps[failed.id]!.name} fails, so the part is drawn without it: ${failed.message}`] : []; // prettier-ignore
  const { material = null } = part;
  const mass = material ? bodies.reduce((sum, b) => sum + massOf(b.facts.volume, material), 0) : null;
  const seen = bodies.map((body) => ({ solid: body.solid, body, key: body.key }));
  return { seen, bodies, mass, material, says, partOf: [], parts: [], trails: [], shown: null, done: () => undefined };
}

interface Standing {
  readonly poses: readonly Pose[];
  /** How far each link is drawn off its home. */
  readonly off: readonly Vec3[] | null;
  readonly called: string | null;
  readonly says: readonly string[];
}

/** Where the links of an assembly stand on the sheet. */
function standingAs(
  design: Design,
  assembly: string,
  shown: Sheet['shown'],
  it: Assembled,
  bodiesOf: (part: string) => readonly Body[],
): Standing {
  const { poses } = it.home;
  const says = it.closed ? [...it.faults] : ['The joints cannot all be met; what is drawn does not stand as it should.']; // prettier-ignore
  const atHome: Standing = { poses, off: null, called: null, says };
  if (!shown) return atHome;
  const apart = (off: readonly Vec3[], called: string): Standing => ({ poses: poses.map((p, i) => ({ at: further(p.at, off[i]!, 1), turn: p.turn })), off, called, says }); // prettier-ignore
  if ('apart' in shown) return it.closed ? apart(exploded(it, linkBoxes(it, bodiesOf)), 'taken apart') : atHome;
  const kept = design.assemblies![assembly]!.poses?.[shown.pose];
  if (!kept) return { ...atHome, says: [...says, 'The position that was drawn is no longer kept; it is drawn at home.'] }; // prettier-ignore
  if (kept.exploded) return apart(drawnOff(it, kept), kept.name);
  const there = atPose(it, kept);
  return there ? { ...atHome, poses: there.poses, called: kept.name } : { ...atHome, says: [...says, `${kept.name} cannot be reached any more as the joints are now; it is drawn at home.`] }; // prettier-ignore
}
