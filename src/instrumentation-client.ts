import { browserPool } from "@/compute/browser/browser-pool";
import type { AskedName } from "@/study/kinds/kinds";

/** What each place of a study asks for first. */
const FIRST: Readonly<Record<string, AskedName>> = {
  responses: "strips",
  scales: "scale",
  "first-look": "first-look",
  ladders: "ladder",
  theory: "theory",
};

/**
 * Runs as soon as the page's scripts are there, before anything of it wakes up. The first numbers of a study come from a worker: it starts now, and loads and compiles
 * beside the page instead of after it.
 */
const [, studies, , place] = location.pathname.split("/");
if (studies === "studies") browserPool().warm(1, FIRST[place ?? ""]);
