import { join } from "node:path";
import { audit, inFolder, integrity, IS_WHOLE, worker } from "./support.mjs";

/** When to kill: in one of four runs at any moment from its beginning, in the others while it collects. */
const moment = (n) => (n % 4 === 0 ? { alive: Math.random() * 400 } : { aliveOnceHeard: Math.random() * 60 });

/** A process that collects is killed at a random moment, again and again. */
export const killed = ({ runs = 1000, lanes = 8 } = {}) =>
  inFolder(async (folder) => {
    const results = await Promise.all(
      Array.from({ length: lanes }, async (_, lane) => {
        const file = join(folder, `${lane}`, "drawers.db");
        const acknowledged = new Set();
        const own = Math.ceil((runs - lane) / lanes);
        for (let n = 0; n < own; n++) {
          const name = `k${n}`;
          const { out } = await worker(file, name, 1_000_000, moment(n));
          // A number that was cut off by the kill was not acknowledged.
          const numbers = out
            .slice(0, out.lastIndexOf("\n") + 1)
            .split("\n")
            .filter(Boolean);
          for (const number of numbers) acknowledged.add(`${name}:${number}`);
        }
        const { texts, isInOrder, isCounted, twice } = await audit(file);
        const there = new Set(texts.map((text) => text.split(" ")[0]));
        const lost = [...acknowledged].filter((one) => !there.has(one)).length;
        const torn = texts.filter((text) => !IS_WHOLE.test(text)).length;
        return {
          own,
          acknowledged: acknowledged.size,
          there: there.size,
          lost,
          torn: torn + twice,
          isSound: isInOrder && isCounted && integrity(file) === "ok",
        };
      }),
    );
    const sum = (name) => results.reduce((total, one) => total + one[name], 0);
    const isSound = results.every((one) => one.isSound);
    return {
      passed: isSound && sum("lost") === 0 && sum("torn") === 0 && sum("acknowledged") > 0,
      said: `kill -9 in ${sum("own")} runs: ${sum("acknowledged")} acknowledged, ${sum("lost")} of them lost; ${sum("there")} there, ${sum("torn")} torn; integrity ${isSound ? "ok" : "broken"}`,
    };
  });
