import type { TaskName, TaskResult } from "./tasks.js";

/** What the thread is handed, and what it answers. */
export interface Given {
  readonly task: TaskName;
  readonly bytes: Uint8Array;
}
export interface Answer {
  readonly made?: unknown;
  readonly failed?: { readonly name: string; readonly message: string; readonly code?: string };
}

/** Whether this is Node, and no page. */
export const isNode = typeof process === "object" && process.versions?.node !== undefined;

/** How long it may take, in milliseconds. */
const PATIENCE = 60_000;
/** How much memory it may take, in megabytes. */
const MEMORY = 1024;

/**
 * Reads a file in a thread of its own (Node), which is ended when it takes too long or too much: what reads it is a package that does not
 * bound itself.
 * @throws Error as the package threw it; `Timeout` when it took too long
 */
export async function inThread<Name extends TaskName>(
  task: Name,
  bytes: Uint8Array,
): Promise<TaskResult<Name>> {
  const { Worker } = process.getBuiltinModule("node:worker_threads");
  const workerData: Given = { task, bytes };
  const worker = new Worker(besides("file-worker.js", import.meta.url), {
    ...{ workerData, stdout: true, stderr: true },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY },
  });
  let timer: NodeJS.Timeout | undefined;
  try {
    return await new Promise<TaskResult<Name>>((settle, refuse) => {
      const fail = (failed: { name: string }) => refuse(Object.assign(new Error(), failed));
      worker.once("message", ({ made, failed }: Answer) =>
        failed ? fail(failed) : settle(made as TaskResult<Name>),
      );
      worker.once("error", refuse);
      timer = setTimeout(() => fail({ name: "Timeout" }), PATIENCE);
    });
  } finally {
    clearTimeout(timer);
    await worker.terminate();
  }
}

/**
 * A file that stands beside the one that this code is in. Programs that bundle for pages, where there is no such thread, need not follow it.
 * @param here the address of that one (`import.meta.url`)
 */
export function besides(name: string, here: string): URL {
  return new URL(name, here);
}
