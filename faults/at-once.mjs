import { join } from "node:path";
import { audit, inFolder, integrity, worker } from "./support.mjs";

/** Several processes collect into one drawer at once. */
export const atOnce = ({ processes = 8, each = 500 } = {}) =>
  inFolder(async (folder) => {
    const file = join(folder, "drawers.db");
    const names = Array.from({ length: processes }, (_, n) => `p${n}`);
    const codes = (await Promise.all(names.map((name) => worker(file, name, each)))).map(({ code }) => code);
    const { texts, isInOrder, isCounted, twice } = await audit(file);
    const inTurn = names.every((name) => {
      const own = texts
        .filter((text) => text.startsWith(`${name}:`))
        .map((text) => parseInt(text.slice(name.length + 1), 10));
      return own.length === each && own.every((n, index) => n === index);
    });
    const isSound =
      codes.every((code) => code === 0) && isInOrder && isCounted && inTurn && integrity(file) === "ok";
    return {
      passed: isSound && twice === 0 && texts.length === processes * each,
      said: `${processes} processes collect ${each} each at once: ${texts.length} there, ${twice} twice, ${isSound ? "in a sound order" : "out of order"}`,
    };
  });
