import { KernelError, linearColor, type StepPart } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { compoundOf } from './compound.ts';
import type { Scope } from './scope.ts';

const FILE = '/design.step';

/** Each part becomes a named product in its colour; a part of several bodies a compound of them. */
export function writeStep(
  oc: OpenCascadeInstance,
  scope: Scope,
  parts: readonly (StepPart & { readonly shapes: readonly TopoDS_Shape[] })[],
): Uint8Array {
  const format = scope.keep(new oc.TCollection_ExtendedString('MDTV-XCAF', true));
  const document = scope.keep(new oc.TDocStd_Document(format));
  const shapes = scope.keep(oc.XCAFDoc_DocumentTool.ShapeTool(scope.keep(document.Main())));
  const colors = scope.keep(oc.XCAFDoc_DocumentTool.ColorTool(scope.keep(document.Main())));
  for (const part of parts) {
    if (part.shapes.length === 0) continue;
    const label = scope.keep(
      shapes.AddShape(part.shapes.length === 1 ? part.shapes[0]! : compoundOf(oc, scope, part.shapes), false, false),
    );
    scope.keep(oc.TDataStd_Name.Set(label, scope.keep(new oc.TCollection_ExtendedString(part.name, true))));
    const color = scope.keep(new oc.Quantity_ColorRGBA(...linearColor(part.color), part.opacity));
    // Readers look for it at the solids, not at what holds them.
    for (const shape of part.shapes) colors.SetColor(shape, color, oc.XCAFDoc_ColorType.XCAFDoc_ColorSurf);
  }
  const writer = scope.keep(new oc.STEPCAFControl_Writer());
  writer.SetNameMode(true);
  writer.SetColorMode(true);
  if (!writer.Perform(document, FILE, scope.keep(new oc.Message_ProgressRange())))
    throw new KernelError('The STEP file could not be written.');
  try {
    return oc.FS.readFile(FILE);
  } finally {
    oc.FS.unlink(FILE);
  }
}
