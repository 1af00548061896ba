/** Runs once when the server starts: the database is opened and brought up to date before the first request. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { startOrSay } = await import("./server/start");
  await startOrSay();
}
