import { spawnSync } from "node:child_process";
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Where Debian's PostgreSQL has its programs; nothing where it is not installed. */
export function postgresPrograms() {
  const folder = "/usr/lib/postgresql";
  const [version] = existsSync(folder) ? readdirSync(folder).sort().reverse() : [];
  return version && join(folder, version, "bin");
}

/**
 * Makes a cluster in a folder of its own, and starts it: reached by a socket in that folder alone.
 * @returns what leads a hub to it, and what restarts and ends it
 */
export function startPostgres() {
  const folder = mkdtempSync(join(tmpdir(), "drawer-pg-"));
  const programs = postgresPrograms();
  // It does not run as root.
  const user = process.getuid?.() === 0 ? idsOf("postgres") : undefined;
  if (user) chownSync(folder, user.uid, user.gid);
  const run = (program, ...words) => {
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
  const control = (act, ...words) =>
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

function idsOf(user) {
  const id = (flag) => Number(spawnSync("id", [flag, user], { encoding: "utf8" }).stdout);
  return { uid: id("-u"), gid: id("-g") };
}
