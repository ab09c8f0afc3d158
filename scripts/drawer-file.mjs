// Writes docs/drawer-file.schema.json, the JSON Schema of the lines of a drawer file, from the one that the code checks by.
import { writeFile } from "node:fs/promises";
import { DRAWER_FILE_SCHEMA } from "../dist/index.js";

await writeFile("docs/drawer-file.schema.json", JSON.stringify(DRAWER_FILE_SCHEMA, null, 2) + "\n");
