/** What is being computed, for the progress line. */
export interface Progress {
  part: string;
  step: string;
  done: number;
  total: number;
}
