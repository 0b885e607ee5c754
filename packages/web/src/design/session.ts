/** What the designer is doing now: which part, which step, what is picked. None of it is saved. */
import type { FaceRef, Picked, Pose, Vec3 } from '@helb/core';
import type { Drawing } from '../stage/body-objects.ts';
import type { SectionPlane } from '../stage/section.ts';
import { useModes } from '../modes/mode-stack.ts';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';

type PickedAs<K extends Picked['kind']> = Extract<Picked, { kind: K }>;

/** What is picked, and what the stage needs to show it. */
export type Pick =
  | (PickedAs<'face'> & { readonly body: string; readonly face: number; readonly label: string })
  | (PickedAs<'edge'> & { readonly body: string; readonly edge: number; readonly label: string })
  | (PickedAs<'region'> & { readonly key: string })
  | (PickedAs<'vertex'> & { readonly at: Vec3 })
  | PickedAs<'sketch_point'>
  | PickedAs<'step'>
  | PickedAs<'line'>
  | PickedAs<'datum'>;

export const useSession = defineStore('session', () => {
  const activePart = ref<string | null>(null);
  /** The assembly on the stage, in place of a part. */
  const activeAssembly = ref<string | null>(null);
  /** The sheet on the stage, in place of both. */
  const activeSheet = ref<string | null>(null);
  /** The outlines on the stage, in place of all these. */
  const activeOutlines = ref<string | null>(null);
  /** Where the part on the stage is seen among others: the assembly, and its instance there, outermost first. */
  const inPlace = shallowRef<{ readonly assembly: string; readonly instance: readonly string[] } | null>(null);
  /** The part beside it that is pointed out, by its key among those that stand there. */
  const beside = ref<string | null>(null);
  // What one is in the middle of stands on one stack; here each by its name.
  const modes = useModes();
  const sketching = modes.slot('sketch');
  const editing = modes.slot('fill');
  const pickingFor = modes.slot('pick');
  const said = modes.slot('say');
  const tool = modes.slot('tool');
  const changing = modes.slot('change');
  const traced = modes.slot('trace');
  const flexing = modes.slot('flex');
  const remembering = modes.slot('history');
  const standing = modes.slot('stand');
  // Picks are stored in the document as they are, so they stay plain.
  const picks = shallowRef<Pick[]>([]);
  /** Picked points, curves and constraints of the open sketch. */
  const entities = ref<string[]>([]);
  /** A sentence beside the verbs: why something could not be done. */
  const notice = ref<string | null>(null);
  /** A dimension pointed at anywhere lights up everywhere. */
  const hoveredDimension = ref<string | null>(null);
  /** Asks the stage to open this dimension's number for typing. */
  const dimensionToEdit = ref<string | null>(null);

  /** Its graph lies over the lower stage, until it is put away. */
  const showTraceGraph = ref(true);
  /** Faces lit on the stage besides the picked ones, by durable name, of the part on the stage. */
  const litFaces = shallowRef<ReadonlyMap<string, 'moved' | 'reshaped'>>(new Map());
  /** Asks the ledger to open this dimension's name for typing. */
  const dimensionToName = ref<string | null>(null);
  /** The tray shows the table of variants instead of the parts. */
  const showVariants = ref(false);
  /** The dials over their ranges stand in place of the stage. */
  const showFlex = computed({
    get: () => flexing.value !== null,
    set: (shown) => (flexing.value = shown ? true : null),
  });

  /** The parts of the assembly are listed over the lower stage. */
  const showParts = ref(false);

  /** What was done stands in place of the recipe. */
  const showHistory = computed({
    get: () => remembering.value !== null,
    set: (shown) => (remembering.value = shown ? true : null),
  });

  /** The dimension whose tolerance text is being written. */
  const toleranceOf = ref<string | null>(null);

  /** A DXF drawing is being chosen and taken in. */
  const readingDxf = ref(false);

  /** Where the bodies on the stage are cut open to be looked into; nothing is changed by it. */
  const section = shallowRef<readonly SectionPlane[]>([]);

  /** How the bodies on the stage are drawn, and which of them are not. */
  const drawing = ref<Drawing>('shaded');
  const hidden = shallowRef<ReadonlySet<string>>(new Set());

  /** Sketches that are shown though steps have used them. */
  const shownSketches = shallowRef<ReadonlySet<string>>(new Set());

  /** What the part, or one body of it, weighs is shown; its centre from a picked place, in the axes of a picked frame, or from the origin. */
  const weighing = shallowRef<{
    readonly body: string | null;
    readonly from: { readonly pose: Pose; readonly label: string } | null;
  } | null>(null);

  /** The outline of this flat face is being written to a file. */
  const outlining = shallowRef<FaceRef | null>(null);

  /** The step at which one stands: what was there before it can be picked, what comes later is not shown. */
  const workedOn = computed(() => sketching.value ?? pickingFor.value?.step ?? editing.value ?? standing.value);
  const inSketch = computed(() => sketching.value !== null);

  function openPart(id: string | null): void {
    leaveSketch();
    activePart.value = id;
    activeAssembly.value = null;
    activeSheet.value = null;
    activeOutlines.value = null;
    inPlace.value = null;
    beside.value = null;
    showFlex.value = false;
    outlining.value = null;
    section.value = [];
    hidden.value = new Set();
    shownSketches.value = new Set();
    weighing.value = null;
    editing.value = null;
    standing.value = null;
    pickingFor.value = null;
    said.value = null;
    picks.value = [];
  }

  /** A part with the others of an assembly round it. */
  function openInPlace(part: string, at: NonNullable<typeof inPlace.value>): void {
    openPart(part);
    inPlace.value = at;
  }

  function openAssembly(id: string): void {
    openPart(null);
    activeAssembly.value = id;
  }

  function openSheet(id: string): void {
    openPart(null);
    activeSheet.value = id;
  }

  function openOutlines(id: string): void {
    openPart(null);
    activeOutlines.value = id;
  }

  function openSketch(step: string): void {
    picks.value = [];
    entities.value = [];
    tool.value = null;
    changing.value = null;
    notice.value = null;
    pickingFor.value = null;
    said.value = null;
    editing.value = null;
    section.value = [];
    sketching.value = step;
  }

  /** Stand at a step: the part is as it was made so far, and what is made now follows it. */
  function standAt(step: string): void {
    leaveSketch();
    picks.value = [];
    pickingFor.value = null;
    editing.value = null;
    standing.value = step;
  }

  function leaveSketch(): void {
    // Tool and change go with it.
    sketching.value = null;
    entities.value = [];
    notice.value = null;
  }

  return {
    activePart,
    activeAssembly,
    activeSheet,
    activeOutlines,
    inPlace,
    beside,
    sketching,
    editing,
    pickingFor,
    said,
    shownSketches,
    picks,
    entities,
    tool,
    changing,
    standing,
    notice,
    hoveredDimension,
    dimensionToEdit,
    traced,
    showTraceGraph,
    litFaces,
    dimensionToName,
    showVariants,
    showFlex,
    showParts,
    showHistory,
    toleranceOf,
    readingDxf,
    outlining,
    section,
    drawing,
    hidden,
    weighing,
    inSketch,
    workedOn,
    openPart,
    openInPlace,
    openAssembly,
    openSheet,
    openOutlines,
    openSketch,
    standAt,
    leaveSketch,
  };
});
