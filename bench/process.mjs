import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { compare, head } from "./measure.mjs";

/** The command as a whole process, against a Node that does nothing. */
export async function run() {
  const home = mkdtempSync(join(tmpdir(), "drawer-bench-"));
  const node = (...words) => {
    const { status, stderr } = spawnSync(process.execPath, words, {
      env: { ...process.env, DRAWER_HOME: home },
    });
    if (status !== 0) throw new Error(String(stderr));
  };
  const drawer = (...words) => node("dist/bin/main.js", ...words);
  drawer("collect", "demo/diary.docx", "--at", "p3", "--at", "t1", "--at", "p4");
  head("The command as a whole process, against node -e 0");
  await compare(
    "drawer list",
    () => drawer("list"),
    () => node("-e", "0"),
  );
  await compare(
    "drawer place last",
    () => drawer("place", "last"),
    () => node("-e", "0"),
  );
  await compare(
    "drawer look demo/diary.docx",
    () => drawer("look", "demo/diary.docx"),
    () => node("-e", "0"),
  );
  rmSync(home, { recursive: true, force: true });
}
