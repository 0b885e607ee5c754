/** What is shown of an evaluated part: plain data that crosses threads, wires and visits. */
import type { Design } from '../document/schema.ts';
import type { Ledger } from '../ledger/ledger.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import type { EdgeFacts, FaceFacts, Frame, SolidKernel, SolidMesh, Vec3 } from '../solid/kernel.ts';
import type { Body, Cure } from '../names/body.ts';
import { isBorrowed } from '../names/borrowed.ts';
import { faceKeys } from '../names/face-keys.ts';
import { nameOf, readName } from '../names/name.ts';
import type { NamedBody } from '../names/neighbours.ts';
import type { Datum, Doubt } from '../slots/resolving.ts';
import type { Handle } from '../steps/step.ts';
import type { PartOutcome, StepOutcome } from './outcome.ts';
import { outsideOfPart, partsIn } from '../document/outside.ts';
import { hashText } from '../ids/hash.ts';

export interface BodyView {
  /** What tells it apart from the others shown; not to be stored. */
  id: string;
  /** The step that began it. */
  step: string;
  /** Its durable name. */
  name: string;
  /** Equal keys, equal solids. */
  key: string;
  mesh: SolidMesh;
  /** Of each face, every name that led to it. */
  faceNames: readonly (readonly string[])[];
  /** Of each face, a text that no other face of the part has. */
  faceKeys: readonly string[];
  faces: readonly FaceFacts[];
  edges: readonly EdgeFacts[];
  /** Where its corners are, by the numbers that the edges' ends give. */
  corners: readonly Vec3[];
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
  tells: string | null;
  cure: Cure | null;
  doubts: readonly Doubt[];
  handles: readonly Handle[];
  sketch: SketchView | null;
  datum: Datum | null;
}

export interface PartView {
  part: string;
  steps: StepView[];
  bodies: BodyView[];
  /** Of other parts, where they stand to this one. */
  borrowed: BodyView[];
  /** Bodies as they are before and after the step being edited, when one is. */
  around: { step: string; before: BodyView[]; after: BodyView[] } | null;
}

/** Relative to the part's size: fine enough for the screen, coarse enough to be quick. */
const SCREEN_DEVIATION = 0.0008;
const SCREEN_ANGLE = 12 * (Math.PI / 180);
const MOST_MESHES = 150;
/** Part of every key: raise when the meaning of a stored picture changes. */
const GENERATION = 9;

/** All a part's picture depends on, as a key: its recipe, and the values of its numbers. */
export function pictureKey(design: Design, ledger: Ledger, part: string): string {
  const beyond = new Set<string>();
  const assemblies = new Set<string>();
  const rests = new Set([part]);
  for (const own of rests)
    for (const outside of outsideOfPart(design, own)) {
      rests.add(outside.part);
      if (!outside.assembly) continue;
      // Where things stand there rests on all that stands there.
      for (const other of partsIn(design, outside.assembly, beyond, assemblies)) rests.add(other);
    }
  const keys = [...rests].map((own) => recipeKey(design, ledger, own));
  const stand = [...assemblies].map((id) => [id, design.assemblies?.[id], jointNumbers(design, ledger, id)]);
  return hashText(JSON.stringify([GENERATION, keys, ...(stand.length > 0 ? [stand] : [])]));
}

const valueIn = (ledger: Ledger, entry: Ledger['entries'][number]) => {
  const value = ledger.valueOfEntry(entry);
  return value.ok ? value.quantity.value : value.message;
};

/** Values of the numbers of an assembly’s joints. */
function jointNumbers(design: Design, ledger: Ledger, assembly: string): unknown[] {
  const own = design.assemblies?.[assembly];
  const ids = new Set([...Object.keys(own?.joints ?? {}), ...Object.keys(own?.couplings ?? {})]);
  return ledger.entries.filter((e) => 'joint' in e.owner && ids.has(e.owner.joint)).map((e) => valueIn(ledger, e));
}

