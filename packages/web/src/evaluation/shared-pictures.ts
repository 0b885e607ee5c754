/** Pictures the server keeps of a design's parts: shown at once, and renewed when the work has paused. */
import { pack, pictureKey, unpack, type Design, type Ledger, type PartView } from '@helb/core';
import { server } from '../server.ts';

/** Pictures are only a convenience: no fault of theirs is shown, and none stops the work. */
async function quietly(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch {
    // The kernel makes the picture itself.
  }
}

/** Fetch those that still fit the design: the active part's is shown first, the others together. */
export async function showShared(
  id: string,
  design: Design,
  ledger: Ledger,
  active: string | null,
  show: (views: readonly PartView[]) => void,
): Promise<void> {
  await quietly(async () => {
    const kept = await server.pictures(id);
    const fitting = kept.filter(({ part, key }) => design.parts[part] && pictureKey(design, ledger, part) === key);
    const fetched = async ({ part, key }: (typeof kept)[number]) => unpack(await server.picture(id, part, key)) as PartView; // prettier-ignore
    const [first] = fitting.filter(({ part }) => part === active);
    if (first) show([await fetched(first)]);
    const others = await Promise.allSettled(fitting.filter((one) => one !== first).map(fetched));
    show(others.flatMap((o) => (o.status === 'fulfilled' ? [o.value] : [])));
  });
}

/** Leave the pictures of what is shown now for the next visitor. */
export async function keepShared(
  id: string,
  design: Design,
  ledger: Ledger,
  views: ReadonlyMap<string, PartView>,
): Promise<void> {
  await quietly(async () => {
    const known = new Map((await server.pictures(id)).map((p) => [p.part, p.key]));
    for (const [part, view] of views) {
      const key = design.parts[part] ? pictureKey(design, ledger, part) : null;
      if (!key || known.get(part) === key || view.around) continue;
      await server.keepPicture(id, part, key, pack(view));
    }
  });
}
