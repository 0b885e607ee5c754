/** Parts as a 3MF file (3MF Core Specification 1.3): triangles in mm, an object a body, with the part's name and colour. */
import { strToU8, zipSync } from 'fflate';
import type { SolidMesh } from '../solid/kernel.ts';
import { escaped } from './write-svg.ts';

export interface PrintedPart {
  readonly name: string;
  /** #rrggbb */
  readonly color: string;
  /** How much of it is seen: 1 is all. */
  readonly opacity: number;
  readonly meshes: readonly SolidMesh[];
}

const TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;

const byteOf = (share: number) => Math.round(share * 255).toString(16).padStart(2, '0').toUpperCase(); // prettier-ignore

export function write3mf(parts: readonly PrintedPart[], title: string): Uint8Array {
  const materials = parts.map(({ name, color, opacity }) => `<base name="${escaped(name)}" displaycolor="${color.toUpperCase()}${byteOf(opacity)}"/>`); // prettier-ignore
  const objects: string[] = [];
  parts.forEach(({ name, meshes }, p) => {
    for (const mesh of meshes)
      objects.push(`<object id="${objects.length + 2}" type="model" name="${escaped(name)}" pid="1" pindex="${p}">${meshText(mesh)}</object>`); // prettier-ignore
  });
  const model = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">',
    `<metadata name="Title">${escaped(title)}</metadata>`,
    `<resources><basematerials id="1">${materials.join('')}</basematerials>`,
    ...objects,
    '</resources>',
    `<build>${objects.map((_, i) => `<item objectid="${i + 2}"/>`).join('')}</build>`,
    '</model>',
  ];
  return zipSync({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(RELATIONS),
    '3D/3dmodel.model': strToU8(model.join('\n')),
  });
}

/** Corners that the faces of a body have each for themselves are one: the mesh must be closed. */
function meshText({ positions, triangles }: SolidMesh): string {
  const known = new Map<string, number>();
  const vertices: string[] = [];
  const indexOf = (v: number) => {
    const at = [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!].map((x) =>
      String(Number(x.toFixed(5))),
    );
    const key = at.join();
    let index = known.get(key);
    if (index === undefined) {
      known.set(key, (index = vertices.length));
      vertices.push(`<vertex x="${at[0]}" y="${at[1]}" z="${at[2]}"/>`);
    }
    return index;
  };
  const faces: string[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [indexOf(triangles[t]!), indexOf(triangles[t + 1]!), indexOf(triangles[t + 2]!)];
    if (a !== b && b !== c && a !== c) faces.push(`<triangle v1="${a}" v2="${b}" v3="${c}"/>`);
  }
  return `<mesh><vertices>${vertices.join('')}</vertices><triangles>${faces.join('')}</triangles></mesh>`;
}
