/**
 * The names table: a reference is picked, the design is edited upstream, and what the reference then
 * finds is held against what the geometry says. Right, or told; never silently wrong.
 */
import { findBody, findEdge, findFace, findRegion, refOf, refOfBody, refOfEdge, refOfFace, type Body, type Region, type SketchGeometry } from '@helb/core'; // prettier-ignore
import { describe, expect, test } from '@jest/globals';
import { mkdirSync, writeFileSync } from 'node:fs';
import { SHAPES_CHANGED } from './names-rows.ts';
import { STEPS_CHANGED } from './names-rows-steps.ts';
import {
  line,
  drawn,
  box,
  circle,
  both,
  extrude,
  evaluate,
  none,
  faceSaid,
  judge,
  type Row,
  type Verdict,
  type Says,
} from './names-shapes.ts';

const rows: readonly Row[] = [...SHAPES_CHANGED, ...STEPS_CHANGED];

const between = (b: Body, says: readonly Says[]) =>
  b.facts.edges.findIndex(({ faces: f }) => {
    const [one, other] = [b.facts.faces[f[0]!]!, b.facts.faces[f[1]!]!];
    return f.length === 2 && ((says[0]!(one) && says[1]!(other)) || (says[0]!(other) && says[1]!(one)));
  });

async function verdictOf({ what, before, after, picks, means }: Row): Promise<Verdict> {
  const [was, is] = [(await evaluate(before)).bodies, (await evaluate(after)).bodies];
  if (what === 'edge') {
    const at = was.map((b) => ({ b, e: between(b, picks) })).find(({ e }) => e >= 0)!;
    const finding = findEdge(refOfEdge(at.b, at.e, was), is);
    return judge(finding, ({ body: b, edge: e }) => {
      const found = b.facts.edges[e]!.faces.map((f) => b.facts.faces[f]!);
      return means.every((says) => found.some(says));
    });
  }
  const picked = faceSaid(was, picks[0]!);
  if (!picked) throw new Error('the table picks what is not there');
  const meant = faceSaid(is, means[0]!);
  if (what === 'body') return judge(findBody(refOfBody(picked.body, was), is), (b) => b === meant?.body);
  return judge(
    findFace(refOfFace(picked.body, picked.face, was), is),
    (f) => f.body === meant?.body && f.face === meant.face,
  );
}

const results: { row: Row; verdict: Verdict }[] = [];

describe('the names table', () => {
  test.each(rows.map((r) => [`${r.what}: ${r.edit}`, r] as const))('%s', async (_, r) => {
    const verdict = await verdictOf(r);
    results.push({ row: r, verdict });
    if (r.must) expect(verdict).toBe(r.must);
    else expect(verdict).not.toBe('SILENTLY WRONG');
  });

  test('is as published', () => {
    const count = (v: Verdict) => results.filter((r) => r.verdict === v).length;
    expect(results.length).toBeGreaterThanOrEqual(160);
    expect(count('SILENTLY WRONG')).toBe(0);
    const { found, there } = share();
    expect(found / there).toBeGreaterThan(0.95);
    if (process.env.HELB_PUBLISH) publish();
  });
});

/** How many things that are meant are found, and how many there are. */
function share(): { found: number; there: number } {
  const there = results.filter((r) => r.row.means.some((says) => says !== none));
  return { found: there.filter((r) => /right$/.test(r.verdict)).length, there: there.length };
}

function publish(): void {
  const verdicts = ['right', 'told, right', 'told, another', 'told, lost', 'SILENTLY WRONG'] as const;
  const text = [
    '# The names table',
    '',
    'What references find after the design was edited upstream, held against what the geometry says. `right`: found without a word. `told`: found, or not, with a word at the step and a pick to mend it. Made by `HELB_PUBLISH=1 npm run unit -- names-table`.',
    '',
    `Where the geometry says that one thing is meant, ${share().found} of ${share().there} are found: without a word, or proposed with one.`,
    '',
    ...verdicts.map((v) => `- ${v}: ${results.filter((r) => r.verdict === v).length}`),
    '',
    '| what | the edit | found |',
    '| --- | --- | --- |',
    ...results.map(({ row: { what, edit }, verdict }) => `| ${what} | ${edit} | ${verdict} |`),
    '',
  ];
  mkdirSync('docs', { recursive: true });
  writeFileSync('docs/names-table.md', text.join('\n'));
}

