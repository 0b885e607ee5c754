import { KernelError } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Scope } from './scope.ts';

const FILE = '/design.step';

/** Each part becomes a named product; a part of several bodies a compound of them. */
export function writeStep(
  oc: OpenCascadeInstance,
  scope: Scope,
  parts: readonly { name: string; shapes: readonly TopoDS_Shape[] }[],
): Uint8Array {
  const format = scope.keep(new oc.TCollection_ExtendedString('MDTV-XCAF', true));
  const document = scope.keep(new oc.TDocStd_Document(format));
  const shapes = scope.keep(oc.XCAFDoc_DocumentTool.ShapeTool(scope.keep(document.Main())));
  for (const part of parts) {
    if (part.shapes.length === 0) continue;
    const label = scope.keep(
      shapes.AddShape(part.shapes.length === 1 ? part.shapes[0]! : compoundOf(oc, scope, part.shapes), false, false),
    );
    scope.keep(oc.TDataStd_Name.Set(label, scope.keep(new oc.TCollection_ExtendedString(part.name, true))));
  }
  const writer = scope.keep(new oc.STEPCAFControl_Writer());
  writer.SetNameMode(true);
  if (!writer.Perform(document, FILE, scope.keep(new oc.Message_ProgressRange())))
    throw new KernelError('The STEP file could not be written.');
  try {
    return oc.FS.readFile(FILE);
  } finally {
    oc.FS.unlink(FILE);
  }
}

function compoundOf(oc: OpenCascadeInstance, scope: Scope, shapes: readonly TopoDS_Shape[]): TopoDS_Shape {
  const compound = scope.keep(new oc.TopoDS_Compound());
  const builder = scope.keep(new oc.TopoDS_Builder());
  builder.MakeCompound(compound);
  for (const shape of shapes) builder.Add(compound, shape);
  return compound;
}
