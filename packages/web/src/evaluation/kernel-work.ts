/** What else the kernel is asked for, besides the picture: readings, traces, variants, files. */
import {
  findSource,
  ExportFailure,
  exportAssembly,
  exportFace,
  exportParts,
  KernelError,
  keptOf,
  Ledger,
  MeasureFailure,
  movedFaces,
  nudged,
  readMeasure,
  ReadingsAdrift,
  readyVariant,
  standingWeight,
  surveyVariant,
  together,
  unmetOfAll,
  withReadings,
  type BorrowSource,
  Superseded,
  type Design,
  type DrawingFormat,
  type EvaluationHooks,
  type FaceRef,
  type FoundSource,
  type Kept,
  type Measure,
  type MovedFace,
  type PartEvaluator,
  type Pose,
  type SolidFormat,
  type SolidKernel,
  type Unmet,
  type VariantSurvey,
  type Weight,
  type WrittenFace,
} from '@helb/core';
import * as Comlink from 'comlink';

interface Tools {
  readonly kernel: SolidKernel;
  readonly evaluator: PartEvaluator;
}

export interface SurveyListener {
  /** A step begins: the kernel is alive. */
  step(): void;
  one(survey: VariantSurvey): void | Promise<void>;
}

/**
 * @param exclusive runs work while nothing else uses the kernel
 * @param breathe lets messages in
 * @param held the design as the page last had it; asked for when the work is asked for
 */
