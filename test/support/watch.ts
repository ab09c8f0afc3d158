import { spawn } from "node:child_process";
import { resolve } from "node:path";

/** A `drawer watch` that runs in a home, and what it has said. */
export async function startWatch(home: string, ...words: string[]) {
  const child = spawn(process.execPath, [resolve("dist/bin/main.js"), "watch", ...words], {
    env: { ...process.env, DRAWER_HOME: home },
  });
  const said = { out: "", err: "" };
  child.stdout.setEncoding("utf8").on("data", (text: string) => (said.out += text));
  child.stderr.setEncoding("utf8").on("data", (text: string) => (said.err += text));
  const ended = new Promise<number | null>((done) => child.once("close", done));
  const told = async (what: RegExp, where: "out" | "err" = "out") => {
    for (let at = 0; at < 200 && !what.test(said[where]); at++)
      await new Promise((next) => setTimeout(next, 100));
    expect({ ...said, where }).toMatchObject({ [where]: expect.stringMatching(what) });
  };
  await told(/Ctrl-C ends it/, "err");
  return { said, told, ended, child };
}
