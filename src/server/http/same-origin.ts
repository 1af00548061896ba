const LOOPBACK = new Set(["127.0.0.1", "localhost", "[::1]"]);

/**
 * Why a request is turned away, or null when it is from our own pages. The host must be this machine (or the one in
 * BETA_STEP_HOST), which stops a page elsewhere from pointing its name at us; a write must come from the same origin.
 */
export function foreignRequest(request: Request, ownHost = process.env.BETA_STEP_HOST): string | null {
  const host = request.headers.get("host") ?? "";
  const name = host.replace(/:\d+$/, "");
  if (!LOOPBACK.has(name) && name !== ownHost) return "Beta Step answers only on this machine's own address.";
  if (request.method === "GET" || request.method === "HEAD") return null;
  const origin = request.headers.get("origin");
  if (origin === null) {
    // browsers send an origin with every write; without one it is a program on this machine
    return request.headers.get("sec-fetch-site") === null ? null : "Changes are taken from Beta Step's own pages only.";
  }
  try {
    if (new URL(origin).host === host) return null;
  } catch {
    // "null" and other opaque origins
  }
  return "Changes are taken from Beta Step's own pages only.";
}
