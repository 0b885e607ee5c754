/** Hand bytes to the browser as a download. Characters no file system likes are left out of the name. */
export function saveFile(bytes: Uint8Array, name: string, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, ' ').trim();
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Media types by the ending of a file's name. */
export const FILE_TYPE = {
  step: 'model/step',
  stl: 'model/stl',
  '3mf': 'model/3mf',
  glb: 'model/gltf-binary',
  dxf: 'image/vnd.dxf',
  svg: 'image/svg+xml',
} as const;
