/** Changing what is drawn: at a click (trim, extend, split, corners), or of what is picked, with numbers. */
import {
  chamfer, ChangeRefused, circularPattern, describeConstraints, extend, fillet, isDimension, linearPattern, matchPatterns,
  mirror, offsetChain, split, transform, trim, chainOf, wholeSelection,
  type Constraint, type Place, type SketchGeometry,
} from '@helb/core'; // prettier-ignore
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { toast } from 'vue-sonner';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useBorrowing, type BorrowKind } from './borrowing.ts';
import { curveNear, pointNear } from './hit.ts';
import type { PlaneMap } from './plane-map.ts';

export type ClickChange = 'trim' | 'extend' | 'split' | 'round corner' | 'bevel corner';
export type FormChange = 'lettering' | 'offset' | 'mirror' | 'linear pattern' | 'circular pattern' | 'move';
export type ChangeKind = ClickChange | FormChange | BorrowKind;

export interface ChangeField {
  readonly name: string;
  readonly kind: 'length' | 'angle' | 'number' | 'text';
  readonly initial: string;
}

const length = (name: string, initial: string): ChangeField => ({ name, kind: 'length', initial });
const FIELDS: Readonly<Record<ChangeKind, readonly ChangeField[]>> = {
  trim: [],
  extend: [],
  split: [],
  'round corner': [length('radius', '5')],
  'bevel corner': [length('length', '3')],
  lettering: [{ name: 'text', kind: 'text', initial: '' }],
  borrow: [],
  'borrow section': [],
  'borrow silhouette': [],
  offset: [length('distance', '5')],
  mirror: [],
  'linear pattern': [
    { name: 'count', kind: 'number', initial: '3' },
    length('spacing', '20'),
    { name: 'rows', kind: 'number', initial: '1' },
    length('row spacing', '20'),
  ],
  'circular pattern': [
    { name: 'count', kind: 'number', initial: '6' },
    { name: 'step', kind: 'angle', initial: '' },
  ],
  move: [
    length('across', '0'),
    length('up', '0'),
    { name: 'turn', kind: 'angle', initial: '0' },
    { name: 'scale', kind: 'number', initial: '1' },
  ],
};

const CLICKS: readonly ChangeKind[] = [
  'trim', 'extend', 'split', 'round corner', 'bevel corner', 'borrow', 'borrow section', 'borrow silhouette',
]; // prettier-ignore

export const CHANGE_HINTS: Readonly<Record<ChangeKind, string>> = {
  trim: 'Click the piece to take away',
  extend: 'Click near the end to lengthen',
  split: 'Click where to split',
  'round corner': 'Click corners to round',
  'bevel corner': 'Click corners to bevel',
  lettering: 'Type what it says; Enter keeps it',
  borrow: 'Click an edge, the end of one, or a face of the part',
  'borrow section': 'Click a body: where the plane cuts it is taken',
  'borrow silhouette': 'Click a body: its outline is taken',
  offset: 'Offset what is picked; Enter keeps it',
  mirror: 'Click the line to mirror across',
  'linear pattern': 'Click a line to repeat along, or keep the x axis; Enter keeps it',
  'circular pattern': 'Click the point to repeat about, or keep the origin; Enter keeps it',
  move: 'Type how far and how much; Enter keeps it',
};

