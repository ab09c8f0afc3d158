import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { createServer, type AddressInfo, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

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

/** A PostgreSQL of a test's own. */
export interface Postgres {
  /** What leads a hub to it. */
  readonly env: Readonly<Record<string, string>>;
  restart(): void;
  stop(): void;
}

/** Where Debian's PostgreSQL has its programs; nothing where it is not installed. */
export function postgresPrograms(): string | undefined {
  const folder = "/usr/lib/postgresql";
  const [version] = existsSync(folder) ? readdirSync(folder).sort().reverse() : [];
  return version && join(folder, version, "bin");
}

/** Makes a cluster in a folder of its own, and starts it: reached by a socket in that folder alone. */
export function startPostgres(): Postgres {
  const folder = mkdtempSync(join(tmpdir(), "drawer-pg-"));
  const programs = postgresPrograms()!;
  // It does not run as root.
  const user = process.getuid?.() === 0 ? idsOf("postgres") : undefined;
  if (user) chownSync(folder, user.uid, user.gid);
  const run = (program: string, ...words: string[]) => {
    const { status, stderr } = spawnSync(join(programs, program), words, {
      ...user,
      cwd: folder,
      encoding: "utf8",
      env: { ...process.env },
      stdio: ["ignore", "ignore", "pipe"],
    });
    if (status !== 0) throw new Error(`${program}: ${stderr}`);
  };
  const data = join(folder, "data");
  run("initdb", "-D", data, "-U", "hub", "--auth=trust", "-E", "UTF8", "--no-sync");
  const settings = `-c listen_addresses='' -c unix_socket_directories='${folder}'`;
  const control = (act: string, ...words: string[]) =>
    run("pg_ctl", act, "-D", data, "-w", "-l", join(folder, "log"), ...words);
  control("start", "-o", settings);
  const env = { PGHOST: folder, PGUSER: "hub", PGDATABASE: "postgres" };
  return {
    env,
    restart: () => control("restart", "-m", "immediate", "-o", settings),
    stop: () => {
      control("stop", "-m", "immediate");
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

function idsOf(user: string): { uid: number; gid: number } {
  const id = (flag: string) => Number(spawnSync("id", [flag, user], { encoding: "utf8" }).stdout);
  return { uid: id("-u"), gid: id("-g") };
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
      void import("node:net").then(({ connect }) => {
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
