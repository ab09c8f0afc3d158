import { parentPort, workerData } from "node:worker_threads";
import { toXlsx } from "../convert.js";
import type { Converted } from "./thread.js";

/** Makes an xlsx of an old workbook, in a thread of its own that can be ended. */
const tell = (answer: Converted) => parentPort!.postMessage(answer);

toXlsx(workerData as Uint8Array).then(
  (made) => tell({ made }),
  (error: unknown) => {
    const { name = "Error", message = "", code } = error as Error & { code?: string };
    tell({ failed: { name, message, ...(code !== undefined && { code }) } });
  },
);
