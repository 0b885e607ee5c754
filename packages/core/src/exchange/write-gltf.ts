/** Parts as a binary glTF file (glTF 2.0): metres, Y up, a named node with a colour for each part. */
import { Document, WebIO } from '@gltf-transform/core';
import { linearColor } from '../solid/color.ts';
import type { PrintedPart } from './write-3mf.ts';

const M_PER_MM = 0.001;
/** A quarter turn about X, as a quaternion: the part’s Z becomes the file’s Y. */
const Z_TO_Y = [-Math.SQRT1_2, 0, 0, Math.SQRT1_2] as [number, number, number, number];

export async function writeGltf(parts: readonly PrintedPart[], title: string): Promise<Uint8Array> {
  const file = new Document();
  const buffer = file.createBuffer();
  const root = file.createNode(title).setRotation(Z_TO_Y).setScale([M_PER_MM, M_PER_MM, M_PER_MM]);
  file.createScene(title).addChild(root);
  for (const { name, color, opacity, meshes } of parts) {
    const material = file.createMaterial(name).setBaseColorFactor([...linearColor(color), opacity]).setAlphaMode(opacity < 1 ? 'BLEND' : 'OPAQUE').setMetallicFactor(0).setRoughnessFactor(0.8); // prettier-ignore
    const part = file.createNode(name);
    root.addChild(part);
    for (const { positions, normals, triangles } of meshes) {
      const vector = (array: Float32Array) => file.createAccessor().setType('VEC3').setArray(new Float32Array(array)).setBuffer(buffer); // prettier-ignore
      const primitive = file
        .createPrimitive()
        .setAttribute('POSITION', vector(positions))
        .setAttribute('NORMAL', vector(normals))
        .setIndices(file.createAccessor().setType('SCALAR').setArray(new Uint32Array(triangles)).setBuffer(buffer))
        .setMaterial(material);
      part.addChild(file.createNode(name).setMesh(file.createMesh(name).addPrimitive(primitive)));
    }
  }
  return new WebIO().writeBinary(file);
}
