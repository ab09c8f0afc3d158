import { unzipSync, zipSync } from "fflate";
import { formatOf } from "../dist/formats/index.js";
import { putInto, takeOut } from "../dist/files/index.js";
import { compose, readText } from "../dist/index.js";
import { document, few, PARTS, sheet } from "./files.mjs";
import { compare, head } from "./measure.mjs";

/** Files as places: putting in and taking out, against the part that changes unpacked and packed again. */
export async function run() {
  const written = async (format, content) => (await formatOf(format).write({ content })).data;
  const wren = compose([readText("A wren sang from the hut.")]);
  const row = compose([{ content: [{ type: "table", headerRows: 0, rows: [sheet()[0].rows[1]] }] }]);
  const again = (bytes, part) => () =>
    zipSync({ [part]: unzipSync(bytes, { filter: ({ name }) => name === part })[part] }, { level: 6 });

  head("A document of 50,000 paragraphs, against the same part unpacked and packed");
  for (const format of ["docx", "odt"]) {
    const [bytes, name] = [await written(format, document()), `document.${format}`];
    const baseline = again(bytes, PARTS[format]);
    for (const spot of ["p3", "p25000"])
      await compare(`${format}: after ${spot}`, () => putInto(bytes, name, spot, wren), baseline, few);
    await compare(`${format}: p3 out`, () => takeOut(bytes, name, ["p3"]), baseline, few);
  }
  head("A sheet of a million cells, against the same");
  const table = sheet();
  for (const format of ["xlsx", "ods"]) {
    const [bytes, name] = [await written(format, table), `sheet.${format}`];
    const baseline = again(bytes, PARTS[format]);
    const under = () => putInto(bytes, name, "Sheet1", row, { put: "after" });
    await compare(`${format}: a row at its end`, under, baseline, few);
    const over = () => putInto(bytes, name, "A2", row, { put: "instead" });
    await compare(`${format}: over the cells of a row`, over, baseline, few);
  }
}
