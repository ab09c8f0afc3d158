// What goes wrong, done on purpose, with counts: `npm run faults`, or `npm run faults -- killed tabs` for some of them.
import { spawnSync } from "node:child_process";
import { atOnce } from "./at-once.mjs";
import { damaged } from "./damaged.mjs";
import { damagedSecrets } from "./damaged-secrets.mjs";
import { faultPoints, retention } from "./fault-points.mjs";
import { fullDisk } from "./full-disk.mjs";
import { killed } from "./killed.mjs";
import { killedOperations } from "./killed-operations.mjs";
import { otherVersions } from "./other-versions.mjs";
import { powerCuts } from "./power-cuts.mjs";
import { requests } from "./requests.mjs";
import { tabs } from "./tabs.mjs";
import { lockedWriters, partFiles } from "./unfinished.mjs";

const faults = {
  "at-once": atOnce,
  killed,
  "full-disk": fullDisk,
  damaged,
  "damaged-secrets": damagedSecrets,
  "other-versions": otherVersions,
  tabs,
  "fault-points": faultPoints,
  "killed-operations": killedOperations,
  retention,
  "part-files": partFiles,
  "locked-writers": lockedWriters,
  requests,
  "power-cuts": powerCuts,
};
const wanted = process.argv.slice(2);
for (const [name, fault] of Object.entries(faults)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const { passed, said } = await fault();
  console.log(`${passed ? "passed" : "FAILED"}  ${said}`);
  if (!passed) process.exitCode = 1;
}
if (wanted.length === 0) {
  // The histories and samples of which the tests run a few.
  const suites = [
    ...["test/drawer", "test/stores", "test/content", "test/compose"],
    ...["test/sync", "test/hub", "test/cli/devices"],
  ];
  const { status } = spawnSync(process.execPath, ["scripts/test.mjs", "--full", ...suites], {
    stdio: "inherit",
  });
  process.exitCode ||= status ?? 1;
}
// A connection that was broken on purpose keeps nobody waiting.
process.exit();
