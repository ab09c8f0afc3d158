import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";

/** The Python for which Debian's packages are installed; one that stands before it on the path may not have them. */
export const PYTHON = existsSync("/usr/bin/python3") ? "/usr/bin/python3" : "python3";

/** The path of the schema of OpenDocument 1.3 (RELAX NG), which the package emacs-common has; nothing where there is none. */
export function findOdfSchema() {
  const root = "/usr/share/emacs";
  if (!existsSync(root)) return undefined;
  return readdirSync(root)
    .map((version) => join(root, version, "etc/schema/OpenDocument-schema-v1.3.rnc"))
    .find(existsSync);
}
