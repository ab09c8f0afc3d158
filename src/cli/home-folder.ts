import { join } from "node:path";
import envPaths from "env-paths";

/** The folder in which this user's drawers live: `DRAWER_HOME`, or the user's data folder. */
export function home(): string {
  return process.env["DRAWER_HOME"] || envPaths("drawer", { suffix: "" }).data;
}

/** The file of the store in which the drawers are. */
export function databaseFile(): string {
  return join(home(), "drawers.db");
}

/** The file in which the window is noted that a block was pasted in last. */
export function windowFile(): string {
  return join(home(), "window.json");
}

/** The folder in which it is kept what was done to files, and what they were before. */
export function filesFolder(): string {
  return join(home(), "files");
}

/** The file in which the user's keys are kept. */
export function keysFile(): string {
  return join(home(), "keys.json");
}

/** The file in which this device's keys are kept, where the drawers are shared with other devices. */
export function deviceFile(): string {
  return join(home(), "device.json");
}

/** The folder of a hub's database, where none is named. */
export function hubFolder(): string {
  return join(home(), "hub");
}
