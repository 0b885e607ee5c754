/** Computing and exporting the design's variants, with progress and a stop. */
import type { SolidFormat, VariantSurvey } from '@helb/core';
import { until } from '@vueuse/core';
import * as Comlink from 'comlink';
import { zip } from 'fflate';
import { computed, shallowRef } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { FILE_TYPE, saveFile } from '../shell/save-file.ts';

export function useVariantWork() {
  const design = useDesign();
  const evaluation = useEvaluation();
  /** What each variant came to, and of which state of the design. */
  const surveys = shallowRef<ReadonlyMap<string, { readonly of: object; readonly survey: VariantSurvey }>>(new Map());
  const progress = shallowRef<{ readonly doing: string; readonly done: number; readonly total: number } | null>(null);
  let stopped = false;

  /** A survey of a design since changed says nothing. */
  const fresh = computed(() => {
    const of = design.kept;
    return new Map([...surveys.value].filter(([, s]) => s.of === of).map(([id, s]) => [id, s.survey]));
  });

  async function computeAll(): Promise<void> {
    const total = design.kept?.variants?.order.length ?? 0;
    if (total === 0) return;
    let done = 0;
    const tell = () => (progress.value = { doing: 'Computing variants', done, total });
    stopped = false;
    tell();
    try {
      // What the model measures may still follow the last edit, and that would be another design.
      await until(() => evaluation.busy).toBe(false);
      const of = design.kept;
      if (stopped || !of) return;
      await evaluation.on(of).survey(
        of.variants?.order ?? [],
        Comlink.proxy({
          step: evaluation.sign,
          one(survey: VariantSurvey) {
            surveys.value = new Map(surveys.value).set(survey.variant, { of, survey });
            done++;
            // One may be told of after the end.
            if (progress.value) tell();
          },
        }),
      );
    } catch (error) {
      toast.error((error as Error).message);
    } finally {
      progress.value = null;
    }
  }

  function stop(): void {
    stopped = true;
    evaluation.stopSurvey();
  }

  /** Each variant as a file of its own; several come in one archive. Failing ones are named and left out. */
  async function exportEach(ids: readonly string[], format: SolidFormat): Promise<void> {
    const of = design.kept;
    if (!of) return;
    stopped = false;
    const files: Record<string, Uint8Array> = {};
    const failed: string[] = [];
    for (const [done, id] of ids.entries()) {
      if (stopped) break;
      const { name } = of.variants!.rows[id]!;
      progress.value = { doing: `Writing ${name}`, done, total: ids.length };
      try {
        files[fileName(`${of.name} - ${name}`, format, files)] = await evaluation.on(of).exportVariant(id, format);
      } catch (error) {
        failed.push(`${name}: ${(error as Error).message}`);
      }
    }
    progress.value = null;
    for (const sentence of failed) toast.error(sentence, { duration: 15_000 });
    const written = Object.entries(files);
    if (stopped || written.length === 0) return;
    if (ids.length === 1) saveFile(written[0]![1], written[0]![0], FILE_TYPE[format]);
    else {
      const packed = await new Promise<Uint8Array>((resolve, reject) =>
        zip(files, { level: 6 }, (error, data) => (error ? reject(error) : resolve(data))),
      );
      saveFile(packed, `${of.name} - variants, ${format.toUpperCase()}.zip`, 'application/zip');
    }
    toast.success(`${written.length} of ${ids.length} ${ids.length === 1 ? 'variant is' : 'variants are'} written.`);
  }

  return { fresh, progress, computeAll, stop, exportEach };
}

/** Safe in any file system, and not yet in the archive. */
function fileName(wanted: string, format: SolidFormat, taken: Readonly<Record<string, unknown>>): string {
  const base = wanted.replace(/[\\/:*?"<>|]/g, '_');
  let name = `${base}.${format}`;
  for (let n = 2; name in taken; n++) name = `${base} ${n}.${format}`;
  return name;
}
