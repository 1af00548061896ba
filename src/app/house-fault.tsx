import { faultOf } from "@/server/http/route";
import { type StorageError, storageFault } from "@/server/storage-faults";
import { Masthead } from "@/ui/parts/Masthead";
import page from "@/ui/parts/page.module.css";

/** What a page needs, or why the store of the house does not give it. Other errors pass on. */
export function fromHouse<T>(name: string, load: () => T): T | StorageError {
  try {
    return load();
  } catch (error) {
    const fault = storageFault(error);
    if (!fault) throw error;
    faultOf(name, error); // into the log
    return fault;
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
