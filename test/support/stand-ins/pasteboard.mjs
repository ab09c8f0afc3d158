// What stands on the made-up clipboard of a stand-in: a JSON file that the test names in STAND_IN, of a count of changes,
// what stands there in base64 by the names that the system has for it, and the program and the window in front.
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

/** Ends with why, as a program does that was called wrongly. */
export function refuse(why) {
  process.stderr.write(`${why}\n`);
  process.exit(1);
}

/** Waits without giving anything else a turn. */
export function sleep(milliseconds) {
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, milliseconds);
}
