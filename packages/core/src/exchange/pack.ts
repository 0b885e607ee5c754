/**
 * Plain data with typed arrays in it, as one block of bytes: the length of a
 * JSON text, the text, then the arrays one after the other, each on an 8-byte
 * boundary. In the text an array stands as { "$array": kind, "at", "length" }.
 */
const KINDS = { Float32Array, Uint32Array, Float64Array, Int32Array } as const;
type Kind = keyof typeof KINDS;
type Packed = InstanceType<(typeof KINDS)[Kind]>;

const HEAD_BYTES = 8;
const aligned = (n: number) => Math.ceil(n / 8) * 8;

function kindOf(value: unknown): Kind | null {
  for (const kind of Object.keys(KINDS) as Kind[]) if (value instanceof KINDS[kind]) return kind;
  return null;
}

export function pack(value: unknown): Uint8Array {
  const arrays: Packed[] = [];
  let at = 0;
  const text = JSON.stringify(value, (_, v: unknown) => {
    const kind = kindOf(v);
    if (!kind) return v;
    const array = v as Packed;
    const place = { $array: kind, at, length: array.length };
    arrays.push(array);
    at += aligned(array.byteLength);
    return place;
  });
  const json = new TextEncoder().encode(text);
  const start = aligned(HEAD_BYTES + json.length);
  const bytes = new Uint8Array(start + at);
  new DataView(bytes.buffer).setUint32(0, json.length, true);
  bytes.set(json, HEAD_BYTES);
  let next = start;
  for (const array of arrays) {
    bytes.set(new Uint8Array(array.buffer, array.byteOffset, array.byteLength), next);
    next += aligned(array.byteLength);
  }
  return bytes;
}

/** @throws when the bytes are not what `pack` makes */
export function unpack(bytes: Uint8Array): unknown {
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true);
  const text = new TextDecoder().decode(bytes.subarray(HEAD_BYTES, HEAD_BYTES + length));
  const start = bytes.byteOffset + aligned(HEAD_BYTES + length);
  // Arrays need their own boundary; a block that lies across it is moved once.
  const source =
    bytes.byteOffset % 8 === 0
      ? { buffer: bytes.buffer, start }
      : { buffer: bytes.slice().buffer, start: start - bytes.byteOffset };
  return JSON.parse(text, (_, v: unknown) => {
    const place = v as { $array?: Kind; at: number; length: number } | null;
    if (typeof place !== 'object' || place === null || !place.$array) return v;
    const Kind = KINDS[place.$array];
    return new Kind(source.buffer as ArrayBuffer, source.start + place.at, place.length).slice();
  });
}
