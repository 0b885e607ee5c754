/** Something the user of the command must mend; the message is a sentence. */
export class CliError extends Error {}
