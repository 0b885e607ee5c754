/** Angle from the first line to the second, counter-clockwise, either of them turned about where it says so. */
import { angleFrom, lineIn } from '../drawn.ts';
import { angleBetween } from '../equations/direction.ts';
import { declareConstraint } from './constraint-kind.ts';

export const angle = declareConstraint('angle', {
  equations(id, { of, reversed }, on) {
    const [one, other] = of.map((e) => on.line(e, 'An angle needs two lines.'));
    const turned = (l: typeof one) => ({ from: l!.to, to: l!.from });
    return [
      angleBetween(
        id,
        reversed === 'first' || reversed === 'both' ? turned(one) : one!,
        reversed === 'second' || reversed === 'both' ? turned(other) : other!,
        on.value(id),
      ),
    ];
  },

  reads({ of, reversed }, sketch) {
    const [one, other] = of.map((e) => lineIn(sketch, e));
    if (!one || !other) return 0;
    const [[a, b], [c, d]] = [one, other];
    return angleFrom(
      reversed === 'first' || reversed === 'both' ? [b, a] : one,
      reversed === 'second' || reversed === 'both' ? [d, c] : other,
    );
  },

  quantity: 'angle',
});
