import { parentPort } from "node:worker_threads";
import { workerDesk } from "../worker-desk";

const desk = workerDesk((message, transfer) => parentPort!.postMessage(message, transfer));
parentPort!.on("message", desk);
