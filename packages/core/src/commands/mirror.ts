/** What makes parts and assemblies again on the other side of a plane: themselves turned, or their opposite hands. */
import { assembled, type Assembled, type LookAt } from '../assembly/assembled.ts';
import {
  jointsToMirror, mirroredCoupling, mirroredInstance, mirroredJoint, OPPOSITE_IN, oppositeSteps, ownMirror, type MirrorImage, type MirrorPlane, type StandsThere,
} from '../assembly/mirrored.ts'; // prettier-ignore
import type { Assembly, Instance, JointEnd } from '../document/assembly.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { newId } from '../ids/ids.ts';
import { Ledger } from '../ledger/ledger.ts';
import { poseWithin, type Pose } from '../space/pose.ts';
import { addAssembly, placeInstances } from './assembly.ts';
import { addCoupling, addJoint } from './joints.ts';
import { addPart, setMaterial } from './parts.ts';
import { addStep } from './steps.ts';

export interface MirrorWork {
  /** Opposite hands, and where all stands; done before its joints, as these are looked for on what is made here. */
  readonly first: readonly Edit[];
  /** Parts that are made for it: `look` must know them before the joints are asked for. */
  readonly fresh: readonly string[];
  /** @returns besides, how many have no place on the other side, and how many sit there on a frame that follows nothing */
  joints(look: LookAt): { readonly edits: readonly Edit[]; readonly lost: number; readonly still: number };
}

/** @param it the assembly as it stands. @throws EditRefused with a sentence where a part has no body to be looked at */
export function mirrorWork(
  design: Design,
  it: Assembled,
  ids: readonly string[],
  plane: MirrorPlane,
  look: LookAt,
): MirrorWork {
  const hands = new Hands(design, look);
  const own = design.assemblies![it.assembly]!;
  const outer = hands.side(own, it, it.assembly, plane, ids);
  // Beside their originals they are told apart by number, and may still move.
  const places = outer.places.map(([id, { name: _, fixed: __, ...rest }]): [string, Instance] => [id, rest]);
  return {
    first: [...hands.made, placeInstances(it.assembly, places)],
    fresh: hands.fresh,
    joints(fully) {
      const all = [...hands.wholes.values(), outer].map((side) => hands.joints(side, fully));
      const sum = (of: 'lost' | 'still') => all.reduce((total, a) => total + a[of], 0);
      return { edits: all.flatMap((a) => a.edits), lost: sum('lost'), still: sum('still') };
    },
  };
}

/** What of an assembly has an image, and where that is. */
interface MirrorSide {
  readonly own: Assembly;
  readonly it: Assembled;
  /** The assembly in which the images stand. */
  readonly as: string;
  readonly plane: MirrorPlane;
  /** Of instances. */
  readonly images: ReadonlyMap<string, { readonly id: string; readonly image: MirrorImage }>;
  readonly places: readonly [string, Instance][];
}

/** Opposite hands, each made once. */
class Hands {
  readonly made: Edit[] = [];
  readonly fresh: string[] = [];
  readonly wholes = new Map<string, MirrorSide>();
  private readonly parts = new Map<string, MirrorImage>();

  constructor(
    private readonly design: Design,
    private readonly look: LookAt,
  ) {}

  side(own: Assembly, it: Assembled, as: string, plane: MirrorPlane, ids: readonly string[]): MirrorSide {
    const images = new Map<string, { id: string; image: MirrorImage }>();
    const places = ids.map((id): [string, Instance] => {
      const instance = own.instances[id]!;
      const image = this.imageOf(instance.of);
      const fresh = newId('i');
      images.set(id, { id: fresh, image });
      // What moves within begins where it was put; all else where it was found.
      const stands = instance.moves ? null : standingAt(it, [id]);
      return [fresh, mirroredInstance(instance, stands?.pose ?? instance.home, image, plane)];
    });
    return { own, it, as, plane, images, places };
  }

  private imageOf(of: Instance['of']): MirrorImage {
    return 'part' in of
      ? this.ofPart(of.part)
      : { of: { assembly: this.ofAssembly(of.assembly).as }, plane: OPPOSITE_IN };
  }

  private ofPart(part: string): MirrorImage {
    const known = this.parts.get(part) ?? this.makePart(part);
    this.parts.set(part, known);
    return known;
  }

