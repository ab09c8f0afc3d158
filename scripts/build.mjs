// Builds src/ into dist/.
import { execFileSync } from "node:child_process";
import { chmodSync, rmSync, writeFileSync } from "node:fs";

rmSync("dist", { recursive: true, force: true });
execFileSync(process.execPath, ["node_modules/typescript/bin/tsc"], { stdio: "inherit" });
chmodSync("dist/cli/main.js", 0o755);
writeFileSync("dist/built", "");
