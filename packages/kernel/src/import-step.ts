import { KernelError } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { distinct, occurrences } from './explore.ts';
import type { Scope } from './scope.ts';

const FILE = '/read.step';

/** @returns its solids, to be owned by the caller, and how many faces lie in none of them. @throws KernelError */
export function readStep(
  oc: OpenCascadeInstance,
  scope: Scope,
  bytes: Uint8Array,
): { readonly solids: TopoDS_Shape[]; readonly others: number } {
  refuseOther(bytes);
  const reader = scope.keep(new oc.STEPControl_Reader());
  oc.FS.writeFile(FILE, bytes);
  try {
    if (reader.ReadFile(FILE) !== oc.IFSelect_ReturnStatus.IFSelect_RetDone)
      throw new KernelError('This STEP file cannot be read; it may be damaged, or save it again.');
  } finally {
    oc.FS.unlink(FILE);
  }
  reader.TransferRoots(scope.keep(new oc.Message_ProgressRange()));
  if (reader.NbShapes() === 0) return { solids: [], others: 0 };
  const shape = scope.keep(reader.OneShape());
  const { TopAbs_SOLID, TopAbs_FACE } = oc.TopAbs_ShapeEnum;
  const solids = distinct(oc, scope, shape, TopAbs_SOLID);
  const within = solids.reduce((sum, solid) => sum + occurrences(oc, scope, solid, TopAbs_FACE).length, 0);
  const others = Math.max(0, occurrences(oc, scope, shape, TopAbs_FACE).length - within);
  return { solids: solids.map((solid) => oc.TopoDS.Solid(solid)), others };
}

const HEAD = 'ISO-10303-21';
/** Something may stand before it: a byte order mark, blanks. */
const HEAD_WITHIN = 256;

/** What is no STEP file at all keeps the reader busy for long. @throws KernelError */
function refuseOther(bytes: Uint8Array): void {
  const head = String.fromCharCode(...bytes.subarray(0, HEAD_WITHIN));
  if (!head.includes(HEAD)) throw new KernelError('This is no STEP file; choose one that ends in .step or .stp.');
}
