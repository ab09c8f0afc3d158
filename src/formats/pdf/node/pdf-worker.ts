import { parentPort, workerData, type MessagePort } from "node:worker_threads";
import { openPdf, type OpenPdf } from "../engine.js";
import type { Answer, Asked, WorkerStart } from "./worker-pages.js";

/**
 * Reads a PDF in a thread of its own, which can be ended. It answers whoever waits for a page with its thread standing still: the answer
 * is sent first, and then the signal is given.
 */
const { port, signal, bytes, options } = workerData as WorkerStart & { port: MessagePort };
const flag = new Int32Array(signal);

function answer(value: Answer): void {
  port.postMessage(value);
  Atomics.store(flag, 0, 1);
  Atomics.notify(flag, 0);
}

/** What was thrown, as what can be sent. */
function failure(error: unknown): Answer {
  const { name = "Error", message = "", code } = error as { name?: string; message?: string; code?: unknown };
  return { failed: { name, message, code: typeof code === "string" ? code : "" } };
}

let pdf: OpenPdf | undefined;
port.on("message", (asked: Asked) => {
  void pdf!.page(asked.page).then(
    (page) => answer({ page }),
    (error: unknown) => answer(failure(error)),
  );
});
openPdf(bytes, options).then(
  (opened) => {
    pdf = opened;
    const { count, title, outline } = opened;
    parentPort!.postMessage({
      opened: { count, outline, ...(title !== undefined && { title }) },
    } satisfies Answer);
  },
  (error: unknown) => parentPort!.postMessage(failure(error)),
);
