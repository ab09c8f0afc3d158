// Does acts of all sorts in a drawer, by chance, and says after each what the drawer is like then. Usage: acts-worker.mjs FILE SEED
import { createHash } from "node:crypto";
import { Drawer, DrawerError, readText } from "../dist/index.js";
import { openSqlite } from "../dist/stores/sqlite/index.js";
import { random } from "./support.mjs";

const [file, seed] = process.argv.slice(2);
const next = random(Number(seed));

/** What a drawer is like, as a digest: its snippets in their order, and what has left. */
export async function digestOf(drawer) {
  const list = await drawer.list({ first: 1 });
  const facts = list.map(({ entry: { text, kept, private: isPrivate, label } }) => [
    text,
    kept,
    isPrivate,
    label,
  ]);
  const gone = (await drawer.gone()).map(({ entry }) => entry.text);
  return createHash("sha256")
    .update(JSON.stringify([facts, gone]))
    .digest("hex")
    .slice(0, 16);
}

if (process.argv[1]?.endsWith("acts-worker.mjs")) {
  const drawer = new Drawer(openSqlite(file), "log");
  const piece = () => ({ ...readText(`${next(1e6)} ${"terns over the bar ".repeat(next(60))}`), origin: {} });
  const at = async () => String(1 + next(Math.max(1, await drawer.count())));
  const acts = [
    async () => drawer.collect([piece(), piece()]),
    async () => drawer.collect([piece()]),
    async () => drawer.discard(await at()),
    async () => drawer.move(await at(), "end"),
    async () => drawer.keep(await at()),
    async () => drawer.hide(await at()),
    async () => drawer.unhide(await at()),
    async () => drawer.label(await at(), `label ${next(100)}`),
    async () => drawer.merge(`${await at()} ${await at()}`),
    async () => drawer.undo(),
    async () => drawer.redo(),
    async () => (next(8) === 0 ? drawer.empty() : undefined),
  ];
  for (;;) {
    try {
      await acts[next(acts.length)]();
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
    }
    process.stdout.write(`${await digestOf(drawer)}\n`);
  }
}
