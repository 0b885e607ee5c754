import { colorOf, type Design } from '@helb/core';

/** The colour of a part on the stage; of none, as of the first. */
export const colorOfPart = (design: Design | null, part: string | null): string =>
  colorOf(design ?? NOTHING, part ?? '');

const NOTHING = { parts: {}, partOrder: [] };
