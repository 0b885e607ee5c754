/** What of an assembly can still move, in words and as motions that can be shown. */
import { independentRows } from '../mechanism/least.ts';
import { mobility, type Mobility } from '../mechanism/mobility.ts';
import { speedAt } from '../mechanism/rows.ts';
import type { Assembled } from './assembled.ts';

export interface LinkFreedom {
  readonly link: number;
  /** In how many ways it can move. */
  readonly freedoms: number;
  /** “can still turn in Bracket”; “is held by nothing”. */
  readonly says: string;
}

export interface Freedoms {
  readonly whole: Mobility;
  readonly links: readonly LinkFreedom[];
}

export function freedomsOfAssembly(it: Assembled): Freedoms {
  const whole = mobility(it.mechanism, it.home.posture);
  const units = it.mechanism.units;
  const links = it.links.map((_, link): LinkFreedom => {
    const path = it.mechanism.paths[link]!;
    // How each free motion moves the link: its turn, and the speed of its origin.
    const moves = whole.motions.map((motion) => {
      const twist = new Float64Array(6);
      const p = whole.at.poses[link]!.at;
      for (const k of path) {
        const f = motion[k]! * units[k]!;
        if (f === 0) continue;
        const v = speedAt(whole.at.twists, k, p);
        for (let i = 0; i < 3; i++) {
          twist[i]! += f * whole.at.twists[k * 6 + i]!;
          twist[3 + i]! += (f * v[i]!) / it.mechanism.size;
        }
      }
      return twist;
    });
    const real = moves.filter((m) => Math.hypot(...m) > 1e-7);
    const freedoms = independentRows(real).rows.length;
    return { link, freedoms, says: wordsFor(it, link, freedoms, whole) };
  });
  return { whole, links };
}

const DOES = { turn: 'turn', slide: 'slide', across: 'slide across' } as const;

function wordsFor(it: Assembled, link: number, freedoms: number, whole: Mobility): string {
  if (freedoms === 0) return 'stands still';
  const on = it.joints.filter((j) => {
    const [first] = j.motions;
    const pair = first ? it.mechanism.pairs[first.pair]! : null;
    return pair && (pair.a.link === link || pair.b.link === link);
  });
  if (freedoms === 6 && on.length === 0) return 'is held by nothing';
  const ways = on.flatMap((j) =>
    j.motions.flatMap((m) => {
      const pair = it.mechanism.pairs[m.pair]!;
      const column = it.mechanism.columnOf(m);
      if (column >= 0 && !whole.motions.some((v) => Math.abs(v[column]!) > 1e-7)) return [];
      const other = pair.a.link === link ? j.names[1] : j.names[0];
      return [`${DOES[m.key]} ${m.key === 'turn' ? 'about its joint with' : 'along'} ${other}`];
    }),
  );
  const [one, ...more] = [...new Set(ways)];
  if (one === undefined) return `can still move in ${freedoms} way${freedoms === 1 ? '' : 's'}`;
  return `can still ${one}${more.length > 0 ? `, and ${more.slice(0, 2).join(', ')}` : ''}`;
}