describe('regions', () => {
  const outline = drawn(box('l', 0, 0, 60, 40)) as unknown as SketchGeometry;
  const withLine = (at: number, ...more: string[]) =>
    both(outline, { points: { n1: [at, -5], n2: [at, 45] }, curves: { n: line('n1', 'n2') } }, ...more.map((m) => circle(m, 10, 10, 3))); // prettier-ignore
  const map = async (g: Omit<SketchGeometry, 'constraints'>) =>
    (await evaluate({ s: drawn(g) })).steps[0]!.sketch!.regions;

  test('an outline halved by a new line stays whole, and it is told', async () => {
    const ref = refOf((await map(outline)).regions[0]!);
    const finding = findRegion(ref, await map(withLine(30)));
    expect(finding.how).toBe('probably');
    expect(finding.how === 'probably' && finding.found.reduce((a, r) => a + r.area, 0)).toBeCloseTo(2400, 6);
    const { bodies, steps } = await evaluate({ s: drawn(withLine(30)), e: extrude('s', 10, {}, [ref]) });
    expect(bodies[0]!.facts.volume).toBeCloseTo(24000, 5);
    expect(steps[1]!.doubts).toHaveLength(1);
  });

  test('a half stays that half when the line moves over its old place; a lost half is lost', async () => {
    const halves = await map(withLine(30));
    const rightHalf = halves.regions.find((r) => r.at[0] > 30)!;
    const moved = findRegion(refOf(rightHalf), await map(withLine(55)));
    expect(moved).toMatchObject({ how: 'one', found: [{ area: expect.closeTo(200, 6) }] });
    const gone = findRegion({ outer: ['+x1', '+x2', '+x3'] }, halves);
    expect(gone.how).toBe('lost');
  });

  test('signs on some curves only say what they say', async () => {
    const halves = await map(withLine(30));
    const finding = findRegion({ outer: ['l1', 'l2', 'l3', '-n'] }, halves);
    expect(finding.how === 'one' && finding.found[0]!.at[0]).toBeGreaterThan(30);
    expect(findRegion({ outer: ['l1', 'l2', 'l3', '+n'] }, halves).how).not.toBe('one');
  });

  test('of several between the same curves the one that did not change is found; else the place decides, and it is told', async () => {
    const wave = (w4: [number, number] = [40, 10], w5: [number, number] = [65, -5]) => ({
      points: { h1: [-10, 0], h2: [70, 0], w1: [-5, -5], w2: [10, 10], w3: [25, -10], w4, w5 },
      curves: { h: line('h1', 'h2'), w: { kind: 'spline', fit: 'through', points: ['w1', 'w2', 'w3', 'w4', 'w5'] } },
    }) satisfies Omit<SketchGeometry, 'constraints'>; // prettier-ignore
    const { regions } = await map(wave());
    const twins = regions.filter((r) => regions.some((o) => o !== r && o.outer.join() === r.outer.join()));
    const [left, right] = twins.sort((a, b) => a.at[0] - b.at[0]) as [Region, Region];
    expect(twins).toHaveLength(2);
    const ref = refOf(right, regions);
    expect(ref.piece).toBe(true);
    expect(findRegion(ref, await map(wave()))).toMatchObject({ how: 'one', found: [{ at: right.at }] });
    const higher = await map(wave([40, 12]));
    expect(findRegion(ref, higher)).toMatchObject({ how: 'probably', found: [{ at: [expect.closeTo(right.at[0], 0), expect.anything()] }] }); // prettier-ignore
    expect(findRegion({ outer: [...right.outer] }, higher).how).toBe('lost');
    expect(findRegion({ ...ref, at: [25, 1] }, higher).how).toBe('lost');
    // The right one is gone: the left one is not taken for it without a word.
    const alone = await map(wave([40, -10], [65, -12]));
    expect(findRegion(ref, alone)).toMatchObject({
      how: 'probably',
      why: expect.stringMatching(/only this one is left/),
    });
    expect(findRegion(refOf(left), alone).how).toBe('one');
    const { bodies, steps } = await evaluate({ s: drawn(wave([40, -10], [65, -12])), e: extrude('s', 10, {}, [ref]) });
    expect(bodies).toHaveLength(1);
    expect(steps[1]!.doubts).toHaveLength(1);
  });
});
