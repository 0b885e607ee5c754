import { writeFileSync } from 'node:fs';
import { block, designOf, extruded, outline, round } from '../packages/kernel/src/sample-parts.ts';
void block;
const bored = (id: string, radius: number, at: any) => ({ [id]: round(radius, {}, at), [`${id}c`]: extruded(id, '100 mm', { name: id, result: 'cut' }) });
const d = designOf({ a: outline([[0, 0], [455, 0], [455, 18], [447, 26], [0, 26]]), ab: extruded('a', '9 mm'), ...bored('h1', 4.5, [18, 13]), ...bored('h2', 6, [430, 13]) });
writeFileSync('/tmp/bar.json', JSON.stringify(d));
process.exit(0);
