/** What the kernel has to say of a sheet: its views and sizes, apart from where they stand on the paper. */
import type { CutPlan } from './cut-open.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import type { ListedPart } from './listed-part.ts';
import type { Audit } from './audit/audit.ts';
import type { AuditFinding } from './audit/faults-of-sizes.ts';
import type { DrawnView } from './drawn-view.ts';
import type { SizeState } from './measured.ts';

export interface SheetGeometry {
  readonly views: ReadonlyMap<string, DrawnView>;
  /** Of each section how it is cut. */
  readonly cuts: ReadonlyMap<string, CutPlan>;
  readonly sizes: ReadonlyMap<string, SizeState>;
  /** A variant or a position that is drawn, as it is called. */
  readonly shown: string | null;
  /** kg; null where a material is missing. */
  readonly mass: number | null;
  /** Its material, where all is of one. */
  readonly material: string | null;
  /** What is not as it should be with what is drawn, as sentences. */
  readonly says: readonly string[];
  /** What an assembly is made of, in the order of its list; empty of a part. */
  readonly parts: readonly ListedPart[];
  /** By view and part: where of it most is seen, mm of the model. */
  readonly seen: ReadonlyMap<string, ReadonlyMap<string, Vec2>>;
  /** What is wrong with sizes by themselves. */
  readonly faults: readonly AuditFinding[];
  /** Null of assemblies, which are not remade from a sheet. */
  readonly audit: Audit | null;
}
