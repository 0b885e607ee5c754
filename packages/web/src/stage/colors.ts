import { colorOf, type Design } from '@helb/core';

/** The colour of a part on the stage; of none, as of the first. */
export const colorOfPart = (design: Design | null, part: string | null): string =>
  colorOf(design ?? NOTHING, part ?? '');

/** How much of a part is seen on the stage: 1 is all. */
export const opacityOfPart = (design: Design | null, part: string | null): number =>
  design?.parts[part ?? '']?.opacity ?? 1;

const NOTHING = { parts: {}, partOrder: [] };
