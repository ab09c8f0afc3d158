// Builds the examples into examples/dist, unless they are built from what is there now.
import { execFileSync } from "node:child_process";
import { existsSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const examples = join(root, "examples");
const STAMP = join(examples, "dist/built");

const modified = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);
const isSource = ({ parentPath }) => !/[\\/]dist(?:[\\/.-]|$)/.test(parentPath.slice(examples.length));
const newest = () =>
  readdirSync(examples, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && isSource(entry))
    .reduce((latest, entry) => Math.max(latest, modified(join(entry.parentPath, entry.name))), 0);

if (modified(STAMP) <= Math.max(newest(), modified(join(root, "dist/built")))) {
  // Beside the one that is served, so that nobody meets half of it.
  const draft = join(examples, `dist-${process.pid}`);
  const words = ["build", "examples", "--logLevel", "error", "--outDir", draft, "--emptyOutDir"];
  execFileSync(process.execPath, [join(root, "node_modules/vite/bin/vite.js"), ...words], {
    cwd: root,
    stdio: ["ignore", 2, 2],
  });
  writeFileSync(join(draft, "built"), "");
  rmSync(join(examples, "dist"), { recursive: true, force: true });
  renameSync(draft, join(examples, "dist"));
}
