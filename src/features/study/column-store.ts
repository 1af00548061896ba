import { decodeColumns } from "@/files/column-bytes";
import type { ResponseColumn } from "@/study/model/response-column";

const AT_ONCE = 100;

const addressOf = (dataset: string, names: readonly string[]) =>
  `/api/datasets/${dataset}/columns?${names.map((name) => `name=${encodeURIComponent(name)}`).join("&")}`;

/** Where columns are fetched from when all of them are asked for in one moment: for a page that says so before its scripts run. */
export function columnAddresses(dataset: string, names: readonly string[]): string[] {
  return Array.from({ length: Math.ceil(names.length / AT_ONCE) }, (_, i) =>
    addressOf(dataset, names.slice(i * AT_ONCE, (i + 1) * AT_ONCE)),
  );
}

/** Columns of one dataset, fetched when first asked for; what is asked for in the same moment goes in one request. */
export class ColumnStore {
  private readonly here = new Map<string, ResponseColumn>();
  private readonly known = new Map<string, Promise<ResponseColumn>>();
  private waiting = new Map<string, { resolve: (c: ResponseColumn) => void; reject: (e: unknown) => void }>();

  constructor(
    readonly datasetId: string,
    private readonly send: (url: string) => Promise<Response> = (url) => fetch(url),
  ) {}

  /** The columns if every one of them is here already. */
  ready(names: readonly string[]): ResponseColumn[] | null {
    const all: ResponseColumn[] = [];
    for (const name of names) {
      const column = this.here.get(name);
      if (!column) return null;
      all.push(column);
    }
    return all;
  }

  /** @throws when the server does not answer; a later call asks again */
  columns(names: readonly string[]): Promise<ResponseColumn[]> {
    return Promise.all(names.map((name) => this.column(name)));
  }

  private column(name: string): Promise<ResponseColumn> {
    const known = this.known.get(name);
    if (known) return known;
    const promise = new Promise<ResponseColumn>((resolve, reject) => {
      if (this.waiting.size === 0) queueMicrotask(() => void this.fetchWaiting());
      this.waiting.set(name, { resolve, reject });
    });
    promise.catch(() => this.known.delete(name));
    this.known.set(name, promise);
    return promise;
  }

  private async fetchWaiting(): Promise<void> {
    const all = [...this.waiting];
    this.waiting = new Map();
    for (let at = 0; at < all.length; at += AT_ONCE) {
      const batch = all.slice(at, at + AT_ONCE);
      try {
        const response = await this.send(
          addressOf(
            this.datasetId,
            batch.map(([name]) => name),
          ),
        );
        if (!response.ok) throw new Error("columns-unavailable");
        const columns = decodeColumns(inSharedMemory(await response.arrayBuffer()));
        batch.forEach(([name, { resolve }], i) => {
          this.here.set(name, columns[i]!);
          resolve(columns[i]!);
        });
      } catch (error) {
        for (const [, { reject }] of batch) reject(error);
      }
    }
  }
}

/** The same bytes where all workers can read them without a copy each; as they are where the page is not isolated from others. */
function inSharedMemory(bytes: ArrayBuffer): ArrayBufferLike {
  if (typeof SharedArrayBuffer === "undefined" || !globalThis.crossOriginIsolated) return bytes;
  const shared = new SharedArrayBuffer(bytes.byteLength);
  new Uint8Array(shared).set(new Uint8Array(bytes));
  return shared;
}
