import { houseKey, isKey, keyCookie } from "../house-key";

const LOOPBACK = new Set(["127.0.0.1", "localhost", "[::1]"]);
const LOCKED =
  "Beta Step is locked. Open the address that was printed when it was started: it carries the key. The key also lies in the file “key” of the data folder.";

/** Why a request is turned away, in a sentence. */
export interface TurnedAway {
  status: 401 | 403;
  code: "foreign-request" | "locked";
  message: string;
}

/** What the door looks at. */
export type Asked = Pick<Request, "method" | "headers">;

/**
 * The door before everything, pages and /api alike: first whether the request is from our own pages, then whether it shows the key.
 * @returns null when it may come in
 */
export function turnedAway(asked: Asked, key = houseKey()): TurnedAway | null {
  const foreign = foreignRequest(asked);
  if (foreign) return { status: 403, code: "foreign-request", message: foreign };
  if (key === null || isKey(shownKey(asked.headers, key), key)) return null;
  return { status: 401, code: "locked", message: LOCKED };
}

/** Browsers show the key as a cookie, programs as a bearer's token. */
function shownKey(headers: Headers, key: string): string | undefined {
  const bearer = /^Bearer (\S+)$/.exec(headers.get("authorization") ?? "");
  if (bearer) return bearer[1];
  const cookies = (headers.get("cookie") ?? "").split(/;\s*/);
  const name = `${keyCookie(key)}=`;
  return cookies.find((cookie) => cookie.startsWith(name))?.slice(name.length);
}

/**
 * Why a request is not from our own pages, or null when it is. The host must be this machine or one of BETA_STEP_HOSTS (names, separated by commas), which stops a
 * page elsewhere from pointing its name at us; a write must come from the same origin.
 */
export function foreignRequest(asked: Asked, further = process.env.BETA_STEP_HOSTS ?? ""): string | null {
  const host = asked.headers.get("host") ?? "";
  const name = host.replace(/:\d+$/, "").toLowerCase();
  const named = further.split(",").map((entry) => entry.trim().toLowerCase());
  if (!LOOPBACK.has(name) && (name === "" || !named.includes(name)))
    return "Beta Step answers only on this machine's own address. Further names can be given in BETA_STEP_HOSTS.";
  if (asked.method === "GET" || asked.method === "HEAD") return null;
  const origin = asked.headers.get("origin");
  if (origin === null) {
    // browsers send an origin with every write; without one it is a program on this machine
    return asked.headers.get("sec-fetch-site") === null ? null : "Changes are taken from Beta Step's own pages only.";
  }
  try {
    if (new URL(origin).host === host) return null;
  } catch {
    // "null" and other opaque origins
  }
  return "Changes are taken from Beta Step's own pages only.";
}
