import { loadDemo } from "./load";

const id = await loadDemo();
process.stdout.write(`${id}\n`);
