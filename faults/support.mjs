import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import Database from "libsql";
import { Drawer } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";

/** Does something with a new folder, and takes the folder away whatever happens. */
export async function inFolder(deed) {
  const folder = mkdtempSync(join(tmpdir(), "drawer-faults-"));
  try {
    return await deed(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A sequence of numbers that is the same each time (Park and Miller). */
export function random(seed) {
  let state = seed;
  return (below) => {
    state = (state * 48271) % 0x7fffffff;
    return state % below;
  };
}

/**
 * Runs a program to its end, or until so many milliseconds have passed since it began (`alive`) or since it first said
 * something (`aliveOnceHeard`), or until a signal aborts; gives its exit code and what it said. `heard` is called with what it says on standard error.
 */
export function run(words, { env = {}, input, alive, aliveOnceHeard, signal, heard = () => undefined } = {}) {
  return new Promise((done, fail) => {
    const child = spawn(words[0], words.slice(1), { env: { ...process.env, ...env } });
    let out = "";
    let err = "";
    child.stdout.setEncoding("utf8").on("data", (text) => (out += text));
    child.stderr.setEncoding("utf8").on("data", (text) => {
      err += text;
      heard(err);
    });
    child.stdin.on("error", () => undefined).end(input);
    const killIn = (ms) => ms !== undefined && setTimeout(() => child.kill("SIGKILL"), ms);
    signal?.addEventListener("abort", () => child.kill("SIGKILL"));
    killIn(alive);
    child.stdout.once("data", () => killIn(aliveOnceHeard));
    child.on("error", fail).on("close", (code) => done({ code, out, err }));
  });
}

/** Runs the built command in a home. */
export function drawer(home, words, options = {}) {
  return run([process.execPath, resolve("dist/bin/main.js"), ...words], {
    ...options,
    env: { DRAWER_HOME: home },
  });
}

/** Opens the window of a home, without a browser; gives its process, its address, and what it has said of refusals and faults. */
export function openWindow(home) {
  const child = spawn(process.execPath, [resolve("dist/bin/main.js"), "open", "--no-browser", "--json"], {
    env: { ...process.env, DRAWER_HOME: home },
  });
  let out = "";
  let err = "";
  child.stderr.setEncoding("utf8").on("data", (text) => (err = (err + text).slice(-20_000)));
  return new Promise((done, fail) => {
    child.once("exit", (code) => fail(new Error(`drawer open ended with ${code}: ${err}`)));
    child.stdout.setEncoding("utf8").on("data", (text) => {
      out += text;
      if (out.includes("\n")) done({ child, address: JSON.parse(out).address, said: () => err });
    });
  });
}

/** Runs the worker that collects one by one. */
export function worker(file, name, count, { pause = 0, ...until } = {}) {
  const words = [resolve("faults/worker.mjs"), file, name, String(count), String(pause)];
  return run([process.execPath, ...words], until);
}

/** What the worker collects, when nothing of it is missing. */
export const IS_WHOLE = /^\w+:\d+ terns (over the bar )+at low water$/;

/** What SQLite itself says of a file: `ok`, or what is wrong. */
export function integrity(file) {
  const database = new Database(file);
  try {
    return Object.values(database.prepare("PRAGMA integrity_check").get())[0];
  } finally {
    database.close();
  }
}

/** Everything of a drawer, read whole, with what is wrong with it. */
export async function audit(file, name = "main") {
  const store = openSqlite(file);
  try {
    const one = new Drawer(store, name);
    const snippets = (await one.count()) > 0 ? await one.snippets("all") : [];
    const orders = snippets.map(({ entry }) => entry.order);
    const texts = snippets.map(({ content }) =>
      content.map((flow) => flow.runs.map((part) => part.text).join("")).join("\n"),
    );
    return {
      texts,
      isInOrder: orders.every((order, index) => index === 0 || orders[index - 1] < order),
      isCounted: snippets.length === (await one.count()),
      twice: texts.length - new Set(texts).size,
    };
  } finally {
    await store.close();
  }
}

/** The lines of a drawer file with so many snippets, which say this too. */
export const drawerFile = (count, word = "") => [
  JSON.stringify({ format: "drawer-snippets", version: 1, snippets: count }),
  ...Array.from({ length: count }, (_, at) =>
    JSON.stringify({
      origin: {},
      collectedAt: new Date().toISOString(),
      content: [{ type: "paragraph", runs: [{ type: "text", text: `tern ${at} ${word}`.trim() }] }],
    }),
  ),
];

/** Lets so much time pass for what is done in between. */
export async function later(ms, deed) {
  const real = Date.now;
  Date.now = () => real() + ms;
  try {
    return await deed();
  } finally {
    Date.now = real;
  }
}
