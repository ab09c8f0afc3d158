import { besides } from "../../thread/node/thread.js";
import type { PdfOptions } from "../engine.js";
import type { PageFacts, PdfPages } from "../page-facts.js";
import { PagesError } from "../pages-error.js";

/** What the thread that reads a PDF is handed. */
export interface WorkerStart {
  readonly port: unknown;
  readonly signal: SharedArrayBuffer;
  readonly bytes: Uint8Array;
  readonly options: PdfOptions;
}

/** What it is asked. */
export interface Asked {
  readonly page: number;
}

/** What it answers. */
export interface Answer {
  readonly opened?: Omit<PdfPages, "page">;
  readonly page?: PageFacts;
  readonly failed?: { readonly name: string; readonly message: string; readonly code: string };
}

/** How long a document may take to open, and a page to be read, in milliseconds. */
const PATIENCE = { opening: 60_000, page: 60_000 };
/** How much memory the thread may take, in megabytes. */
const MEMORY = 1024;

/** Ends the threads of documents that nobody holds any more. */
const forgotten = new FinalizationRegistry<() => void>((end) => end());

/**
 * Opens a PDF in a thread of its own (Node), which is ended when it takes too long or too much. Pages are read when they are asked for,
 * while this thread waits.
 * @throws PagesError
 */
export async function pagesByWorker(bytes: Uint8Array, options: PdfOptions): Promise<PdfPages> {
  const { Worker, MessageChannel, receiveMessageOnPort } = process.getBuiltinModule("node:worker_threads");
  const { port1: port, port2 } = new MessageChannel();
  const signal = new SharedArrayBuffer(4);
  const flag = new Int32Array(signal);
  const workerData: WorkerStart = { port: port2, signal, bytes, options: { ...options, data: dataFolder() } };
  const worker = new Worker(besides("pdf-worker.js", import.meta.url), {
    ...{ workerData, transferList: [port2], stdout: true, stderr: true },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY },
  });
  let timer: NodeJS.Timeout | undefined;
  const first = await new Promise<Answer>((resolve) => {
    const fail = (name: string, message: string) => resolve({ failed: { name, message, code: "" } });
    worker.once("message", resolve);
    worker.once("error", (error: Error & { code?: string }) => fail(error.code ?? error.name, error.message));
    worker.once("exit", () => fail("Ended", ""));
    timer = setTimeout(() => fail("Timeout", ""), PATIENCE.opening);
  });
  clearTimeout(timer);
  const end = () => void worker.terminate();
  if (!first.opened) {
    end();
    throw new PagesError(first.failed!);
  }
  worker.unref();
  port.unref();
  const pages: PdfPages = {
    ...first.opened,
    page(number) {
      Atomics.store(flag, 0, 0);
      port.postMessage({ page: number } satisfies Asked);
      const isLate = Atomics.wait(flag, 0, 0, PATIENCE.page) === "timed-out";
      const { page, failed } = isLate
        ? { failed: { name: "Timeout", message: "", code: "" } }
        : ((receiveMessageOnPort(port) as { message: Answer }).message as Answer & { page?: PageFacts });
      if (page) return page;
      if (isLate) end();
      throw new PagesError(failed!);
    },
  };
  forgotten.register(pages, end);
  return pages;
}

/** The folder of pdf.js, with the tables and fonts that it needs for files that do not bring their own. */
function dataFolder(): string {
  const { createRequire } = process.getBuiltinModule("node:module");
  const { dirname, join, sep } = process.getBuiltinModule("node:path");
  try {
    return join(dirname(createRequire(import.meta.url).resolve("pdfjs-dist/package.json")), sep);
  } catch (error) {
    throw new PagesError(error as Error);
  }
}
