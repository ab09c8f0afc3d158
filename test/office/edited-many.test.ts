import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { PYTHON } from "../../scripts/office.mjs";
import { isFull } from "../support/counts";
import { convert, corpusTest, sayMissing } from "../support/libreoffice";
import { editedDocuments } from "./edited-documents";

sayMissing();
const folder = mkdtempSync(join(tmpdir(), "drawer-many-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
/** How many plans there are; of each, four documents, and one as LibreOffice writes it again. */
const PLANS = isFull ? 20 : 1;
const { putAtThreeSpots, takeThreeOut } = editedDocuments(folder);

function run(program: string, ...words: string[]): string {
  const { status, stdout, stderr } = spawnSync(program, words, { cwd: folder, encoding: "utf8" });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
  return stdout;
}

/** Makes them; returns their names. */
function made(): string[] {
  run(PYTHON, resolve("test/office/many.py"), folder, String(PLANS), "20310408");
  const all = readdirSync(folder).sort();
  for (let plan = 0; plan < PLANS; plan++)
    if (plan % 2) convert(folder, "odt", [`${plan}-docx.docx`]);
    else convert(folder, "docx", [`${plan}-odf.odt`]);
  return [...all, ...readdirSync(folder).filter((name) => !all.includes(name))];
}

/** The words of each page as it is drawn, and the pages as pictures. */
function drawn(name: string): { words: string[]; pages: Buffer[] } {
  convert(folder, "pdf", [name]);
  const stem = name.replace(/\.\w+$/, "");
  const words = run("pdftotext", "-layout", `${stem}.pdf`, "-").split("\f").slice(0, -1);
  run("pdftoppm", "-r", "40", `${stem}.pdf`, `${stem}-page`);
  const names = readdirSync(folder).filter((each) => each.startsWith(`${stem}-page`));
  return { words, pages: names.sort().map((each) => readFileSync(join(folder, each))) };
}

corpusTest(
  "documents of random structure take a block at three spots, and are drawn as they were up to there; and go without three of their parts",
  async () => {
    const failed: string[] = [];
    for (const name of made())
      try {
        const files = await putAtThreeSpots(name);
        const [before, after] = [drawn(name), drawn(files[2]!)];
        const page = after.words.findIndex((words) => words.includes("PUT heading"));
        // What keeps with what follows it may go to the next page.
        for (let at = 0; at < page - 1; at++)
          if (!before.pages[at]!.equals(after.pages[at]!))
            throw new Error(`page ${at + 1} of ${page + 1} is drawn otherwise`);
        await takeThreeOut(name);
      } catch (error) {
        failed.push(`${name}: ${String((error as Error).message).slice(0, 2000)}`);
      }
    expect(failed).toEqual([]);
  },
);
