// Every operation is killed at each of its statements, by clocks that are wrong, while a window is open and others are collecting.
import { mkdirSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Drawer } from "../dist/index.js";
import * as operations from "../dist/drawer/operations/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { fill, OPERATIONS, READING } from "./operations.mjs";
import { audit, inFolder, integrity, later, openWindow, random, run, worker } from "./support.mjs";

const DAY = 86_400_000;
/** By how much the clocks of the processes that are killed are wrong. */
const SHIFTS = [0, -DAY, 3 * 60_000, -3_600_000, DAY];

/** What a drawer and the one beside it are like but for the secret, which leaves when its time comes. */
async function stateOf(store, name) {
  const states = [];
  for (const each of [name, `${name}-other`]) {
    const drawer = new Drawer(store, each);
    const isSecret = ({ entry }) => entry.private && entry.privateAge === undefined;
    const facts = async (held) => {
      const shown = held.filter((one) => !isSecret(one));
      return (await drawer.read(shown)).map(({ entry, content }) => [
        content,
        entry.kept,
        entry.private,
        entry.label,
      ]);
    };
    const acts = (await drawer.actions(50)).map(({ operation, stands }) => [operation, stands]);
    states.push(await facts(await drawer.list({ first: 1 })), (await drawer.gone()).length, acts);
    states.push(
      await drawer.rules(),
      await drawer.recipes(),
      await drawer.dealStatus().catch(({ code }) => code),
    );
  }
  return JSON.stringify(states);
}

/**
 * One operation, in a home of its own, in a new drawer for each statement.
 * @returns how often it was killed, how many snippets another collected meanwhile, and what went wrong
 */
async function killedAtEach(operation, step, next, folder) {
  const { prepare, between } = OPERATIONS[operation];
  const file = join(folder, "drawers.db");
  const store = openSqlite(file);
  const window = await openWindow(folder);
  const stop = new AbortController();
  const other = worker(file, "other", 1_000_000, { pause: 20, signal: stop.signal });
  const wrong = [];
  const words = [];
  /** A new drawer, filled, and what tells what it is like. */
  const filled = async () => {
    const [name, word] = [`d${words.length}`, `wren${words.length}wren`];
    words.push(word);
    const drawer = new Drawer(store, name);
    await fill(drawer, word);
    await prepare?.(drawer);
    const state = async () => (await stateOf(store, name)).replaceAll(word, "").replaceAll(name, "");
    return { name, word, drawer, state };
  };
  const workIn = ({ name, word }, what, shift, point) => {
    const given = ["faults/operation-worker.mjs", file, name, what, word, String(shift), String(point)];
    return run([process.execPath, ...given]);
  };
  // With and without the secret, whose time is over by some of the clocks.
  const allowed = new Set();
  for (const shift of [0, DAY])
    for (const what of ["nothing", operation, ...(between ? ["between"] : [])]) {
      const one = await filled();
      if (what === "between") await between(one.drawer);
      const { code, err } = await workIn(one, what === "between" ? "nothing" : what, shift, Infinity);
      if (code !== 0) throw new Error(`${operation} ended with ${code}: ${err.slice(0, 300)}`);
      allowed.add(await one.state());
    }
  const met = [];
  for (let point = 1 + next(step), code; code !== 0; point += step) {
    const one = await filled();
    const shift = SHIFTS[next(SHIFTS.length)];
    const ran = await workIn(one, operation, shift, point);
    ({ code } = ran);
    if (code !== null && code !== 0) {
      wrong.push(`${operation} ended with ${code}: ${ran.err.slice(0, 300)}`);
      break;
    }
    await one.drawer.applyRetention();
    met.push({ point, shift, after: await one.state() });
  }
  for (const { point, shift, after } of met)
    if (!allowed.has(after)) wrong.push(`${operation} at ${point}, ${shift} ms off: neither done nor undone`);
  const answered = await fetch(window.address).then(
    ({ status }) => status,
    (error) => String(error),
  );
  if (answered !== 200) wrong.push(`the window answered ${answered}`);
  stop.abort();
  const acknowledged = (await other).out.split("\n").slice(0, -1);
  const ended = new Promise((done) => window.child.once("exit", done));
  window.child.kill("SIGTERM");
  await ended;
  await store.close();
  const there = new Set((await audit(file)).texts.map((text) => text.split(" ")[0]));
  for (const number of acknowledged)
    if (!there.has(`other:${number}`)) wrong.push(`snippet ${number} of another is lost`);
  // The time of each secret is over then, by all clocks.
  await later(2 * DAY, async () => {
    const last = openSqlite(file);
    await new Drawer(last).applyRetention();
    await last.close();
  });
  const bytes = readdirSync(folder).map((name) => readFileSync(join(folder, name)));
  const traces = words.filter((word) => bytes.some((each) => each.includes(`hush ${word}`)));
  if (traces.length > 0)
    wrong.push(`${operation}: ${traces.length} traces of secrets, the first of ${traces[0]}`);
  if (integrity(file) !== "ok") wrong.push(`${operation}: the file is broken`);
  return { kills: met.length - 1, collected: acknowledged.length, wrong };
}

/**
 * @param step at each so-manieth statement; with which it begins is by chance
 * @param share how many of the operations: one in so many
 */
export const killedOperations = ({ step = 5, share = 1 } = {}) =>
  inFolder(async (folder) => {
    const missing = Object.keys(operations).filter(
      (name) => !(name in OPERATIONS) && !READING.includes(name),
    );
    const wrong = missing.map((name) => `${name}: not tried`);
    const next = random(20310408);
    const names = Object.keys(OPERATIONS).filter((_, at) => at % share === 0);
    const left = [...names];
    let [kills, collected] = [0, 0];
    const lane = async () => {
      for (let name = left.shift(); name; name = left.shift()) {
        const home = join(folder, name);
        mkdirSync(home, { mode: 0o700 });
        const one = await killedAtEach(name, step, next, home);
        kills += one.kills;
        collected += one.collected;
        wrong.push(...one.wrong);
      }
    };
    await Promise.all([lane(), lane()]);
    return {
      passed: wrong.length === 0 && kills > 0,
      said: `${names.length} operations killed at ${kills} statements, by clocks that are wrong, beside a window and a process that collected ${collected}: ${wrong.length === 0 ? "each done or not at all, nothing acknowledged lost, no trace of a secret" : `${wrong.length} faults: ${wrong.slice(0, 6).join("; ")}`}`,
    };
  });
