/** What the thread answers. */
export interface Converted {
  readonly made?: Uint8Array;
  readonly failed?: { readonly name: string; readonly message: string; readonly code?: string };
}

/** Whether this is Node, and no page. */
export const isNode = typeof process === "object" && process.versions?.node !== undefined;

/** How long it may take, in milliseconds. */
const PATIENCE = 60_000;
/** How much memory it may take, in megabytes. */
const MEMORY = 1024;

/**
 * Makes an xlsx of an old workbook in a thread of its own (Node).
 * @throws Error as the library threw it; `Timeout` when it took too long
 */
export async function convertInThread(bytes: Uint8Array): Promise<Uint8Array> {
  const { Worker } = process.getBuiltinModule("node:worker_threads");
  const worker = new Worker(besides("xls-worker.js"), {
    ...{ workerData: bytes, stdout: true, stderr: true },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY },
  });
  let timer: NodeJS.Timeout | undefined;
  try {
    return await new Promise<Uint8Array>((settle, refuse) => {
      const fail = (failed: { name: string }) => refuse(Object.assign(new Error(), failed));
      worker.once("message", ({ made, failed }: Converted) => (made ? settle(made) : fail(failed!)));
      worker.once("error", refuse);
      timer = setTimeout(() => fail({ name: "Timeout" }), PATIENCE);
    });
  } finally {
    clearTimeout(timer);
    await worker.terminate();
  }
}

/** A file that stands beside this one. Programs that bundle for pages, where there is no such thread, need not follow it. */
function besides(name: string): URL {
  const here = import.meta.url;
  return new URL(name, here);
}
