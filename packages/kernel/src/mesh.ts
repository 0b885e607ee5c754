import type { MeshQuality, SolidMesh, Vec3 } from '@helb/core';
import type { OpenCascadeInstance, TopoDS_Shape } from 'replicad-opencascadejs';
import { compoundOf } from './compound.ts';
import { normalOfFlat } from './describe.ts';
import { edgesOf, facesOf, hashOf, occurrences, ShapeIndex } from './explore.ts';
import { flatTriangles, type Loop } from './flat-mesh.ts';
import type { Scope } from './scope.ts';

/** Numbers per group in the extractors' tables: first, count, hash of the shape. */
const GROUP = 3;
/** With fewer edges a flat face is left to the kernel, which takes no longer. */
const MANY_EDGES = 32;
/** mm; ends of edges that are nearer are one. */
const SAME_END = 1e-4;

export function meshSolid(oc: OpenCascadeInstance, scope: Scope, shape: TopoDS_Shape, quality: MeshQuality): SolidMesh {
  const faces = facesOf(oc, scope, shape);
  const flat = new Map(faces.flatMap((face, f): [number, Flat][] => {
    const found = flatWithManyEdges(oc, scope, face);
    return found ? [[f, found]] : [];
  })); // prettier-ignore
  if (flat.size === 0) return meshed(oc, scope, shape, edgesOf(oc, scope, shape), quality);
  // The others alone, and the edges that none of these has.
  const rest = faces.filter((_, f) => !flat.has(f));
  const edges = edgesOf(oc, scope, shape);
  const theirs = new ShapeIndex(oc, rest.flatMap((face) => edgesOf(oc, scope, face))); // prettier-ignore
  const alone = compoundOf(oc, scope, [...rest, ...edges.filter((edge) => theirs.indexOf(edge) < 0)]);
  const mesh = meshed(oc, scope, alone, edges, quality);
  const index = new ShapeIndex(oc, edges);
  const filled = new Map<number, FlatMesh>();
  for (const [f, { wires, normal }] of flat) {
    const loops = wires.map((wire) => loopOf(wire.map((edge) => lineOf(mesh, index.indexOf(edge)))));
    const triangles = loops.every((loop) => loop !== null) ? flatTriangles(loops, normal) : null;
    // Where it will not do, the kernel takes its time.
    if (!triangles) return meshed(oc, scope, shape, edges, quality);
    filled.set(f, { points: loops.flat() as Loop, normal, triangles });
  }
  return together(mesh, faces.length, filled);
}

interface Flat {
  /** The edges of each, the outer one first. */
  readonly wires: readonly (readonly TopoDS_Shape[])[];
  readonly normal: Vec3;
}

interface FlatMesh {
  readonly points: Loop;
  readonly normal: Vec3;
  readonly triangles: Uint32Array;
}

function flatWithManyEdges(oc: OpenCascadeInstance, scope: Scope, face: TopoDS_Shape): Flat | null {
  const { TopAbs_WIRE, TopAbs_EDGE } = oc.TopAbs_ShapeEnum;
  if (occurrences(oc, scope, face, TopAbs_EDGE).length < MANY_EDGES) return null;
  const normal = normalOfFlat(oc, scope, face);
  if (!normal) return null;
  const outer = scope.keep(oc.BRepTools.OuterWire(scope.keep(oc.TopoDS.Face(face))));
  const inner = occurrences(oc, scope, face, TopAbs_WIRE).filter((wire) => !wire.IsSame(outer));
  return { normal, wires: [outer, ...inner].map((wire) => occurrences(oc, scope, wire, TopAbs_EDGE)) };
}

/** As the kernel does it. @param edges told in this order, be they of the shape or not */
function meshed(
  oc: OpenCascadeInstance,
  scope: Scope,
  shape: TopoDS_Shape,
  edges: readonly TopoDS_Shape[],
  quality: MeshQuality,
): SolidMesh {
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

/** The points along an edge, each once. */
function lineOf({ edgePoints, edgeRanges }: SolidMesh, edge: number): Vec3[] {
  const line: Vec3[] = [];
  const [first, count] = [edgeRanges[2 * edge]!, edgeRanges[2 * edge + 1]!];
  for (let p = first; p < first + count; p++) {
    const at: Vec3 = [edgePoints[3 * p]!, edgePoints[3 * p + 1]!, edgePoints[3 * p + 2]!];
    const last = line.at(-1);
    if (!last || last.some((x, k) => x !== at[k])) line.push(at);
  }
  return line;
}

const meet = (a: Vec3, b: Vec3): boolean => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < SAME_END;

/** The edges of a wire one after the other, whichever way each runs; null where they do not close. */
function loopOf(lines: readonly Vec3[][]): Loop | null {
  if (lines.some((line) => line.length < 2)) return null;
  const left = [...lines];
  const loop = left.shift()!.slice();
  while (left.length > 0) {
    const end = loop.at(-1)!;
    const next = left.findIndex((line) => meet(line[0]!, end) || meet(line.at(-1)!, end));
    if (next < 0) return null;
    const [line] = left.splice(next, 1) as [Vec3[]];
    loop.push(...(meet(line[0]!, end) ? line : line.toReversed()).slice(1));
  }
  return loop.length > 3 && meet(loop.pop()!, loop[0]!) ? loop : null;
}

/** The kernel’s mesh with the flat faces among the others, in their order. */
function together(mesh: SolidMesh, faces: number, flat: ReadonlyMap<number, FlatMesh>): SolidMesh {
  let [points, corners] = [mesh.positions.length / 3, mesh.triangles.length];
  for (const own of flat.values()) {
    points += own.points.length;
    corners += own.triangles.length;
  }
  const positions = new Float32Array(3 * points);
  const normals = new Float32Array(3 * points);
  const triangles = new Uint32Array(corners);
  const faceRanges = new Uint32Array(2 * faces);
  positions.set(mesh.positions);
  normals.set(mesh.normals);
  let [point, corner, other] = [mesh.positions.length / 3, 0, 0];
  for (let f = 0; f < faces; f++) {
    const own = flat.get(f);
    const first = corner;
    if (own) {
      own.points.forEach((at, i) => {
        positions.set(at, 3 * (point + i));
        normals.set(own.normal, 3 * (point + i));
      });
      for (const place of own.triangles) triangles[corner++] = point + place;
      point += own.points.length;
    } else {
      const [from, count] = [mesh.faceRanges[2 * other]!, mesh.faceRanges[2 * other + 1]!];
      triangles.set(mesh.triangles.subarray(from, from + count), corner);
      corner += count;
      other++;
    }
    faceRanges.set([first, corner - first], 2 * f);
  }
  return { ...mesh, positions, normals, triangles, faceRanges };
}