  private makePart(part: string): MirrorImage {
    const own = this.look(part);
    const { name, material } = this.design.parts[part] ?? { name: 'A part', material: undefined };
    if (!own || own.bodies.length === 0) throw new EditRefused(`${name} has no body yet, or is being computed; try again in a moment.`); // prettier-ignore
    const plane = ownMirror(own);
    if (plane) return { of: { part }, plane };
    const there = oppositeHandOf(this.design, part);
    if (there !== null) return { of: { part: there }, plane: OPPOSITE_IN };
    const [opposite, borrowed] = [newId('p'), newId('s')];
    // It borrows the part and reflects it, and so follows it from now on.
    this.made.push(
      addPart(opposite, handName(name)),
      ...oppositeSteps(part, name, own, borrowed).map((step, i) => addStep(opposite, i === 0 ? borrowed : newId('s'), step)), // prettier-ignore
      ...(material ? [setMaterial(opposite, material)] : []),
    );
    this.fresh.push(opposite);
    return { of: { part: opposite }, plane: OPPOSITE_IN };
  }

  private ofAssembly(id: string): MirrorSide {
    const known = this.wholes.get(id);
    if (known) return known;
    const own = this.design.assemblies?.[id];
    if (!own) throw new EditRefused('An assembly that stands here was deleted; remove it first.');
    const as = newId('a');
    const it = assembled(this.design, Ledger.of(this.design), id, this.look);
    // Before itself: what stands in it.
    const side = this.side(own, it, as, OPPOSITE_IN, own.instanceOrder);
    this.made.push(addAssembly(as, handName(own.name)));
    if (side.places.length > 0) this.made.push(placeInstances(as, side.places));
    this.wholes.set(id, side);
    return side;
  }

  /** The joints of a side, and the couplings of those that have an image. */
  joints(side: MirrorSide, look: LookAt): { edits: Edit[]; lost: number; still: number } {
    const { own, it, as, plane, images } = side;
    const made = new Map<string, string>();
    const edits: Edit[] = [];
    let [lost, still] = [0, 0];
    const image = (path: readonly string[]) => this.imageAt(side, path);
    for (const id of jointsToMirror(own, new Set(images.keys()))) {
      const joint = mirroredJoint(own.joints[id]!, plane, { look, image, standing: (path) => standingAt(it, path) });
      if (!joint) {
        lost++;
        continue;
      }
      if (stands(joint.a, own.joints[id]!.a) || stands(joint.b, own.joints[id]!.b)) still++;
      made.set(id, newId('j'));
      edits.push(addJoint(as, made.get(id)!, joint));
    }
    for (const coupling of Object.values(own.couplings ?? {})) {
      const [a, b] = [made.get(coupling.a.joint), made.get(coupling.b.joint)];
      if (!a || !b) continue;
      edits.push(addCoupling(as, newId('c'), { ...coupling, a: { ...coupling.a, joint: a }, b: { ...coupling.b, joint: b }, numbers: mirroredCoupling(coupling) })); // prettier-ignore
    }
    return { edits, lost, still };
  }

  private imageAt({ own, images }: MirrorSide, path: readonly string[]): { path: string[]; image: MirrorImage } | null {
    const [first, ...rest] = path;
    const found = first === undefined ? undefined : images.get(first);
    if (!found) return null;
    if (rest.length === 0) return { path: [found.id], image: found.image };
    const { of } = own.instances[first!]!;
    const inner = 'assembly' in of ? this.wholes.get(of.assembly) : undefined;
    const within = inner ? this.imageAt(inner, rest) : null;
    return within && { path: [found.id, ...within.path], image: within.image };
  }
}

function standingAt(it: Assembled, path: readonly string[]): StandsThere | null {
  const key = path.join('/');
  const member = it.members.find((m) => m.key === key);
  const at = (link: number): Pose => it.home.poses[link]!;
  if (member) return { pose: poseWithin(at(member.link), member.within), part: member.part, carrier: path };
  const link = it.linkOf.get(key);
  return link === undefined ? null : { pose: at(link), part: null, carrier: it.links[link]!.path };
}

/** Has an end become a frame of its own, where the other was on something of a part? */
const stands = (image: JointEnd, end: JointEnd): boolean => 'stands' in image.on && !('stands' in end.on) && end.instance.length > 0; // prettier-ignore

const handName = (name: string): string => `${name}, opposite hand`.slice(0, 80);

/** A part that does nothing but reflect another, as it is made here. */
function oppositeHandOf({ parts, partOrder }: Design, part: string): string | null {
  const isIt = (id: string): boolean => {
    const { steps, stepOrder } = parts[id]!;
    const [borrow, mirror, more] = stepOrder.map((s) => steps[s]! as unknown as Readonly<Record<string, unknown>>);
    if (!borrow || !mirror || more || borrow.suppressed || mirror.suppressed) return false;
    const [from, plane] = [borrow.from as { part?: string; at?: unknown } | undefined, mirror.plane as { datum?: string } | undefined]; // prettier-ignore
    return borrow.kind === 'borrow' && from?.part === part && !from.at && mirror.kind === 'mirror' && mirror.what === 'bodies' && plane?.datum === 'side'; // prettier-ignore
  };
  return partOrder.find(isIt) ?? null;
}
