import { parentPort, workerData } from "node:worker_threads";
import { TASKS } from "./tasks.js";
import type { Answer, Given } from "./thread.js";

/** Reads a file in a thread of its own that can be ended. */
const { task, bytes } = workerData as Given;
const tell = (answer: Answer) => parentPort!.postMessage(answer);

TASKS[task](bytes).then(
  (made) => tell({ made }),
  (error: unknown) => {
    const { name = "Error", message = "", code } = error as Error & { code?: string };
    tell({ failed: { name, message, ...(code !== undefined && { code }) } });
  },
);
