/** A request that names something that is not there. */
export class NotFoundError extends Error {
  readonly code = "not-found";
  constructor(readonly details: { what: string; id: string }) {
    super(`There is no ${details.what} "${details.id}".`);
  }
}

/** An edit made on an older state of the study than the one that is saved. */
export class StaleRevisionError extends Error {
  readonly code = "stale-revision";
  constructor(readonly details: { revision: number; saved: number }) {
    super("The study was changed in another window. Its newest state is shown now; please make your change again.");
  }
}

/** A saved document no longer has the shape the program expects. Names the place, never the contents. */
export class StoredShapeError extends Error {
  readonly code = "stored-shape";
  constructor(readonly details: { table: string; id: string; places: string[] }) {
    super(`The saved ${details.table} "${details.id}" cannot be read (${details.places.join(", ")}). Nothing was changed.`);
  }
}
