// What watching a desktop costs: how long after a copy it is told, whether copies that follow each other fast are all
// heard, and what it costs when nothing happens. On an X11 display of its own, with xclip as the other program.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { median } from "./measure.mjs";

const row = (name, ...facts) => console.log(`${name.padEnd(40)} ${facts.join("   ")}`);
const pause = (milliseconds) => new Promise((next) => setTimeout(next, milliseconds));

export async function run() {
  console.log("\nWatching a desktop, and xclip taking the same out");
  if (["Xvfb", "xclip"].some((program) => spawnSync("which", [program]).status !== 0))
    return console.log("Skipped: Xvfb or xclip is not on this machine.");
  const home = mkdtempSync(join(tmpdir(), "drawer-bench-"));
  const screen = spawn("Xvfb", ["-displayfd", "3", "-noreset"], {
    stdio: ["ignore", "ignore", "ignore", "pipe"],
  });
  const number = await new Promise((ready) =>
    screen.stdio[3].once("data", (said) => ready(`${said}`.trim())),
  );
  const env = { ...process.env, DISPLAY: `:${number}`, DRAWER_HOME: home };
  const watch = spawn(process.execPath, ["dist/bin/main.js", "watch"], { env });
  try {
    let told = () => undefined;
    let heard = 0;
    watch.stdout.on("data", (text) => {
      heard += `${text}`.match(/^Collected/gm)?.length ?? 0;
      told();
    });
    await new Promise((ready) => watch.stderr.once("data", ready));
    await pause(500);
    const words = ["-selection", "clipboard", "-t", "UTF8_STRING"];
    // xclip is there as soon as it has the clipboard, and goes on in the background.
    const copy = (text) =>
      spawnSync("xclip", words, { input: text, env, stdio: ["pipe", "ignore", "ignore"] });
    const timed = async (act) => {
      const from = performance.now();
      await act();
      return performance.now() - from;
    };
    const [own, beyond] = [[], []];
    for (let at = 0; at < 30; at++) {
      const next = new Promise((resolve) => (told = resolve));
      copy(`copy ${at}`);
      beyond.push(await timed(() => next));
      own.push(
        await timed(
          () => new Promise((done) => spawn("xclip", ["-o", ...words], { env }).once("close", done)),
        ),
      );
      await pause(100);
    }
    row(
      "told after a copy",
      `${median(beyond).toFixed(0)} ms`,
      `xclip takes it out in ${median(own).toFixed(0)} ms`,
    );
    const before = heard;
    const began = performance.now();
    for (let at = 0; at < 100; at++) {
      const next = began + (at + 1) * 200;
      copy(`fast ${at}`);
      await pause(Math.max(0, next - performance.now()));
    }
    await pause(1000);
    row("100 copies in 20 s", `${heard - before} heard`);
    const ticks = () => {
      const fields = readFileSync(`/proc/${watch.pid}/stat`, "utf8").split(") ")[1].split(" ");
      return Number(fields[11]) + Number(fields[12]);
    };
    const [from, idle] = [ticks(), 30];
    await pause(idle * 1000);
    const resident = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${watch.pid}/status`, "utf8"))[1];
    // A tick is a hundredth of a second.
    row("idle", `${((ticks() - from) / idle).toFixed(2)} % CPU`, `${(resident / 1024).toFixed(0)} MB`);
  } finally {
    watch.kill();
    screen.kill();
    rmSync(home, { recursive: true, force: true });
  }
}
