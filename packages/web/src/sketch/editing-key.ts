import type { InjectionKey } from 'vue';
import type { SketchEditing } from './sketch-editing.ts';

/** The open sketch's editing, for panels beside the stage. */
export const SKETCH_EDITING: InjectionKey<SketchEditing> = Symbol('sketch editing');
