import { spawn } from "node:child_process";
import { DrawerError } from "../content/error.js";
import type { Flavours } from "../formats/flavours.js";
import { decodeText } from "../formats/text/decode.js";

/** The targets under which X11 programs offer each flavour, the best first (ICCCM 2.6.2, freedesktop's shared MIME types). */
const TARGETS = {
  html: ["text/html"],
  tsv: ["text/tab-separated-values"],
  text: ["UTF8_STRING", "text/plain;charset=utf-8", "STRING"],
  picture: ["image/png", "image/jpeg"],
} as const;

/** The target by which programs that hold passwords declare that what they offer is one; its content is `secret`. */
const SECRET = "x-kde-passwordManagerHint";

/**
 * Reads what the system clipboard of this desktop offers, in all flavours that Drawer knows. Works on X11 (Wayland
 * desktops have it too, as XWayland), through the program `xclip`.
 *
 * @throws DrawerError `no-clipboard` where there is no such desktop or program, or the clipboard is empty
 */
export async function readClipboard(): Promise<Flavours> {
  if (process.platform !== "linux" || !process.env["DISPLAY"]) {
    throw new DrawerError("no-clipboard", {});
  }
  const offered = decodeText(await xclip("TARGETS")).split("\n");
  const read = async (targets: readonly string[]) => {
    const target = targets.find((each) => offered.includes(each));
    return target === undefined ? undefined : xclip(target);
  };
  const html = await read(TARGETS.html);
  const tsv = await read(TARGETS.tsv);
  const text = await read(TARGETS.text);
  const picture = await read(TARGETS.picture);
  const secret = offered.includes(SECRET) && decodeText(await xclip(SECRET)).trim() === "secret";
  return {
    ...(secret && { secret }),
    ...(html && { html: decodeText(html, "html") }),
    ...(tsv && { tsv: decodeText(tsv) }),
    ...(text && { text: decodeText(text) }),
    ...(picture && { picture }),
  };
}

/** The clipboard's bytes for one target. */
function xclip(target: string): Promise<Uint8Array> {
  return new Promise((done, fail) => {
    const child = spawn("xclip", ["-selection", "clipboard", "-o", "-t", target], {
      stdio: ["ignore", "pipe", "pipe"],
    });
    const chunks: Buffer[] = [];
    let said = "";
    child.stdout.on("data", (chunk: Buffer) => chunks.push(chunk));
    child.stderr.setEncoding("utf8").on("data", (text: string) => (said += text));
    child.on("error", () => fail(new DrawerError("no-clipboard/xclip", {})));
    child.on("close", (code) => {
      if (code === 0) done(new Uint8Array(Buffer.concat(chunks)));
      else if (/target|owner/i.test(said)) fail(new DrawerError("no-clipboard/empty", {}));
      else fail(new DrawerError("no-clipboard/other", { why: said.trim() || `xclip ended with ${code}` }));
    });
  });
}
