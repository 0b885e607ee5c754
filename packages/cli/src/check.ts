/** `helb check`: does a design stand, keep its requirements, and survive change? */
import {
  attempt,
  dialRanges,
  faultSentence,
  fitAtHome,
  fitSentence,
  flexDial,
  flexPairs,
  formatQuantity,
  judgeRequirements,
  PartEvaluator,
  rangeToKeep,
  shownValue,
  withReadings,
  type Design,
  type DialFlex,
  type Fault,
  type Judgement,
  type PairFault,
  type SolidKernel,
} from '@helb/core';
import { watchedKernel } from './watched.ts';

export interface CheckReport {
  readonly name: string;
  /** What does not stand as the design is. */
  readonly faults: readonly Fault[];
  readonly requirements: readonly Judgement[];
  /** What does not fit where parts stand in each assembly, as sentences; null where it was not asked for. */
  readonly fits: readonly string[] | null;
  readonly flex: {
    readonly dials: readonly DialFlex[];
    readonly pairs: readonly PairFault[];
    /** Dials that were not moved, and why. */
    readonly left: readonly string[];
  } | null;
}

/**
 * @param fit gaps below this are told, mm, with all else that does not fit; null: fits are not looked at
 * @param tell told of each dial that is done, and of each pair
 */
export async function checkDesign(
  design: Design,
  { flexed, fit }: { readonly flexed: boolean; readonly fit: number | null },
  tell: (what: string) => void,
): Promise<CheckReport> {
  const kernel = await watchedKernel();
  const evaluator = new PartEvaluator(kernel);
  const trying = async (tried: Parameters<typeof attempt>[1]) => {
    const outcome = await attempt(design, tried, evaluator, kernel);
    evaluator.sweep();
    return outcome;
  };
  const { faults } = await trying([]);
  const settled = await withReadings(design, evaluator, kernel);
  const requirements = judgeRequirements(settled);
  const fits = fit === null ? null : await misfits(settled, fit, evaluator, kernel);
  if (!flexed) return { name: design.name, faults, requirements, fits, flex: null };
  const { dials, left } = dialRanges(design);
  const found: DialFlex[] = [];
  for (const dial of dials) {
    tell(dial.name);
    found.push(await flexDial(dial, trying, faults, () => {}));
  }
  if (found.length > 1) tell('pairs of dials');
  return {
    name: design.name,
    faults,
    requirements,
    fits,
    flex: { dials: found, pairs: await flexPairs(found, trying, faults, () => {}), left },
  };
}

/** Of every assembly; what a press fit or a gap means is none. */
async function misfits(
  design: Design,
  clearance: number,
  evaluator: PartEvaluator,
  kernel: SolidKernel,
): Promise<string[]> {
  const told: string[] = [];
  for (const id of design.assemblyOrder ?? []) {
    const { name } = design.assemblies![id]!;
    const { names, findings, fault } = await fitAtHome(design, id, clearance, evaluator, kernel);
    evaluator.sweep();
    if (fault !== null) told.push(`${name} could not be checked: ${fault}`);
    const words = { name: (key: string) => names.get(key) ?? key, length: (mm: number) => formatQuantity(mm, 'length', design.units) }; // prettier-ignore
    for (const f of findings) {
      if (('wanted' in f && f.wanted) || isWithinOne(design, id, f.members)) continue;
      told.push(`${name}: ${fitSentence(f, words)}`);
    }
  }
  return told;
}

/** Is all of it in one assembly that stands there as it is? Then it is told of that one. */
function isWithinOne(design: Design, assembly: string, members: readonly string[]): boolean {
  const [first] = new Set(members.map((key) => key.split('/')[0]!));
  const own = design.assemblies![assembly]!.instances[first!];
  return members.every((key) => key.startsWith(`${first}/`)) && own !== undefined && 'assembly' in own.of && !own.moves;
}

/** Does everything stand, within the ranges that the design allows? */
export function isSound({ faults, fits, flex }: CheckReport): boolean {
  return (
    faults.length === 0 &&
    (fits === null || fits.length === 0) &&
    (flex === null || (flex.dials.every(standsThroughout) && flex.pairs.length === 0))
  );
}

const standsThroughout = ({ dial, below, above }: DialFlex) => dial.proposed || (below === null && above === null);

/** The report as text for a terminal. */
export function printCheck(design: Design, { faults, requirements, fits, flex }: CheckReport): void {
  console.log(design.name);
  for (const fault of faults) if (fault.how !== 'requirement') console.log(`  ✗ ${faultSentence(design, fault)}`);
  for (const { says, holds, because } of requirements) console.log(`  ${holds ? '✓' : '✗'} ${says}  (${because})`);
  if (faults.length === 0)
    console.log(`  ✓ every step stands${(design.assemblyOrder ?? []).length > 0 ? ', and every joint is met' : ''}`);
  for (const misfit of fits ?? []) console.log(`  ✗ ${misfit}`);
  if (fits?.length === 0) console.log('  ✓ everything fits where it stands');
  if (!flex) return;
  for (const found of flex.dials) printDial(design, found);
  for (const { dials, at, faults } of flex.pairs) {
    const of = dials.map((ref) => flex.dials.find((f) => f.dial.ref === ref)!.dial);
    console.log(
      `  ✗ ${of.map((d, i) => `${d.name} ${shownValue(d, at[i]!, design.units)}`).join(' with ')}: ${faultSentence(design, faults[0]!)}`,
    );
  }
  for (const sentence of flex.left) console.log(`  – ${sentence}`);
}

function printDial(design: Design, found: DialFlex): void {
  const { dial, below, above, samples } = found;
  const range = `${shownValue(dial, dial.min, design.units)} to ${shownValue(dial, dial.max, design.units)}${dial.proposed ? ', tried as it has no range' : ''}`;
  if (!below && !above) {
    console.log(`  ✓ ${dial.name} (${range}): stands at all ${samples.length} values looked at`);
    return;
  }
  const keep = rangeToKeep(found, design.units);
  console.log(`  ✗ ${dial.name} (${range}): stands ${keep ? `from ${shownValue(dial, keep.min, design.units)} to ${shownValue(dial, keep.max, design.units)}` : `only at ${shownValue(dial, dial.now, design.units)}`}`); // prettier-ignore
  for (const limit of [below, above])
    if (limit)
      console.log(
        `      at ${shownValue(dial, limit.fails, design.units)}: ${faultSentence(design, limit.faults[0]!)}`,
      );
}
