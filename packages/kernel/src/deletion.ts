/**
 * Deleting what JavaScript holds of the kernel. In this build the destructor registered for nearly every class is empty:
 * `delete()` frees neither the object nor what it holds, and each body once made stays in memory for good. What is
 * missing is done here, by ways that are tried on each start; where they do not hold, deleting stays what it was.
 */
import type { OpenCascadeInstance } from 'replicad-opencascadejs';

interface Handled {
  delete(): void;
  isDeleted(): boolean;
}

/** What the binding keeps of an object; its names are made short, so that it is known by its shape. */
interface Kept {
  readonly count: { readonly value: number };
}

/** Classes of numbers alone: their memory is all there is to free. */
const PLAIN = /^(gp_|Bnd_Box$|GProp_GProps$)/;

/** Makes `delete()` do what it says, for all objects of this kernel. */
export function mendDeletion(oc: OpenCascadeInstance): void {
  const ways = waysOf(oc);
  const handle = ways && prototypeWith(new oc.gp_Pnt(0, 0, 0), 'isAliasOf');
  if (!ways || !handle) return;
  const plain = handle.delete;
  handle.delete = function (this: Handled) {
    const pointer = this.isDeleted() ? null : ways.soleOwner(this);
    if (pointer !== null && this instanceof oc.TopoDS_Shape) this.Nullify();
    plain.call(this);
    if (pointer === null) return;
    if (this instanceof oc.BRepBuilderAPI_MakeShape || this instanceof oc.XSControl_Reader) ways.destroy(pointer);
    else if (this instanceof oc.TopoDS_Shape || PLAIN.test(this.constructor.name)) ways.free(pointer);
  };
  if (!isMended(oc)) handle.delete = plain;
}

interface Ways {
  /** Where an object lies that nothing else points to; null for those that count for themselves who holds them. */
  soleOwner(object: object): number | null;
  /** By its own virtual destructor. */
  destroy(pointer: number): void;
  free(pointer: number): void;
}

function waysOf(oc: OpenCascadeInstance): Ways | null {
  const { ___libc_free: free } = oc as unknown as { ___libc_free?: (pointer: number) => void };
  const list = new oc.NCollection_List_TopoDS_Shape();
  const record = recordOf(list);
  // Of lists alone the destructor is the virtual one; it is the fourth thing known of a class.
  const type = record && Object.values(record).find((v) => isObject(v) && 'name' in v);
  const known = type && Object.values(type).find((v) => isObject(v) && 'constructor' in v && 'name' in v);
  const destroy: unknown = known && Object.values(known)[3];
  list.delete();
  if (typeof free !== 'function' || typeof destroy !== 'function') return null;
  return {
    soleOwner: (object) => {
      const own = recordOf(object);
      const pointers = own ? Object.values(own).filter((v) => typeof v === 'number') : [];
      return own?.count.value === 1 && pointers.length === 1 ? pointers[0]! : null;
    },
    destroy: (pointer) => destroy(pointer),
    free,
  };
}

const isObject = (v: unknown): v is object => typeof v === 'object' && v !== null;

function recordOf(object: object): Kept | undefined {
  const own = Object.getOwnPropertyNames(object).map((name) => (object as { [name: string]: unknown })[name]);
  return own.find((v): v is Kept => isObject(v) && 'count' in v);
}

function prototypeWith(object: object, name: string): Handled | null {
  for (let at: unknown = object; isObject(at); at = Object.getPrototypeOf(at))
    if (Object.hasOwn(at, name)) return at as Handled;
  return null;
}

/** Does a surface know itself alone again once the face on it and its maker are gone? */
function isMended(oc: OpenCascadeInstance): boolean {
  try {
    return surfaceIsAlone(oc);
  } catch {
    // Another build, that lacks a class or holds its objects otherwise.
    return false;
  }
}

function surfaceIsAlone(oc: OpenCascadeInstance): boolean {
  const made = [new oc.gp_Pnt(0, 0, 0), new oc.gp_Dir(0, 0, 1)] as const;
  const axes = new oc.gp_Ax3(...made);
  const surface = new oc.Geom_CylindricalSurface(axes, 1);
  const maker = new oc.BRepBuilderAPI_MakeFace(surface, 0, 1, 0, 1, 1e-6);
  const [face, shape] = [maker.Face(), maker.Shape()];
  const held = surface.GetRefCount();
  for (const object of [maker, face, shape, axes, ...made]) object.delete();
  const left = surface.GetRefCount();
  surface.delete();
  return held > 1 && left === 1;
}
