import { workerDesk } from "../worker-desk";

const desk = workerDesk((message) => self.postMessage(message));
self.addEventListener("message", (event: MessageEvent<unknown>) => desk(event.data));
