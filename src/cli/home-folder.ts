import envPaths from "env-paths";

/** The folder in which this user's drawers live: `DRAWER_HOME`, or the user's data folder. */
export function home(): string {
  return process.env["DRAWER_HOME"] || envPaths("drawer", { suffix: "" }).data;
}
