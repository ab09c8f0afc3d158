import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { findOdfSchema, OOXML_VALIDATOR } from "../../scripts/office.mjs";

/** What the rules of the Open XML SDK find wrong in a docx or xlsx. */
export function faultsOfOoxml(bytes: Uint8Array, name: string): unknown[] {
  const path = join(mkdtempSync(join(tmpdir(), "drawer-ooxml-")), name);
  writeFileSync(path, bytes);
  const { stdout, stderr, status } = spawnSync(OOXML_VALIDATOR.path, [path], { encoding: "utf8" });
  if (status !== 0) throw new Error(`The validator of Open XML: ${stderr || stdout}`);
  const { ok, errors } = JSON.parse(stdout) as { ok: boolean; errors: unknown[] };
  return ok ? [] : errors;
}

/** What the schema of OpenDocument 1.3 finds wrong in some odt and ods, all judged at once. */
export function faultsOfOdf(...files: readonly Uint8Array[]): string[] {
  const folder = mkdtempSync(join(tmpdir(), "drawer-odf-"));
  const paths = files.flatMap((bytes, at) =>
    Object.entries(unzipSync(bytes)).flatMap(([name, part]) => {
      if (!/^(content|styles|meta|settings)\.xml$/.test(name)) return [];
      const path = join(folder, `${at}-${name}`);
      writeFileSync(path, part);
      return [path];
    }),
  );
  const { stdout, status } = spawnSync("jing", ["-c", "-i", findOdfSchema()!, ...paths], {
    encoding: "utf8",
  });
  if (status === null) throw new Error("jing is not on this machine");
  return stdout.split("\n").filter((line) => line.includes("error"));
}
