import { type NextRequest, NextResponse } from "next/server";
import { turnedAway, type TurnedAway } from "./server/http/door";
import { houseKey, isKey, keyCookie } from "./server/house-key";
import { TOKENS } from "./ui/theme/token-values";

const YEAR_S = 365 * 24 * 3600;

/**
 * The door of the pages, which get a content security policy with a nonce of their own: scripts, workers and data from this server only.
 * Routes under /api stand behind the same door, but in their handlers: a proxy in front of an upload cuts its body at 10 MB.
 */
export function proxy(request: NextRequest) {
  const key = houseKey();
  const away = turnedAway(request, key);
  if (away?.status === 403) return told(away);
  if (!isReadable(request.nextUrl.pathname))
    return told({ status: 400, message: "There is no such page on this machine: the address cannot be read." });
  if (key !== null && isKey(request.nextUrl.searchParams.get("key"), key)) return letIn(request, key);
  return away ? told(away) : guarded(request);
}

function isReadable(pathname: string): boolean {
  try {
    decodeURIComponent(pathname);
    return true;
  } catch {
    return false;
  }
}

/** The key becomes a cookie and goes from the address, so that it stands in no history and no bookmark. */
function letIn(request: NextRequest, key: string): NextResponse {
  const { pathname, searchParams } = request.nextUrl;
  searchParams.delete("key");
  const rest = searchParams.size > 0 ? `?${searchParams.toString()}` : "";
  const scheme = request.headers.get("x-forwarded-proto") === "https" ? "https" : "http";
  const secure = scheme === "https" ? "; Secure" : "";
  return new NextResponse(null, {
    status: 303,
    headers: {
      location: `${scheme}://${request.headers.get("host")}${pathname}${rest}`,
      "set-cookie": `${keyCookie(key)}=${key}; Path=/; Max-Age=${YEAR_S}; HttpOnly; SameSite=Strict${secure}`,
      ...PLAIN,
    },
  });
}

const PLAIN = { "cache-control": "no-store", "x-content-type-options": "nosniff", "referrer-policy": "no-referrer" };

/** A page of one sentence; who has the key can enter it there. */
function told({ status, message }: { status: TurnedAway["status"] | 400; message: string }): NextResponse {
  const field = `<form><label>Key <input type="password" name="key" autofocus></label> <button>Open</button></form>`;
  const html = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Beta Step</title>
<style>body{font:1.1rem/1.6 Georgia,serif;max-width:36em;margin:15vh auto;padding:0 1.5em;background:${TOKENS["--paper"]};color:${TOKENS["--ink"]}}</style>
<main><h1>Beta Step</h1><p>${message}</p>${status === 401 ? field : ""}</main></html>`;
  const policy = "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'";
  return new NextResponse(html, {
    status,
    headers: { "content-type": "text/html; charset=utf-8", "content-security-policy": policy, ...PLAIN },
  });
}

function guarded(request: NextRequest): NextResponse {
  const nonce = btoa(crypto.randomUUID());
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'", // Ant Design writes its styles while it runs
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  response.headers.set("X-Content-Type-Options", "nosniff");
  response.headers.set("Referrer-Policy", "same-origin");
  return response;
}

export const config = {
  matcher: [
    "/((?!api|_next/static|_next/image|favicon.ico|icon.svg|.*\\.wasm$).*)",
    "/(api/.*%.*)", // an address that may not be readable: no handler would hear of it
  ],
};
