/** What the evaluation worker tells the page about a part. Plain data that crosses threads. */
import type { EdgeFacts, FaceFacts, Frame, SketchGeometry, SolidMesh, Vec3 } from '@helb/core';

export interface BodyView {
  id: string;
  name: string;
  /** Equal keys, equal solids. */
  key: string;
  mesh: SolidMesh;
  faceNames: readonly string[];
  faces: readonly FaceFacts[];
  edges: readonly EdgeFacts[];
  volume: number;
  center: Vec3;
  box: { min: Vec3; max: Vec3 };
}

export interface SketchView {
  frame: Frame;
  geometry: SketchGeometry;
  solved: boolean;
  freedoms: number;
  loose: readonly string[];
  redundant: readonly string[];
  clash: readonly string[];
}

export interface StepView {
  id: string;
  status: 'ok' | 'failed' | 'suppressed';
  message: string | null;
  sketch: SketchView | null;
}

export interface PartView {
  part: string;
  steps: StepView[];
  bodies: BodyView[];
  /** Bodies as they are before the step being edited, when one is. */
  before: { step: string; bodies: BodyView[] } | null;
}

/** What is being computed, for the progress line. */
export interface Progress {
  part: string;
  step: string;
  done: number;
  total: number;
}
