import { createServer } from "node:http";
import { build } from "esbuild";

/** Bundles a page's script and serves it, with an empty page around it. Gives the address, and what ends it. */
export async function servePage(script) {
  const bundled = await build({
    stdin: { contents: script, resolveDir: "." },
    ...{ bundle: true, format: "iife", write: false, logLevel: "error" },
  });
  const server = createServer((request, response) => {
    if (request.url === "/page.js")
      response.setHeader("content-type", "text/javascript; charset=utf-8").end(bundled.outputFiles[0].text);
    else
      response
        .setHeader("content-type", "text/html; charset=utf-8")
        .end("<!doctype html><body><script src=/page.js></script>");
  });
  await new Promise((ready) => server.listen(0, "127.0.0.1", ready));
  return { address: `http://127.0.0.1:${server.address().port}`, close: () => server.close() };
}
