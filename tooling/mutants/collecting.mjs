/** What the tests take from `@jest/globals`, kept in a list to be run rather than run by Jest. */

/**
 * @returns the globals to hand to test files, and `tests`, filled while those are loaded: each with its name in full,
 * its function, and what is to be run before it
 */
export function collecting(expect) {
  const tests = [];
  let within = { names: [], before: [] };
  const describe = (name, body) => {
    const outside = within;
    within = { names: [...outside.names, name], before: [...outside.before] };
    try {
      body();
    } finally {
      within = outside;
    }
  };
  const test = (name, body) => {
    const full = [...within.names, name].join(' ');
    // Rows of a table may bear one name.
    const twins = tests.filter((t) => t.name === full || t.name.startsWith(`${full} #`)).length;
    tests.push({ name: twins > 0 ? `${full} #${twins + 1}` : full, body, before: within.before });
  };
  const each = (declare) => (rows) => (name, body) => {
    for (const row of rows) declare(name, () => (Array.isArray(row) ? body(...row) : body(row)));
  };
  describe.each = each(describe);
  test.each = each(test);
  const beforeEach = (body) => within.before.push(body);
  return { globals: { describe, test, it: test, expect, beforeEach }, tests };
}
