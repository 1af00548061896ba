import base from "../playwright.config";

/** `npm run look:documents`: the demo's manuscript as DOCX, read by LibreOffice: as pages to look at, and as text to be held against the page. */
const config = { ...base, testDir: ".", testMatch: "look-documents.shots.ts" };

export default config;
