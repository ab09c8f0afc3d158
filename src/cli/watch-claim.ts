import { createHash } from "node:crypto";
import { rm } from "node:fs/promises";
import { connect, createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { DrawerError } from "../content/error.js";
import { cliErrors } from "../messages/en/cli.js";
import { home } from "./home-folder.js";

/** How long the path of a socket may be, in bytes, on every system. */
const LONGEST_PATH = 100;

/**
 * Where the program listens that collects the copies for a drawer. That somebody listens is all it says: the system ends it
 * with its program, however that ends.
 */
function addressOf(drawer: string): string {
  const name = createHash("sha256")
    .update(JSON.stringify([home(), drawer]))
    .digest("hex")
    .slice(0, 16);
  if (process.platform === "win32") return `\\\\.\\pipe\\drawer-watch-${name}`;
  const path = join(home(), `watch-${name}`);
  return Buffer.byteLength(path) <= LONGEST_PATH ? path : join(tmpdir(), `drawer-watch-${name}`);
}

/** Whether a program collects the copies for a drawer, or only its address is left; nothing when there is neither. */
function whoListens(drawer: string): Promise<"watch" | "left" | undefined> {
  return new Promise((tell, fail) => {
    const asking = connect(addressOf(drawer));
    asking.once("connect", () => {
      asking.destroy();
      tell("watch");
    });
    asking.once("error", (error: NodeJS.ErrnoException) => {
      if (error.code === "ENOENT") tell(undefined);
      else if (error.code === "ECONNREFUSED") tell("left");
      else fail(error);
    });
  });
}

/** Whether a program collects the copies for a drawer: whoever else hears them leaves them to it. */
export async function isWatched(drawer: string): Promise<boolean> {
  return (await whoListens(drawer)) === "watch";
}

/**
 * Claims for this program that it collects the copies for a drawer that is open. Returns what gives the claim up.
 * @throws DrawerError `watched` when another has it
 */
export async function claimWatch(drawer: string): Promise<() => void> {
  if ((await whoListens(drawer)) === "left") await rm(addressOf(drawer), { force: true });
  const server = createServer((asking) => asking.destroy());
  await new Promise<void>((claimed, fail) => {
    server.once("error", (error: NodeJS.ErrnoException) =>
      fail(error.code === "EADDRINUSE" ? new DrawerError(cliErrors, "watched", { drawer }) : error),
    );
    server.listen(addressOf(drawer), claimed);
  });
  server.unref();
  return () => void server.close();
}
