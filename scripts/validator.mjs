import { writeFile } from "node:fs/promises";
import { Ajv2020 } from "ajv/dist/2020.js";
import standaloneCode from "ajv/dist/standalone/index.js";
import { build } from "esbuild";

/** Makes the checks of a drawer file's lines from its schema, as a module. */
export async function buildValidator() {
  const { DRAWER_FILE_SCHEMA } = await import("../dist/drawer/drawer-file-schema.js");
  const ajv = new Ajv2020({ discriminator: true, strict: false, code: { source: true, esm: true } });
  ajv.addSchema(DRAWER_FILE_SCHEMA, "drawer-file");
  const checks = { header: "drawer-file#/$defs/header", snippet: "drawer-file#/$defs/snippet" };
  // What it needs of its library while it runs is written for CommonJS: it is brought in.
  const { outputFiles } = await build({
    stdin: { contents: standaloneCode.default(ajv, checks), resolveDir: "." },
    ...{ bundle: true, format: "esm", write: false, target: "es2022", minifySyntax: true, logLevel: "error" },
  });
  await writeFile("dist/drawer/drawer-file-validator.js", outputFiles[0].contents);
}
