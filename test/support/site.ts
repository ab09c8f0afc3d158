import { spawnSync } from "node:child_process";
import { readFile } from "node:fs/promises";
import { createServer } from "node:http";
import { extname, join } from "node:path";

const TYPES: Record<string, string> = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css" };

/** Builds the examples and serves them. Returns the address of one, or of the folder, and what ends it. */
export async function site(
  example: string,
): Promise<{ readonly address: string; readonly close: () => void }> {
  // They are built before the tests begin; this builds them for a suite that is run by hand.
  const built = spawnSync(process.execPath, ["scripts/examples.mjs"]);
  if (built.status !== 0) throw new Error(String(built.stderr));
  const { address, close } = await serve("examples/dist");
  return { address: example === "" ? address : `${address}${example}/`, close };
}

/** Serves the files of a folder. */
export async function serve(
  folder: string,
): Promise<{ readonly address: string; readonly close: () => void }> {
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url!, "http://localhost");
    const path = pathname.endsWith("/") ? `${pathname}index.html` : pathname;
    readFile(join(folder, path)).then(
      (bytes) =>
        response.setHeader("content-type", TYPES[extname(path)] ?? "application/octet-stream").end(bytes),
      () => response.writeHead(404).end(),
    );
  });
  await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
  return {
    address: `http://127.0.0.1:${(server.address() as { port: number }).port}/`,
    close: () => void server.close(),
  };
}
