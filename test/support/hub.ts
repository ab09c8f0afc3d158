import { spawn, type ChildProcess } from "node:child_process";
import { connect, createServer, type AddressInfo, type Server } from "node:net";
import { resolve } from "node:path";

/** A hub that runs as a process. */
export interface HubProcess {
  readonly address: string;
  readonly port: number;
  readonly child: ChildProcess;
  /** Ends it as its owner would, or kills it. Settles with its exit code when it is gone. */
  stop(signal?: NodeJS.Signals): Promise<number | null>;
}

const main = resolve("dist/bin/main.js");

/** Starts `drawer hub` with these words, and waits until it listens. */
export async function startHub(
  words: readonly string[],
  env: Readonly<Record<string, string>> = {},
): Promise<HubProcess> {
  const child = spawn(process.execPath, [main, "hub", "--json", "--quiet", ...words], {
    env: { ...process.env, ...env },
    stdio: ["ignore", "pipe", "pipe"],
  });
  const gone = new Promise<number | null>((settle) => child.once("exit", settle));
  let said = "";
  child.stderr!.setEncoding("utf8").on("data", (text: string) => (said += text));
  const address = await new Promise<string>((settle, fail) => {
    child.stdout!.setEncoding("utf8").once("data", (text: string) => {
      settle((JSON.parse(text) as { address: string }).address);
    });
    void gone.then((code) => fail(new Error(`The hub ended with ${code}: ${said}`)));
  });
  return {
    address,
    port: Number(new URL(address).port),
    child,
    stop: (signal = "SIGTERM") => {
      child.kill(signal);
      return gone;
    },
  };
}

/** A network between devices and a hub, that keeps what goes through it, and can be cut. */
export class Network {
  readonly seen: Buffer[] = [];
  isCut = false;
  readonly #server: Server;
  readonly #open = new Set<{ destroy(): void }>();

  constructor(port: () => number) {
    this.#server = createServer((near) => {
      if (this.isCut) return near.destroy();
      const far = connect(port(), "127.0.0.1");
      for (const [from, to] of [
        [near, far],
        [far, near],
      ] as const) {
        this.#open.add(from);
        from.on("data", (bytes: Buffer) => {
          this.seen.push(bytes);
          to.write(bytes);
        });
        from.on("error", () => to.destroy()).on("close", () => (to.destroy(), this.#open.delete(from)));
      }
    });
  }

  /** Begins to listen. Returns its address. */
  async listen(): Promise<string> {
    await new Promise<void>((settle) => this.#server.listen(0, "127.0.0.1", settle));
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}`;
  }

  /** Cuts all that is under way, and what is begun, until it is mended. */
  cut(isCut: boolean): void {
    this.isCut = isCut;
    if (isCut) for (const one of this.#open) one.destroy();
  }

  async close(): Promise<void> {
    this.cut(true);
    await new Promise((settle) => this.#server.close(settle));
  }
}
