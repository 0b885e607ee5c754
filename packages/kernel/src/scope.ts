/** Objects of the WebAssembly heap must be deleted by hand; a scope deletes all it was given. */
interface Deletable {
  delete(): void;
}

export class Scope {
  private readonly owned: Deletable[] = [];

  /** Own an object until the scope ends. */
  keep<T extends Deletable>(object: T): T {
    this.owned.push(object);
    return object;
  }

  end(): void {
    // Newest first: what was built from others goes before them.
    while (this.owned.length > 0) this.owned.pop()!.delete();
  }
}

/** Run with a scope that ends however `work` ends. */
export function scoped<T>(work: (scope: Scope) => T): T {
  const scope = new Scope();
  try {
    return work(scope);
  } finally {
    scope.end();
  }
}
