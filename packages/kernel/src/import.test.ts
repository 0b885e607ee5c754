import { gzipSync } from 'node:zlib';
import { storedFile, type Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { block, designOf, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle, stepFileOf } from './sample-parts.ts'; // prettier-ignore

const imported = (bytes: Uint8Array, more: Partial<Step> = {}): Step => ({
  kind: 'import',
  name: 'Import',
  file: storedFile('bought.step', gzipSync(bytes)),
  result: 'new_body',
  ...more,
});
const fileOf = async (steps: Readonly<Record<string, Step>>) => stepFileOf((await evaluated(designOf(steps))).bodies);
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const bytes = (of: string) => new TextEncoder().encode(of);

/** A bushing Ø20 with a bore of Ø12, 15 long, and a block beside it. */
const two: Record<string, Step> = {
  r: outline([], {
    points: { c: [0, 0] },
    curves: { a: { kind: 'circle', center: 'c', radius: 10 }, b: { kind: 'circle', center: 'c', radius: 6 } },
  }),
  b: extruded('r', '15 mm', { profile: { sketch: 'r', regions: [{ outer: ['+a'], holes: [['-b']] }] } }),
  s: outline(rectangle(40, 0, 10, 8)),
  e: extruded('s', '5 mm'),
};

describe('a STEP file as a step', () => {
  test('comes in where it lies, exact, and is built upon', async () => {
    const file = await fileOf(block(30, 20, 8));
    const outcome = await evaluated(designOf({ i: imported(file) }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: 'The file calls it “Sample”.' });
    const [body] = outcome.bodies;
    expect(body!.facts).toMatchObject({ valid: true });
    expect(body!.facts.volume).toBeCloseTo(30 * 20 * 8, 8);
    expect(new Set(namesIn(body!)).size).toBe(6);
    const pushed = { kind: 'offset', name: 'Offset', faces: [faceLooking(body!, [0, 0, 1])], distance: '2 mm' } as Step;
    const after = await evaluated(designOf({ i: imported(file), o: pushed }));
    expect(last(after)).toMatchObject({ status: 'ok', doubts: [] });
    expect(after.bodies[0]!.facts.volume).toBeCloseTo(30 * 20 * 10, 8);
  });

  test('several solids are several bodies, told apart whatever their order', async () => {
    const file = text(await fileOf(two));
    const { bodies } = await evaluated(designOf({ i: imported(bytes(file)) }));
    const volumes = bodies.map((b) => b.facts.volume).sort((a, b) => a - b);
    expect(volumes[0]).toBeCloseTo(10 * 8 * 5, 8);
    expect(volumes[1]).toBeCloseTo(Math.PI * (100 - 36) * 15, 6);
    expect(new Set(bodies.map((b) => b.name)).size).toBe(2);
  });

  test('is read in its own unit', async () => {
    const file = text(await fileOf(block(3, 2, 1))).replaceAll('.MILLI.', '.CENTI.');
    const { bodies } = await evaluated(designOf({ i: imported(bytes(file)) }));
    expect(bodies[0]!.facts.volume).toBeCloseTo(6000, 6);
  });

  test('of a newer file the faces that stayed are found again, and one that moved is missed', async () => {
    const at = async (height: number) => designOf({ i: imported(await fileOf(block(30, 20, height))) });
    const [older, newer] = [await at(8), await at(9)];
    const [was, is] = [(await evaluated(older)).bodies[0]!, (await evaluated(newer)).bodies[0]!];
    const bottom = faceLooking(was, [0, 0, -1]);
    expect(namesIn(is)).toContain(bottom.name);
    expect(namesIn(is)).not.toContain(faceLooking(was, [0, 0, 1]).name);
  });

  test('can be cut from what is there', async () => {
    const hole = await fileOf({ s: outline(rectangle(5, 5, 10, 10)), e: extruded('s', '20 mm') });
    const outcome = await evaluated(designOf({ ...block(40, 30, 12), i: imported(hole, { result: 'cut', bodies: 'all' }) })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'ok' });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(40 * 30 * 12 - 10 * 10 * 12, 8);
  });
});

describe('a file that is no good is said to be', () => {
  const message = async (of: Partial<Step>) => last(await evaluated(designOf({ ...block(9, 9, 9), i: imported(bytes('x'), of) }))); // prettier-ignore
  const stored = (of: Uint8Array, name = 'odd.step') => ({ file: storedFile(name, gzipSync(of)) });

  test.each<[string, () => Promise<Partial<Step>> | Partial<Step>, string]>([
    ['another kind', () => stored(bytes('solid a\nendsolid a')), 'This is no STEP file; choose one that ends in .step or .stp.'],
    ['cut short', async () => stored((await fileOf(block(3, 2, 1))).slice(0, 4000)), 'This STEP file cannot be read; it may be damaged, or save it again.'],
    ['nothing in it', () => stored(bytes('ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((\'\'),\'2;1\');\nFILE_NAME(\'\',\'\',(\'\'),(\'\'),\'\',\'\',\'\');\nFILE_SCHEMA((\'AUTOMOTIVE_DESIGN\'));\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n')), 'odd.step holds no shape; save it again, with the solid in it.'],
    ['a face missing', async () => stored(bytes(text(await fileOf(block(3, 2, 1))).replace(/(CLOSED_SHELL\('',\()#\d+,/, '$1'))), 'odd.step holds surfaces but no closed solid; save it as a solid without gaps.'],
    ['a face’s surface missing', async () => stored(bytes(text(await fileOf(block(3, 2, 1))).replace(/#\d+ = PLANE\('',#\d+\);/, ''))), 'odd.step holds surfaces but no closed solid; save it as a solid without gaps.'],
    ['not compressed', () => ({ file: { name: 'odd.step', gzip: 'AAAA' } }), 'What is kept of odd.step is damaged; choose the file again.'],
    ['no base64', () => ({ file: { name: 'odd.step', gzip: '§§' } }), 'What is kept of odd.step is damaged; choose the file again.'],
    ['one that swells', () => stored(new Uint8Array(40 * 1024 * 1024)), 'odd.step is larger than 32 MB; save only the parts you need in it.'],
  ])('%s', async (_, of, says) => {
    const outcome = await message(await of());
    expect(outcome).toMatchObject({ status: 'failed', message: says });
    expect(outcome.bodies).toHaveLength(1);
  }); // prettier-ignore
});
