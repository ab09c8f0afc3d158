import { atOnce } from "../../faults/at-once.mjs";
import { damagedSecrets } from "../../faults/damaged-secrets.mjs";
import { damaged } from "../../faults/damaged.mjs";
import { faultPoints, retention } from "../../faults/fault-points.mjs";
import { fullDisk } from "../../faults/full-disk.mjs";
import { killedOperations } from "../../faults/killed-operations.mjs";
import { killed } from "../../faults/killed.mjs";
import { otherVersions } from "../../faults/other-versions.mjs";
import { powerCuts } from "../../faults/power-cuts.mjs";
import { requests } from "../../faults/requests.mjs";
import { tabs } from "../../faults/tabs.mjs";
import { lockedWriters, partFiles } from "../../faults/unfinished.mjs";
import { findHeadless } from "../../scripts/chromium.mjs";
import { isFull } from "../support/counts";

interface Shown {
  readonly passed: boolean;
  readonly said: string;
}

const faults: [name: string, fault: () => Promise<Shown>][] = [
  ["eight processes that collect at once lose nothing", () => atOnce({ each: 25 })],
  [
    "a process that is killed has lost nothing that it acknowledged",
    () => killed({ runs: isFull ? 120 : 6, lanes: 4 }),
  ],
  ["a full disk is told, loses nothing, and is worked on from when there is room", () => fullDisk()],
  ["a damaged file is set aside and recovered as far as it can be read", () => damaged()],
  [
    "of a damaged file with private snippets nothing private comes out, and every command answers",
    () => damagedSecrets({ runs: isFull ? 500 : 3 }),
  ],
  [
    "files of newer and older versions are refused and brought up to date",
    () => otherVersions({ count: 120 }),
  ],
  [
    "a process that is killed at any statement leaves nothing half-done",
    () => faultPoints(isFull ? { step: 1, importStep: 29 } : { step: 11, importStep: 401 }),
  ],
  [
    "every operation is done or not at all, whenever it is killed and whoever else is at work",
    () => killedOperations(isFull ? {} : { step: 127, share: 5 }),
  ],
  ["private snippets go each in its time, also when the clock is set back", () => retention({ secrets: 40 })],
  [
    "a file that was being written by a process that was killed is cleared",
    () => partFiles({ runs: isFull ? 30 : 2 }),
  ],
  ["writers that are locked out are told for whom they wait", () => lockedWriters({ writers: 2 })],
  [
    "what was acknowledged is there when the power goes",
    () => powerCuts(isFull ? { cuts: 500 } : { cuts: 16, each: 8 }),
  ],
  [
    "no request ends the window, is answered as a fault, or takes memory that it is not worth",
    () => requests({ count: isFull ? 10_000 : 800 }),
  ],
];
if (findHeadless() || process.env["CI"])
  faults.push(["tabs share a drawer, and a browser without room says so", () => tabs({ each: 6 })]);
else console.log("Skipped: faults in browser tabs, because there is no Chromium on this machine.");

test.each(faults)(
  "%s",
  async (_, fault) => {
    const { passed, said } = await fault();
    if (!passed) throw new Error(said);
  },
  isFull ? 1_200_000 : 120_000,
);