export function useChanging(
  geometry: Ref<SketchGeometry | null>,
  numberOf: (id: string) => number,
  change: (label: string, run: (sketch: SketchGeometry) => void) => boolean,
) {
  const design = useDesign();
  const session = useSession();
  const borrowing = useBorrowing(change);
  const of = shallowRef<readonly string[]>([]);
  const support = ref<string | null>(null);
  const texts = ref<Record<string, string>>({});
  const reversed = ref(false);

  const kind = computed(() => session.changing);
  const fields = computed(() => (kind.value ? FIELDS[kind.value] : []));
  const atClick = computed(() => kind.value !== null && CLICKS.includes(kind.value));

  function begin(next: ChangeKind): void {
    session.tool = null;
    of.value = [...session.entities];
    session.entities = [];
    support.value = next === 'linear pattern' ? 'x_axis' : next === 'circular pattern' ? 'origin' : null;
    texts.value = Object.fromEntries(FIELDS[next].map((f) => [f.name, f.initial]));
    const first = geometry.value?.curves[of.value[0] ?? ''];
    if (next === 'lettering' && first?.kind === 'text') texts.value = { text: first.text };
    reversed.value = false;
    session.changing = next;
  }
  // A tool taken in hand, or another sketch, ends the change; putting a tool down does not.
  watch(
    () => session.tool,
    (tool) => tool && (session.changing = null),
  );
  watch(
    () => session.sketching,
    () => (session.changing = null),
  );

  const scope = () => ({ part: session.activePart!, step: session.sketching! });

  /** Each field read: its value, and the expression that keeps it; a sentence where it cannot be read. */
  const numbers = computed(() => {
    const read: Record<string, { value: number; expression: string }> = {};
    const faults: Record<string, string> = {};
    for (const f of fields.value) {
      const text = (texts.value[f.name] ?? '').trim();
      if (!text || f.kind === 'text') continue;
      const value = design.ledger!.read(text, scope(), f.kind);
      if (!value.ok) faults[f.name] = value.message;
      else read[f.name] = { value: value.quantity.value, expression: design.ledger!.bind(text, scope(), f.kind) };
    }
    return { read, faults };
  });

  /** Run the change of what is picked on a sketch. @throws ChangeRefused */
  function run(sketch: SketchGeometry): Constraint[] {
    const { read, faults } = numbers.value;
    const fault = Object.values(faults)[0];
    if (fault) throw new ChangeRefused(fault);
    const need = (name: string) => {
      const found = read[name];
      if (!found) throw new ChangeRefused(`Give the ${name} a number.`);
      return found;
    };
    switch (kind.value) {
      case 'lettering': {
        const text = (texts.value.text ?? '').trim();
        if (!text) throw new ChangeRefused('Lettering needs at least one character.');
        for (const id of of.value) {
          const curve = sketch.curves[id];
          if (curve?.kind === 'text') curve.text = text.slice(0, 200);
        }
        return [];
      }
      case 'offset': {
        const d = need('distance');
        offsetChain(sketch, wholeSelection(sketch, of.value).curves, reversed.value ? -d.value : d.value, d.expression);
        return [];
      }
      case 'mirror':
        if (!support.value) throw new ChangeRefused('Click the line to mirror across.');
        mirror(sketch, of.value, support.value);
        return [];
      case 'linear pattern': {
        const rows =
          read.rows && read.rows.value > 1 ? { rows: { count: read.rows.expression, step: need('row spacing') } } : {};
        linearPattern(sketch, of.value, support.value!, {
          count: need('count').expression,
          step: need('spacing'),
          ...rows,
        });
        return [];
      }
      case 'circular pattern':
        circularPattern(sketch, of.value, support.value!, {
          count: need('count').expression,
          ...(read.step ? { step: read.step } : {}),
        });
        return [];
      case 'move': {
        const shift: Place = [need('across').value, need('up').value];
        return transform(sketch, of.value, {
          about: middleOf(sketch, of.value),
          turn: need('turn').value,
          scale: need('scale').value,
          shift,
        });
      }
      default:
        return [];
    }
  }

  /** The change as it would be, drawn into a copy; null while it cannot be made. */
  const preview = computed<{ sketch: SketchGeometry; curves: string[] } | null>(() => {
    const sketch = geometry.value;
    if (!sketch || !kind.value || atClick.value) return null;
    const copy = JSON.parse(JSON.stringify(sketch)) as SketchGeometry;
    try {
      run(copy);
      matchPatterns(copy, (id) => (id in sketch.constraints ? numberOf(id) : readBack(copy, id)));
    } catch (error) {
      if (error instanceof ChangeRefused) return null;
      throw error;
    }
    const moved = kind.value === 'move' || kind.value === 'lettering' ? wholeSelection(copy, of.value).curves : [];
    return { sketch: copy, curves: [...moved, ...Object.keys(copy.curves).filter((id) => !(id in sketch.curves))] };
  });

  /** A dimension the change itself adds, by the expression it carries. */
  function readBack(copy: SketchGeometry, id: string): number {
    const c = copy.constraints[id];
    const expression = c && isDimension(c) ? c.value : '';
    return Object.values(numbers.value.read).find((r) => r.expression === expression)?.value ?? 1;
  }

  function tell(dropped: readonly Constraint[]): void {
    if (dropped.length === 0 || !geometry.value) return;
    toast(`${describeConstraints(dropped)} could not hold on what is left and went.`);
  }

  function keep(): void {
    const label = { lettering: 'Change the lettering', offset: 'Offset curves', mirror: 'Mirror in the sketch', 'linear pattern': 'Repeat along a line', 'circular pattern': 'Repeat about a point', move: 'Move in the sketch' }[kind.value as FormChange]; // prettier-ignore
    let dropped: Constraint[] = [];
    if (!change(label, (sketch) => (dropped = run(sketch)))) return;
    session.changing = null;
    tell(dropped);
  }

  /** A click on the stage while a change is under way. */
  function click(map: PlaneMap, entity: string | null, at: Place, x: number, y: number): void {
    const sketch = geometry.value;
    if (!sketch) return;
    switch (kind.value) {
      case 'trim':
      case 'extend':
      case 'split': {
        // The curve is meant, also near its end.
        const curve = curveNear(sketch, map, x, y);
        if (!curve) return;
        const work = { trim, extend, split }[kind.value];
        const label = { trim: 'Trim a curve', extend: 'Extend a curve', split: 'Split a curve' }[kind.value];
        let dropped: Constraint[] = [];
        if (change(label, (s) => (dropped = work(s, curve, at)))) tell(dropped);
        return;
      }
      case 'round corner':
      case 'bevel corner': {
        const corner = pointNear(sketch, map, x, y);
        if (corner) turnCorner(corner);
        return;
      }
      case 'borrow':
      case 'borrow section':
      case 'borrow silhouette':
        void borrowing.click(kind.value, x, y);
        return;
      case 'mirror':
        support.value = curveNear(sketch, map, x, y) ?? entity;
        if (support.value) keep();
        return;
      case 'linear pattern':
        if (
          entity &&
          (!(entity in sketch.curves) || sketch.curves[entity]!.kind === 'line') &&
          !(entity in sketch.points)
        )
          support.value = entity;
        return;
      case 'circular pattern': {
        const point = pointNear(sketch, map, x, y) ?? centerOf(sketch, entity);
        if (point) support.value = point;
        return;
      }
      default:
        if (entity) of.value = of.value.includes(entity) ? of.value.filter((e) => e !== entity) : [...of.value, entity];
    }
  }

  function turnCorner(corner: string): void {
    const round = kind.value === 'round corner';
    const number = numbers.value.read[round ? 'radius' : 'length'];
    if (!number) {
      session.notice = Object.values(numbers.value.faults)[0] ?? 'Give a size first.';
      return;
    }
    change(round ? 'Round a corner' : 'Bevel a corner', (s) => {
      if (round) fillet(s, corner, number.value, number.expression);
      else chamfer(s, corner, number.value, number.expression, (first) => `$${session.sketching}.${first}`);
    });
  }

  /** Pick all that hangs together, end to end, with what is picked or pointed at. */
  function pickChain(from: readonly (string | null)[] = session.entities): void {
    const sketch = geometry.value;
    if (!sketch || session.tool || session.changing) return;
    const curves = from.filter((e) => e !== null && e in sketch.curves) as string[];
    if (curves.length === 0) return;
    session.entities = [...new Set(curves.flatMap((c) => chainOf(sketch, c)))];
  }

  return {
    kind,
    fields,
    atClick,
    of,
    support,
    texts,
    reversed,
    numbers,
    preview,
    begin,
    keep,
    click,
    pickChain,
    borrowing,
  };
}

export type Changing = ReturnType<typeof useChanging>;

function centerOf(sketch: SketchGeometry, entity: string | null): string | null {
  const curve = entity ? sketch.curves[entity] : undefined;
  return curve && 'center' in curve ? curve.center : null;
}

function middleOf(sketch: SketchGeometry, ids: readonly string[]): Place {
  const places = wholeSelection(sketch, ids).points.map((p) => sketch.points[p]!);
  const mid = (k: 0 | 1) => (Math.min(...places.map((p) => p[k])) + Math.max(...places.map((p) => p[k]))) / 2;
  return places.length > 0 ? [mid(0), mid(1)] : [0, 0];
}
