// What stands on the made-up clipboard of a stand-in: a JSON file that the test names in STAND_IN, of a count of changes,
// what stands there in base64 by the names that the system has for it, the windows, which is in front, what the user has pressed
// last, and what was typed and pasted into windows.
import { readFileSync, renameSync, writeFileSync } from "node:fs";

const file = process.env["STAND_IN"];

export function standing() {
  return JSON.parse(readFileSync(file, "utf8"));
}

export function put(forms) {
  const { count, ...others } = standing();
  writeFileSync(`${file}.${process.pid}`, JSON.stringify({ ...others, count: count + 1, forms }));
  renameSync(`${file}.${process.pid}`, file);
}

/** Changes what else is there. */
export function change(changes) {
  writeFileSync(`${file}.${process.pid}`, JSON.stringify({ ...standing(), ...changes }));
  renameSync(`${file}.${process.pid}`, file);
}

/** A key comes to the window in front, which writes it down; with the key that pastes, the text that stands on the clipboard. */
export function press(key, held, text) {
  const { front, typed = [], forms } = standing();
  const isPaste = key === "v" && ["command down", "^"].includes(held.join());
  const what = isPaste ? Buffer.from(forms[text] ?? "", "base64").toString("utf8") : [...held, key].join("+");
  change({ typed: [...typed, [front, what]] });
}

/** Ends with why, as a program does that was called wrongly. */
export function refuse(why) {
  process.stderr.write(`${why}\n`);
  process.exit(1);
}

/** Waits without giving anything else a turn. */
export function sleep(milliseconds) {
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, milliseconds);
}
