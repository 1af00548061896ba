/** Runs once when the server starts: the database is opened and brought up to date before the first request. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { startServer } = await import("./server/start");
  const { storageFault } = await import("./server/storage-faults");
  try {
    await startServer();
  } catch (error) {
    const fault = storageFault(error);
    if (!fault) throw error;
    process.stderr.write(`\nBeta Step cannot start (${fault.code}). ${fault.message}\n`);
    process.exit(1);
  }
}
