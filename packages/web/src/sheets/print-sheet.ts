/** Printing a sheet on paper of its own size. */

/** Only what is to be printed is, on a page without margins. Rules set from script are allowed by a strict policy. */
const RULES = (width: number, height: number) => `
  @page { size: ${width}mm ${height}mm; margin: 0; }
  @media print {
    body > *:not(.printed-sheet) { display: none !important; }
    .printed-sheet svg { display: block; }
    .printed-sheet text[font-family='Archivo'] { font-family: 'Archivo Variable', sans-serif; }
  }
  @media screen { .printed-sheet { display: none; } }`;

/**
 * @param svg a sheet at its exact size
 * @param size mm
 */
export function printSheet(svg: string, [width, height]: readonly [number, number]): void {
  const drawn = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
  // One that a browser did not tell the end of.
  document.querySelector('.printed-sheet')?.remove();
  const holder = document.createElement('div');
  holder.className = 'printed-sheet';
  holder.append(document.importNode(drawn, true));
  document.body.append(holder);
  const rules = new CSSStyleSheet();
  rules.replaceSync(RULES(width, height));
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, rules];
  const done = () => {
    holder.remove();
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((other) => other !== rules);
  };
  window.addEventListener('afterprint', done, { once: true });
  window.print();
}
