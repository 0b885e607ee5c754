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

/** Fetch those that still fit the design, the active part's first. */
export async function showShared(
  id: string,
  design: Design,
  ledger: Ledger,
  active: string | null,
  show: (view: PartView) => void,
): Promise<void> {
  await quietly(async () => {
    const kept = await server.pictures(id);
    const fitting = kept.filter(({ part, key }) => design.parts[part] && pictureKey(design, ledger, part) === key);
    fitting.sort((a, b) => Number(b.part === active) - Number(a.part === active));
    for (const { part, key } of fitting) show(unpack(await server.picture(id, part, key)) as PartView);
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