function recipeKey(design: Design, ledger: Ledger, part: string): unknown {
  const numbers = ledger.entries
    .filter((e) => 'step' in e.owner && e.owner.part === part)
    .map((e) => valueIn(ledger, e));
  return [part, design.parts[part], numbers];
}

/** Draws parts for the screen; the mesh of an unchanged body is made once. */
export class PartPainter {
  private readonly meshes = new Map<string, SolidMesh>();

  constructor(private readonly kernel: SolidKernel) {}

  /** @param around also show the bodies as they are before and after this step */
  paint(outcome: PartOutcome, around: string | null = null): PartView {
    const at = around === null ? -1 : outcome.steps.findIndex((s) => s.id === around);
    const all = (i: number) => this.bodyViews(outcome.steps[i]?.bodies ?? []);
    return {
      part: outcome.part,
      steps: outcome.steps.map(stepView),
      bodies: this.bodyViews(outcome.bodies),
      borrowed: this.bodyViews(outcome.steps.at(-1)?.bodies.filter(isBorrowed) ?? []),
      around: at < 0 ? null : { step: around!, before: all(at - 1), after: all(at) },
    };
  }

  private bodyViews(bodies: readonly Body[]): BodyView[] {
    const keys = faceKeys(bodies);
    const seen = new Map<string, number>();
    return bodies.map((body, i) => {
      const count = (seen.get(body.name.text) ?? 0) + 1;
      seen.set(body.name.text, count);
      return this.bodyView(body, count === 1 ? body.name.text : `${body.name.text}~${count}`, keys[i]!);
    });
  }

  private bodyView(body: Body, id: string, keys: readonly string[]): BodyView {
    const { facts } = body;
    let mesh = this.meshes.get(body.key);
    // Drawn last, let go last.
    this.meshes.delete(body.key);
    if (!mesh) {
      const { min, max } = facts.box;
      const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
      mesh = this.kernel.mesh(body.solid, { linear: size * SCREEN_DEVIATION, angular: SCREEN_ANGLE });
    }
    this.meshes.set(body.key, mesh);
    const { faces, edges, corners, volume, center, box } = facts;
    return {
      id,
      step: body.name.step,
      name: body.name.text,
      key: body.key,
      mesh,
      faceNames: body.faceNames.map((names) => names.map((n) => n.text)),
      faceKeys: keys,
      faces,
      edges,
      corners,
      volume,
      center,
      box,
    };
  }

  /** Let go of the meshes drawn longest ago, once there are many. */
  sweep(): void {
    const spare = this.meshes.size - MOST_MESHES;
    for (const key of [...this.meshes.keys()].slice(0, Math.max(0, spare))) this.meshes.delete(key);
  }
}

function stepView({ id, status, message, tells, cure, doubts, handles, sketch, datum }: StepOutcome): StepView {
  if (!sketch) return { id, status, message, tells, cure, doubts, handles, datum, sketch: null };
  const { geometry, solved, freedoms, loose, redundant, clash } = sketch.solution;
  return {
    id,
    status,
    message,
    tells,
    cure,
    doubts,
    handles,
    datum,
    sketch: { frame: sketch.frame, geometry, solved, freedoms, loose: [...loose], redundant, clash },
  };
}

const named = new WeakMap<BodyView, NamedBodyView>();

/** A shown body as durable names are found and made on it. */
export interface NamedBodyView extends NamedBody {
  readonly facts: NamedBody['facts'] & { readonly center: Vec3; readonly corners: readonly Vec3[] };
}

export function namedBody(view: BodyView): NamedBodyView {
  const known = named.get(view);
  if (known) return known;
  const read = (text: string) => readName(text) ?? nameOf(text, 'unread');
  const { faces, edges, corners, center } = view;
  const body = {
    name: read(view.name),
    faceNames: view.faceNames.map((names) => names.map(read)),
    facts: { faces, edges, corners, center },
  };
  named.set(view, body);
  return body;
}
