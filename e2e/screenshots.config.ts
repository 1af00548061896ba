import base from "../playwright.config";

/** `npm run screenshots`: takes the pictures of docs/screenshots anew, from the demo study. */
const config = { ...base, testDir: ".", testMatch: "screenshots.shots.ts" };

export default config;
