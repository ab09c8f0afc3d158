import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { findOdfSchema, OOXML_VALIDATOR } from "../../scripts/office.mjs";

/** Does something in a folder that is there for no longer. */
function inFolder<Result>(use: (folder: string) => Result): Result {
  const folder = mkdtempSync(join(tmpdir(), "drawer-schemas-"));
  try {
    return use(folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** What the rules of the Open XML SDK find wrong in a docx or xlsx. */
export function faultsOfOoxml(bytes: Uint8Array, name: string): unknown[] {
  const { stdout, stderr, status } = inFolder((folder) => {
    const path = join(folder, name);
    writeFileSync(path, bytes);
    return spawnSync(OOXML_VALIDATOR.path, [path], { encoding: "utf8" });
  });
  if (status !== 0) throw new Error(`The validator of Open XML: ${stderr || stdout}`);
  const { ok, errors } = JSON.parse(stdout) as { ok: boolean; errors: unknown[] };
  return ok ? [] : errors;
}

/** What the schema of OpenDocument 1.3 finds wrong in some odt and ods, all judged at once. */
export function faultsOfOdf(...files: readonly Uint8Array[]): string[] {
  const { stdout, status } = inFolder((folder) => {
    const paths = files.flatMap((bytes, at) =>
      Object.entries(unzipSync(bytes)).flatMap(([name, part]) => {
        if (!/^(content|styles|meta|settings)\.xml$/.test(name)) return [];
        const path = join(folder, `${at}-${name}`);
        writeFileSync(path, part);
        return [path];
      }),
    );
    return spawnSync("jing", ["-c", "-i", findOdfSchema()!, ...paths], { encoding: "utf8" });
  });
  if (status === null) throw new Error("jing is not on this machine");
  return stdout.split("\n").filter((line) => line.includes("error"));
}
