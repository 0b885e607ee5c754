/** A stand-in for a mail service: letters lie in a folder, where who keeps the server finds them. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { newToken } from '../access/tokens.ts';
import { writeWhole } from '../database/whole-file.ts';

export interface Letter {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

export class Outbox {
  constructor(private readonly folder: string) {}

  /** One file a letter, in the form of electronic mail (RFC 5322). */
  send({ to, subject, text }: Letter): void {
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    const now = new Date();
    const name = `${now.toISOString().replace(/[:.]/g, '-')}-${newToken().slice(0, 8)}.eml`;
    const oneLine = (s: string) => s.replace(/[\r\n]+/g, ' ');
    const head = [
      `Date: ${now.toUTCString()}`,
      `To: <${oneLine(to)}>`,
      `Subject: ${oneLine(subject)}`,
      'MIME-Version: 1.0',
      'Content-Type: text/plain; charset=utf-8',
    ];
    writeWhole(join(this.folder, name), `${head.join('\r\n')}\r\n\r\n${text.replace(/\n/g, '\r\n')}\r\n`);
  }
}
