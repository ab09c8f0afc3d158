import { fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { DrawerError } from "../content/error.js";
import type { Offered } from "./desktop.js";
import type { Answer } from "./holder.js";

/**
 * Puts something on the clipboard and leaves it there when this program ends: another one, in the background, holds it
 * until a program copies something else.
 *
 * @throws DrawerError `no-clipboard` when it cannot be offered
 */
export async function holdOnClipboard(offered: Offered): Promise<void> {
  const child = fork(HOLDER, {
    detached: true,
    stdio: ["ignore", "ignore", "ignore", "ipc"],
    serialization: "advanced",
  });
  const answer = await new Promise<Answer>((resolve) => {
    child.once("message", (said: Answer) => resolve(said));
    child.once("error", (error) => resolve({ isOffered: false, why: error.message }));
    child.once("exit", (code) => resolve({ isOffered: false, why: `it ended with ${code}` }));
    child.send(offered as never);
  });
  child.unref();
  if (child.connected) child.disconnect();
  if (!answer.isOffered) throw new DrawerError("no-clipboard/holder", { why: answer.why });
}

const HOLDER = fileURLToPath(new URL("./holder.js", import.meta.url));
