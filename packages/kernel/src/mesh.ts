import type { MeshQuality, SolidMesh } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { edgesOf, hashOf } from './explore.ts';
import type { Scope } from './scope.ts';

/** Numbers per group in the extractors' tables: first, count, hash of the shape. */
const GROUP = 3;

export function meshSolid(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape, quality: MeshQuality): SolidMesh {
  const surface = scope.keep(oc.ReplicadMeshExtractor.extract(shape, quality.linear, quality.angular, false));
  const wires = scope.keep(oc.ReplicadEdgeMeshExtractor.extract(shape, quality.linear, quality.angular));
  // The memory is looked at anew for each: what was taken before it grew must not be read.
  const floats = (at: number, count: number) => new Float32Array(oc.wasmMemory.buffer, at, count).slice();
  const integers = (at: number, count: number) => new Int32Array(oc.wasmMemory.buffer, at, count).slice();
  const faceGroups = integers(surface.getFaceGroupsPtr(), surface.getFaceGroupsSize());
  const edgeGroups = integers(wires.getEdgeGroupsPtr(), wires.getEdgeGroupsSize());
  const triangles = new Uint32Array(
    oc.wasmMemory.buffer,
    surface.getTrianglesPtr(),
    surface.getTrianglesSize(),
  ).slice();

  const faceRanges = new Uint32Array((faceGroups.length / GROUP) * 2);
  for (let f = 0; f * GROUP < faceGroups.length; f++) {
    faceRanges[f * 2] = faceGroups[f * GROUP]!;
    faceRanges[f * 2 + 1] = faceGroups[f * GROUP + 1]!;
  }
  const byHash = new Map<number, [number, number]>();
  for (let g = 0; g < edgeGroups.length; g += GROUP)
    byHash.set(edgeGroups[g + 2]!, [edgeGroups[g]!, edgeGroups[g + 1]!]);
  const edges = edgesOf(oc, scope, shape);
  const edgeRanges = new Uint32Array(edges.length * 2);
  edges.forEach((edge, e) => {
    const range = byHash.get(hashOf(oc, edge));
    if (range) edgeRanges.set(range, e * 2);
  });
  return {
    positions: floats(surface.getVerticesPtr(), surface.getVerticesSize()),
    normals: floats(surface.getNormalsPtr(), surface.getNormalsSize()),
    triangles,
    faceRanges,
    edgePoints: floats(wires.getLinesPtr(), wires.getLinesSize()),
    edgeRanges,
  };
}
