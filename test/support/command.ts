import { spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

/** How the built command answered. */
export interface Answer {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}

/** A snippet as `--json` lists it. */
export interface ListedSnippet {
  readonly position: number | null;
  readonly id: string;
  readonly kind: string;
  readonly beginning: string;
  readonly text: string;
  readonly label: string | null;
  readonly kept: boolean;
  readonly private: boolean;
  readonly origin: { readonly document?: string; readonly at?: string; readonly title?: string };
  readonly collectedAt: string;
  readonly notes: readonly string[];
}

const main = resolve("dist/bin/main.js");

/** Removes a folder in which a program that is ending, such as a browser's reporter of crashes, may still write for a while. */
async function remove(folder: string): Promise<void> {
  for (let tries = 1; ; tries++)
    try {
      rmSync(folder, { recursive: true, force: true });
      return;
    } catch (error) {
      if (tries === 100) throw error;
      await new Promise((next) => setTimeout(next, 100));
    }
}

/** A home for drawers that is gone when the test file ends, and the built command working in it as a process. */
export function commandHome() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-test-"));
  afterAll(() => remove(folder));
  let homes = 0;
  let home = join(folder, "home");

  /** Runs `drawer` with these words; `input` is piped in. */
  const drawer = (words: readonly string[], input: string | Uint8Array = ""): Promise<Answer> =>
    new Promise((done, fail) => {
      const child = spawn(process.execPath, [main, ...words], { env: { ...process.env, DRAWER_HOME: home } });
      let out = "";
      let err = "";
      child.stdout.setEncoding("utf8").on("data", (text: string) => (out += text));
      child.stderr.setEncoding("utf8").on("data", (text: string) => (err += text));
      child.on("error", fail).on("close", (code) => done({ code: code ?? -1, out, err }));
      child.stdin.on("error", () => undefined).end(input);
    });

  /** The same for a list of commands as one would type them, one after another; fails when one is refused. */
  const all = async (...lines: string[]): Promise<string> => {
    let last = "";
    for (const line of lines) {
      const { code, out, err } = await drawer(line.split(" "));
      if (code !== 0) throw new Error(`drawer ${line} ended with ${code}: ${err}`);
      last = out;
    }
    return last;
  };

  const seeds = new Map<string, { readonly home: string; readonly last: string }>();
  /** The same in an empty home, by a copy of what the commands made of one before. */
  const seeded = async (...lines: string[]): Promise<string> => {
    const key = lines.join("\n");
    const made = seeds.get(key);
    if (!made) {
      const last = await all(...lines);
      cpSync(home, `${home}-seed`, { recursive: true });
      seeds.set(key, { home: `${home}-seed`, last });
      return last;
    }
    cpSync(made.home, home, { recursive: true });
    return made.last;
  };

  /** The snippets that a command answers with, for programs. */
  const snippets = async (line = "list"): Promise<ListedSnippet[]> =>
    (JSON.parse(await all(`${line} --json`)) as { snippets: ListedSnippet[] }).snippets;

  /** Begins again with an empty home. */
  const fresh = () => void (home = join(folder, `home-${++homes}`));

  return { folder, drawer, all, snippets, seeded, fresh, home: () => home };
}
