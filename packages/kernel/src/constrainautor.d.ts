/** What is used of the package. As types it ships its own source, which does not pass the checks set here. */
export default class Constrainautor {
  /**
   * Flips sides until every one of these is a side of triangles.
   * @param edges by their ends’ places among the points
   * @throws Error where two of them cross, or one goes through a point
   */
  constructor(
    mesh: { coords: ArrayLike<number>; triangles: Uint32Array; halfedges: Int32Array },
    edges: readonly (readonly [number, number])[],
  );
  isConstrained(halfedge: number): boolean;
}
