import { createHash, randomBytes, timingSafeEqual } from "node:crypto";
import { chmodSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { dataFolder } from "./data-folder";
import { StorageError } from "./storage-faults";

/** The key of a house, made once: who has it may come in. In a file of the data folder, so that bookmarks and cookies outlive a restart. */
export const KEY_FILE = "key";
/** Read once by the whole process: when the folder goes while the server runs, the door does not change its lock. */
const held = globalThis as { betaStepKey?: string };

/** The key of this house. @returns null when it stands open (BETA_STEP_KEY=off) */
export function houseKey(folder = dataFolder()): string | null {
  if (process.env.BETA_STEP_KEY === "off") return null;
  return (held.betaStepKey ??= readKey(path.join(folder, KEY_FILE)));
}

/** Makes the key where there is none yet. Only at a start, so that a folder that is gone is not made anew behind it. */
export function makeKey(folder = dataFolder()): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700); // one that was there before too
  try {
    writeFileSync(path.join(folder, KEY_FILE), `${randomBytes(24).toString("base64url")}\n`, { flag: "wx", mode: 0o600 });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
  }
}

function readKey(file: string): string {
  const key = readFileSync(file, "utf8").trim();
  if (key.length < 16)
    throw new StorageError(
      "key-short",
      `The key in ${file} is shorter than 16 letters. Remove the file: a new one is made at the next start.`,
    );
  return key;
}

/** Cookies do not tell ports apart: houses on one machine have names of their own for theirs. */
export function keyCookie(key: string): string {
  return `beta-step-${createHash("sha256").update(key).digest("hex").slice(0, 12)}`;
}

/** Whether what was shown is the key, in a time that does not tell how much of it is right. */
export function isKey(shown: string | null | undefined, key: string): boolean {
  const digest = (text: string) => createHash("sha256").update(text).digest();
  return shown !== null && shown !== undefined && timingSafeEqual(digest(shown), digest(key));
}
