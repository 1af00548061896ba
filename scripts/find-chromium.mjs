import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import path from "node:path";

/** Below the folders where Windows keeps programs. */
const ON_WINDOWS = ["Chromium/Application/chrome.exe", "Google/Chrome/Application/chrome.exe", "Microsoft/Edge/Application/msedge.exe"];
const WINDOWS_FOLDERS = [process.env.LOCALAPPDATA, process.env.PROGRAMFILES, process.env["PROGRAMFILES(X86)"]];
const PLACES = [
  process.env.CHROMIUM,
  "/usr/bin/chromium",
  "/usr/bin/chromium-browser",
  "/usr/bin/google-chrome",
  "/Applications/Chromium.app/Contents/MacOS/Chromium",
  "/Applications/Google Chrome.app/Contents/MacOS/Google Chrome",
  ...WINDOWS_FOLDERS.flatMap((folder) => (folder ? ON_WINDOWS.map((place) => path.join(folder, place)) : [])),
];

/** Debian's Chromium without windows of its own: a new page costs a fifth, and the journeys take an eighth less. */
const WITHOUT_WINDOWS = "/usr/bin/chromium-headless-shell";

/** Path of a Chromium on this machine, or null. CHROMIUM names another one. */
function findChromium() {
  return PLACES.find((place) => place && existsSync(place)) ?? null;
}

/** Of those on this machine the one that drives journeys soonest, or null. */
function findForJourneys() {
  return !process.env.CHROMIUM && existsSync(WITHOUT_WINDOWS) ? WITHOUT_WINDOWS : findChromium();
}

/** Finds Chromium, installs Debian's when that is possible, and else says how. */
export function requireChromium() {
  const found = findForJourneys();
  if (found) return found;
  if (process.getuid?.() === 0 && existsSync("/usr/bin/apt-get")) {
    process.stdout.write("Installing Chromium …\n");
    const quiet = { stdio: ["ignore", "ignore", "inherit"], env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } };
    spawnSync("apt-get", ["update", "-q"], quiet);
    // an older Debian may have only the whole of it
    for (const name of ["chromium-headless-shell", "chromium"])
      if (!findForJourneys()) spawnSync("apt-get", ["install", "-y", "-q", "--no-install-recommends", name], quiet);
  }
  const installed = findForJourneys();
  if (installed) return installed;
  process.stderr.write(
    "The end-to-end tests need Chromium, and none was found.\nInstall it (Debian: sudo apt-get install chromium) or set CHROMIUM to its path, then run npm test again.\n",
  );
  process.exit(1);
}
