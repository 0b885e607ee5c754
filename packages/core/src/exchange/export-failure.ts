/** What cannot be exported, as a sentence for the user. */
export class ExportFailure extends Error {}
