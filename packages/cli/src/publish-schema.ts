/** Writes docs/format/helb-design.schema.json from the Zod schemas. */
import { Design } from '@helb/core';
import { writeFileSync } from 'node:fs';
import { z } from 'zod';

const schema = z.toJSONSchema(Design, { io: 'input', reused: 'ref' });
writeFileSync('docs/format/helb-design.schema.json', `${JSON.stringify(schema, null, 2)}\n`);
