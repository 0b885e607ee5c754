import { describe, expect, test } from '@jest/globals';
import { productsIn } from './products.ts';

const named = (...lines: string[]) =>
  productsIn(new TextEncoder().encode(`ISO-10303-21;\nDATA;\n${lines.join('\n')}\nENDSEC;`));

describe('names in a STEP file', () => {
  test.each([
    ["#7 = PRODUCT('Wall bracket','Wall bracket','',(#8));", ['Wall bracket']],
    ["#7=PRODUCT ( 'Maker''s pin','',$,(#8));", ["Maker's pin"]],
    ["#7=PRODUCT('Stra\\X2\\00DF\\X0\\e \\X\\DC \\S\\d','',$,(#8));", ['Straße Ü ä']],
    ["#7=PRODUCT('1','',$,(#8));", []],
    ["#7=PRODUCT('','',$,(#8));", []],
    ["#7=PRODUCT_CONTEXT('mechanical','',$);", []],
  ])('%s', (line, names) => {
    expect(named(line)).toEqual(names);
  });

  test('each once, in the order of the file', () => {
    expect(named("#1=PRODUCT('B',$);", "#2=PRODUCT('A',$);", "#3=PRODUCT('B',$);")).toEqual(['B', 'A']);
  });
});
