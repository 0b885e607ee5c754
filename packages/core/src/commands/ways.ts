/** Ways to what stands in an assembly, by ids of instances: kept true when parts are gathered there, or an assembly dissolved. */
import type { Design } from '../document/schema.ts';
import { slotsOf } from '../steps/slots-of.ts';

/** What becomes of a way from within the assembly on; null where nothing does. */
export type Rerouted = (rest: readonly string[]) => string[] | null;

/** @param assembly what was changed @param change for ways to instances @param ofJoint for ways that end in a joint */
export function reroute(draft: Design, assembly: string, change: Rerouted, ofJoint: Rerouted): void {
  const all = draft.assemblies ?? {};
  const to = (start: string, way: readonly string[], by: Rerouted): string[] | null => {
    let at = start;
    for (let i = 0; i <= way.length; i++) {
      if (at === assembly) {
        const rest = by(way.slice(i));
        return rest && [...way.slice(0, i), ...rest];
      }
      const of = all[at]?.instances[way[i]!]?.of;
      if (!of || !('assembly' in of)) return null;
      at = of.assembly;
    }
    return null;
  };
  const spelled = (start: string, key: string, by: Rerouted) => to(start, key.split('/'), by)?.join('/');
  for (const [id, own] of Object.entries(all)) {
    // Joints of the assembly itself went where their parts did.
    if (id !== assembly)
      for (const { a, b } of Object.values(own.joints))
        for (const end of [a, b]) end.instance = to(id, end.instance, change) ?? end.instance;
    for (const pose of Object.values(own.poses ?? {}))
      pose.at = Object.fromEntries(Object.entries(pose.at).map(([key, at]) => [spelled(id, key, change) ?? key, at]));
    for (const run of Object.values(own.runs ?? {}))
      for (const drive of Object.values(run.drives)) drive.joint = spelled(id, drive.joint, ofJoint) ?? drive.joint;
  }
  for (const part of Object.values(draft.parts))
    for (const step of Object.values(part.steps))
      for (const { slot, stored } of slotsOf(step))
        for (const { assembly: start, way } of slot.of.ways(stored)) {
          const other = to(start, way, change);
          if (other) way.splice(0, way.length, ...other);
        }
}
