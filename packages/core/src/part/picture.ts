/** What is shown of an evaluated part: plain data that crosses threads, wires and visits. */
import type { Design } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import type { EdgeFacts, FaceFacts, Frame, SolidKernel, SolidMesh, Vec3 } from '../solid/kernel.ts';
import type { Body } from './body.ts';
import type { PartOutcome, StepOutcome } from './evaluate.ts';
import { hashText } from './hash.ts';

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

/** Relative to the part's size: fine enough for the screen, coarse enough to be quick. */
const SCREEN_DEVIATION = 0.0008;
const SCREEN_ANGLE = 12 * (Math.PI / 180);
/** Part of every key: raise when the meaning of a stored picture changes. */
const GENERATION = 1;

/** All a part's picture depends on, as a key: its recipe, and the values of its numbers. */
export function pictureKey(design: Design, ledger: Ledger, part: string): string {
  const numbers = ledger.entries
    .filter((e) => 'step' in e.owner && e.owner.part === part)
    .map((e) => {
      const value = ledger.valueOfEntry(e);
      return value.ok ? value.quantity.value : value.message;
    });
  return hashText(JSON.stringify([GENERATION, part, design.parts[part], numbers]));
}

/** Draws parts for the screen; the mesh of an unchanged body is made once. */
export class PartPainter {
  private readonly meshes = new Map<string, SolidMesh>();

  constructor(private readonly kernel: SolidKernel) {}

  /** @param before also show the bodies as they are before this step */
  paint(outcome: PartOutcome, before: string | null = null): PartView {
    const at = before === null ? -1 : outcome.steps.findIndex((s) => s.id === before);
    const view = (body: Body) => this.bodyView(body);
    return {
      part: outcome.part,
      steps: outcome.steps.map(stepView),
      bodies: outcome.bodies.map(view),
      before: at < 0 ? null : { step: before!, bodies: (outcome.steps[at - 1]?.bodies ?? []).map(view) },
    };
  }

  private bodyView(body: Body): BodyView {
    const { facts } = body;
    let mesh = this.meshes.get(body.key);
    if (!mesh) {
      const { min, max } = facts.box;
      const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
      mesh = this.kernel.mesh(body.solid, { linear: size * SCREEN_DEVIATION, angular: SCREEN_ANGLE });
      this.meshes.set(body.key, mesh);
    }
    const { faces, edges, volume, center, box } = facts;
    return {
      id: body.id,
      name: body.name,
      key: body.key,
      mesh,
      faceNames: body.faceNames,
      faces,
      edges,
      volume,
      center,
      box,
    };
  }

  /** Let go of the meshes of all but these bodies, once there are many. */
  sweep(shown: readonly Body[]): void {
    const keep = new Set(shown.map((b) => b.key));
    if (this.meshes.size > keep.size + 100)
      for (const key of this.meshes.keys()) if (!keep.has(key)) this.meshes.delete(key);
  }
}

function stepView({ id, status, message, sketch }: StepOutcome): StepView {
  if (!sketch) return { id, status, message, sketch: null };
  const { geometry, solved, freedoms, loose, redundant, clash } = sketch.solution;
  return {
    id,
    status,
    message,
    sketch: { frame: sketch.frame, geometry, solved, freedoms, loose: [...loose], redundant, clash },
  };
}
