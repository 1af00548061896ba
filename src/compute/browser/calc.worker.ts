import { workerDesk } from "../worker-desk";

const desk = workerDesk((message, transfer) => self.postMessage(message, { transfer }));
self.addEventListener("message", (event: MessageEvent<unknown>) => desk(event.data));
