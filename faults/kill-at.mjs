import { Connection } from "../dist/stores/sqlite/connection.js";

/** Has this process killed at its so-manieth statement that writes from now on: no chance decides where. Returns what counts them. */
export function killAt(point) {
  let statements = 0;
  for (const name of ["run", "insert", "exec"]) {
    const real = Connection.prototype[name];
    Connection.prototype[name] = function (...given) {
      if (++statements === point) process.kill(process.pid, "SIGKILL");
      return real.apply(this, given);
    };
  }
  return () => statements;
}
