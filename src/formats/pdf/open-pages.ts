import { DrawerError } from "../../content/error.js";
import { formatErrors } from "../../messages/en/formats.js";
import type { ReadOptions } from "../format.js";
import { isNode } from "../thread/node/thread.js";
import { pagesByWorker } from "./node/worker-pages.js";
import type { PageFacts, PdfPages } from "./page-facts.js";
import { PagesError } from "./pages-error.js";

/**
 * Opens a PDF: in Node in a thread of its own, whose pages are read when they are asked for; in a page all of it at once.
 * @throws DrawerError `unreadable`, `locked`, `too-large`, `unknown-format` where the package that reads it is not there
 */
export async function openPages(
  bytes: Uint8Array,
  file: string,
  options: ReadOptions = {},
): Promise<PdfPages> {
  const { password } = options;
  const given = password === undefined ? {} : { password };
  try {
    const pages = isNode ? await pagesByWorker(bytes, given) : await pagesHere(bytes, given, options);
    return {
      ...pages,
      page(number) {
        try {
          return pages.page(number);
        } catch (error) {
          throw refusal(error, file, options, number);
        }
      },
    };
  } catch (error) {
    throw refusal(error, file, options);
  }
}

/** All pages, read in this thread, with a breath after each. */
async function pagesHere(
  bytes: Uint8Array,
  given: { password?: string },
  { onProgress }: ReadOptions,
): Promise<PdfPages> {
  const { openPdf } = await import("./engine.js");
  // It is read in this thread: a page of others need not serve a script for another.
  const here = globalThis as { pdfjsWorker?: unknown };
  here.pdfjsWorker ??= await import("pdfjs-dist/legacy/build/pdf.worker.mjs");
  const pdf = await openPdf(bytes, given).catch((error: unknown) => {
    throw new PagesError(error as Error);
  });
  const { count, title, outline } = pdf;
  const pages: (PageFacts | PagesError)[] = [];
  try {
    for (let number = 1; number <= count; number++) {
      onProgress?.(Math.round((bytes.length * number) / count), bytes.length);
      pages.push(await inTime(pdf.page(number)).catch((error: unknown) => new PagesError(error as Error)));
    }
  } finally {
    await pdf.close();
  }
  return {
    ...{ count, outline },
    ...(title !== undefined && { title }),
    page(number) {
      const page = pages[number - 1]!;
      if (page instanceof PagesError) throw page;
      return page;
    },
  };
}

/** How long a page may take, in milliseconds: pdf.js forgets to answer about some damaged ones. */
const PATIENCE = 20_000;

function inTime<Value>(waited: Promise<Value>): Promise<Value> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("pdf.js does not answer")), PATIENCE);
    void waited.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}

/** What pdf.js, or its thread, throws, as a refusal in a sentence; anything else as it is. */
function refusal(error: unknown, file: string, { password }: ReadOptions, page?: number): unknown {
  if (!(error instanceof PagesError)) return error;
  const { name } = error;
  const cause = { cause: error };
  switch (name) {
    case "PasswordException":
      return password === undefined
        ? new DrawerError(formatErrors, "locked/pdf", { file }, cause)
        : new DrawerError(formatErrors, "locked/password", { file }, cause);
    case "TooManyPages":
    case "Timeout":
    case "ERR_WORKER_OUT_OF_MEMORY":
    case "Ended":
      return new DrawerError(
        formatErrors,
        "too-large/pdf",
        { file, ...(page !== undefined && { page }) },
        cause,
      );
    case "ERR_MODULE_NOT_FOUND":
    case "MODULE_NOT_FOUND":
      return new DrawerError(formatErrors, "unknown-format/package", { file, what: "pdf" }, cause);
  }
  return page === undefined
    ? new DrawerError(formatErrors, "unreadable/damaged", { file }, cause)
    : new DrawerError(formatErrors, "unreadable/page", { file, page }, cause);
}