export function kernelWork(
  ready: Promise<Tools>,
  exclusive: <T>(work: () => Promise<T>) => Promise<T>,
  breathe: () => Promise<void>,
  held: () => Design,
) {
  /** Counts surveys, so that a newer one, or a stop, ends the one before. */
  let surveys = 0;

  /** On the design with its readings true: they follow an edit a moment later. @throws ReadingsAdrift */
  async function onSettled<T>(work: (design: Design, tools: Tools) => Promise<T>): Promise<T> {
    const design = held();
    const tools = await ready;
    return exclusive(async () => work(await withReadings(design, tools.evaluator, tools.kernel), tools));
  }

  async function exportDesign(format: SolidFormat, parts: readonly string[]): Promise<Uint8Array> {
    const bytes = await onSettled((design, { evaluator, kernel }) => exportParts(design, format, parts, evaluator, kernel)); // prettier-ignore
    return Comlink.transfer(bytes, [bytes.buffer]);
  }

  /** An assembly as it stands at home. */
  async function exportTogether(format: SolidFormat, assembly: string): Promise<Uint8Array> {
    const bytes = await onSettled((design, { evaluator, kernel }) => exportAssembly(design, assembly, format, evaluator, kernel)); // prettier-ignore
    return Comlink.transfer(bytes, [bytes.buffer]);
  }

  /** A flat face as a drawing, or why there is none, as a sentence. */
  async function exportOutline(
    part: string,
    face: FaceRef,
    format: DrawingFormat,
    grown: number,
    engraving: string | null,
  ): Promise<WrittenFace | string> {
    try {
      return await onSettled((design, { evaluator, kernel }) => exportFace(design, part, face, format, grown, engraving, evaluator, kernel)); // prettier-ignore
    } catch (error) {
      if (error instanceof ExportFailure || error instanceof KernelError || error instanceof ReadingsAdrift)
        return error.message;
      throw error;
    }
  }

  /** What a step borrows, to be kept as it is; a sentence where that cannot be. */
  async function keep(part: string, step: string): Promise<Kept | string> {
    try {
      return await onSettled((design, { evaluator, kernel }) => keptOf(design, part, step, evaluator, kernel));
    } catch (error) {
      if (error instanceof ExportFailure || error instanceof KernelError || error instanceof ReadingsAdrift)
        return error.message;
      throw error;
    }
  }

  /** All parts of one variant as a file. */
  async function exportVariant(variant: string, format: SolidFormat): Promise<Uint8Array> {
    const design = held();
    const { kernel, evaluator } = await ready;
    const bytes = await exclusive(async () => {
      const own = await readyVariant(design, variant, evaluator, kernel);
      return exportParts(own, format, own.partOrder, evaluator, kernel);
    });
    return Comlink.transfer(bytes, [bytes.buffer]);
  }

  /** What a sketch would borrow from the bodies before it; a sentence when that is not to be had. */
  async function borrow(part: string, step: string, source: BorrowSource): Promise<FoundSource['pieces'] | string> {
    const design = held();
    const { kernel, evaluator } = await ready;
    return exclusive(async () => {
      try {
        const outcome = await evaluator.evaluate(design, Ledger.of(design), part);
        const at = outcome.steps.findIndex((s) => s.id === step);
        const frame = outcome.steps[at]?.sketch?.frame;
        if (!frame) return 'This sketch has no plane yet; pick one for it first.';
        const finding = findSource(source, frame, outcome.steps[at - 1]?.bodies ?? [], kernel);
        return finding.how === 'lost' ? 'This is no longer there; pick it again.' : finding.found.pieces;
      } catch (error) {
        if (error instanceof KernelError) return error.message;
        throw error;
      }
    });
  }

  /** What a measure reads now, as an expression. */
  async function read(measure: Measure): Promise<{ text: string } | { message: string }> {
    const design = held();
    const { kernel, evaluator } = await ready;
    return exclusive(async () => {
      try {
        const outcome = await evaluator.evaluate(design, Ledger.of(design), measure.part);
        return { text: readMeasure(measure, design, outcome, kernel).text };
      } catch (error) {
        if (error instanceof KernelError || error instanceof MeasureFailure) return { message: error.message };
        throw error;
      }
    });
  }

  /** What these bodies of a part weigh together, density 1; null when the part has none of them any more. */
  async function weigh(part: string, keys: readonly string[]): Promise<{ weight: Weight; exact: boolean } | null> {
    const design = held();
    const { kernel, evaluator } = await ready;
    return exclusive(async () => {
      const { bodies } = await evaluator.evaluate(design, Ledger.of(design), part);
      const own = bodies.filter((b) => keys.includes(b.key));
      if (own.length === 0) return null;
      const all = own.map(({ solid, facts: { volume, center } }) => ({ volume, center, ...kernel.inertia(solid) }));
      return { weight: together(all), exact: all.every((b) => b.exact) };
    });
  }

  /** Parts that stand together, kg and kg·mm²; null when none of them is solid. @param placed each kg a mm³ */
  async function weighTogether(
    placed: readonly { readonly part: string; readonly pose: Pose; readonly density: number }[],
  ): Promise<{ weight: Weight; exact: boolean } | null> {
    const design = held();
    const { kernel, evaluator } = await ready;
    return exclusive(async () => {
      const of = new Map<string, { weight: Weight; exact: boolean } | null>();
      for (const { part } of placed) {
        if (of.has(part)) continue;
        const { bodies } = await evaluator.evaluate(design, Ledger.of(design), part);
        const all = bodies.map(({ solid, facts: { volume, center } }) => ({
          volume,
          center,
          ...kernel.inertia(solid),
        }));
        of.set(part, all.length > 0 ? { weight: together(all), exact: all.every((b) => b.exact) } : null);
      }
      const own = placed.flatMap(({ part, pose, density }) => {
        const found = of.get(part);
        return found ? [{ ...standingWeight(found.weight, pose, density), exact: found.exact }] : [];
      });
      return own.length > 0 ? { weight: together(own), exact: own.every((w) => w.exact) } : null;
    });
  }

  /** What does not hold together, of all assemblies. */
  async function unmet(): Promise<Unmet[]> {
    const design = held();
    const { evaluator } = await ready;
    return exclusive(() => unmetOfAll(design, evaluator, { breathe }));
  }

  /** Faces of these parts that would move with a dimension; null when it cannot be changed to see. */
  async function movedBy(ref: string, parts: readonly string[]): Promise<Map<string, MovedFace[]> | null> {
    const design = held();
    const { evaluator } = await ready;
    const other = nudged(design, ref);
    if (!other) return null;
    const moved = new Map<string, MovedFace[]>();
    for (const part of parts) {
      const faces = await exclusive(async () => {
        const before = await evaluator.evaluate(design, Ledger.of(design), part);
        return movedFaces(before, await evaluator.evaluate(other, Ledger.of(other), part));
      });
      if (faces.length > 0) moved.set(part, faces);
      await breathe();
    }
    return moved;
  }

  /** Compute variants one after another, telling of each. Resolves false when stopped. */
  async function survey(variants: readonly string[], listener: SurveyListener): Promise<boolean> {
    const design = held();
    const own = ++surveys;
    const { kernel, evaluator } = await ready;
    const hooks: EvaluationHooks = {
      progress: () => listener.step(),
      async breathe() {
        await breathe();
        if (own !== surveys) throw new Superseded();
      },
    };
    try {
      for (const variant of variants) {
        const found = await exclusive(() => surveyVariant(design, variant, evaluator, kernel, hooks));
        await hooks.breathe!();
        // Waited for: the page hears of the last one before it hears of the end.
        await listener.one(found);
      }
      return true;
    } catch (error) {
      if (error instanceof Superseded) return false;
      throw error;
    }
  }

  return {
    exportDesign,
    exportTogether,
    exportOutline,
    keep,
    exportVariant,
    borrow,
    read,
    weigh,
    weighTogether,
    movedBy,
    unmet,
    survey,
    stopSurvey(): void {
      surveys++;
    },
  };
}
