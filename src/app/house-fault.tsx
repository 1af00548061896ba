import { faultOf } from "@/server/http/route";
import { StoredShapeError } from "@/server/errors";
import { StorageError, storageFault } from "@/server/storage-faults";
import { NewerDocumentError } from "@/study/model/upgrade";
import { Masthead } from "@/ui/parts/Masthead";
import page from "@/ui/parts/page.module.css";

/** What a page needs, or why the house does not give it: its store, or a document of another program. Other errors pass on. */
export function fromHouse<T>(name: string, load: () => T): T | StorageError {
  try {
    return load();
  } catch (error) {
    const known = storageFault(error) !== null || error instanceof StoredShapeError || error instanceof NewerDocumentError;
    if (!known) throw error;
    const { code, message } = faultOf(name, error); // and into the log
    return new StorageError(code, message);
  }
}

/** What stands in place of a page when the store cannot be used: what happened, what was kept, what to do. */
export function HouseFault({ fault }: { fault: StorageError }) {
  return (
    <>
      <Masthead />
      <main className={page.sheet} role="alert">
        <h1 className={page.sentence}>Your studies cannot be shown at the moment.</h1>
        <p>{fault.message}</p>
      </main>
    </>
  );
}
