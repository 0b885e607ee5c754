/** So many at once, the others wait their turn. */
export function atMost(many: number): <T>(work: () => Promise<T>) => Promise<T> {
  const waiting: (() => void)[] = [];
  let going = 0;
  return async (work) => {
    if (going >= many) await new Promise<void>((begin) => waiting.push(begin));
    else going++;
    try {
      return await work();
    } finally {
      // Whoever comes next takes the place over.
      const next = waiting.shift();
      if (next) next();
      else going--;
    }
  };
}
