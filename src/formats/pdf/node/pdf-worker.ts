import { performance } from "node:perf_hooks";
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
  isAsked = false;
  port.postMessage(value);
  Atomics.store(flag, 0, 1);
  Atomics.notify(flag, 0);
}

/** What was thrown, as what can be sent. */
function failure(error: unknown): Answer {
  const { name = "Error", message = "", code } = error as { name?: string; message?: string; code?: unknown };
  return { failed: { name, message, code: typeof code === "string" ? code : "" } };
}

/** How often it is looked whether anything is going on, in milliseconds, and how many times nothing may. */
const LOOK = 500;
const IDLE_LOOKS = 4;

/** What is waited for, unless nothing is going on any more: pdf.js forgets to answer about some damaged pages. */
function unlessIdle<Value>(waited: Promise<Value>): Promise<Value> {
  return new Promise((resolve, reject) => {
    let before = performance.eventLoopUtilization();
    let idle = 0;
    const timer = setInterval(() => {
      const now = performance.eventLoopUtilization();
      idle = performance.eventLoopUtilization(now, before).utilization < 0.05 ? idle + 1 : 0;
      before = now;
      if (idle === IDLE_LOOKS) reject(new Error("pdf.js does not answer"));
    }, LOOK);
    void waited.then(resolve, reject).finally(() => clearInterval(timer));
  });
}

// What pdf.js throws where nobody hears it would end this thread, and leave who waits waiting.
for (const event of ["unhandledRejection", "uncaughtException"] as const)
  process.on(event, (error: unknown) => {
    if (isAsked) answer(failure(error));
  });

let pdf: OpenPdf | undefined;
/** Whether somebody waits for a page. */
let isAsked = false;
port.on("message", (asked: Asked) => {
  isAsked = true;
  void unlessIdle(pdf!.page(asked.page)).then(
    (page) => {
      if (isAsked) answer({ page });
    },
    (error: unknown) => {
      if (isAsked) answer(failure(error));
    },
  );
});
unlessIdle(openPdf(bytes, options)).then(
  (opened) => {
    pdf = opened;
    const { count, title, outline } = opened;
    parentPort!.postMessage({
      opened: { count, outline, ...(title !== undefined && { title }) },
    } satisfies Answer);
  },
  (error: unknown) => parentPort!.postMessage(failure(error)),
);
