/** How each kind of slot is filled where it stands in its sentence. */
import type { Component } from 'vue';
import AxisSlot from './AxisSlot.vue';
import BodiesSlot from './BodiesSlot.vue';
import ChoiceSlot from './ChoiceSlot.vue';
import DrawingSlot from './DrawingSlot.vue';
import EdgesSlot from './EdgesSlot.vue';
import FileSlot from './FileSlot.vue';
import KeptSlot from './KeptSlot.vue';
import NumberSlot from './NumberSlot.vue';
import PickSlot from './PickSlot.vue';
import PointSlot from './PointSlot.vue';
import PointsSlot from './PointsSlot.vue';
import PathSlot from './PathSlot.vue';
import PathsSlot from './PathsSlot.vue';
import SectionsSlot from './SectionsSlot.vue';
import SourceSlot from './SourceSlot.vue';
import StepsSlot from './StepsSlot.vue';
import TextSlot from './TextSlot.vue';

const editors: Readonly<Record<string, Component>> = {
  expression: NumberSlot,
  count: NumberSlot,
  choice: ChoiceSlot,
  flag: ChoiceSlot,
  text: TextSlot,
  regions: PickSlot,
  faces: PickSlot,
  edges: EdgesSlot,
  plane: PickSlot,
  sketch: PickSlot,
  axis: AxisSlot,
  direction: AxisSlot,
  point: PointSlot,
  points: PointsSlot,
  steps: StepsSlot,
  path: PathSlot,
  paths: PathsSlot,
  sections: SectionsSlot,
  bodies: BodiesSlot,
  drawing: DrawingSlot,
  file: FileSlot,
  source: SourceSlot,
  kept: KeptSlot,
};

/** @throws Error for a kind that has none: a fault of the program */
export function editorOf(kind: string): Component {
  const editor = editors[kind];
  if (!editor) throw new Error(`no editor for slots of kind ${kind}`);
  return editor;
}
