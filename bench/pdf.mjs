import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { readSource } from "../dist/files/index.js";
import { manyPages } from "./many-pages.mjs";
import { compare, head } from "./measure.mjs";

/** The text of some pages, by pdf.js alone. */
async function bare(bytes, first, last) {
  const document = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  for (let page = first; page <= last; page++) await (await document.getPage(page)).getTextContent();
  await document.loadingTask.destroy();
}

async function ours(bytes, spot) {
  const source = await readSource(bytes, "pages.pdf");
  await source.open(spot);
  source.at(spot);
}

/** Pages of a PDF, against the text of the same pages by pdf.js alone, in one thread and without what makes paragraphs of it. */
export async function run() {
  head("PDF, against the text of the same pages by pdf.js");
  const many = manyPages(5000);
  const runs = { runs: 5, warmup: 1 };
  for (const page of [1, 2500, 5000])
    await compare(
      `page ${page} of 5,000`,
      () => ours(many, `pg${page}`),
      () => bare(many, page, page),
      runs,
    );
  await compare(
    "200 pages of 5,000",
    () => ours(many, "pg1..pg200"),
    () => bare(many, 1, 200),
    runs,
  );
}
