import { defined } from "../../content/defined.js";
import { decimalOf } from "../../content/number.js";
import type { Format } from "../format.js";
import type { Separator } from "./separator.js";

/** Comma-separated rows (RFC 4180); read with any usual separator. */
export const csv: Format = {
  ...delimited(","),
  extensions: ["csv"],
  mediaType: "text/csv",
};

/** Tab-separated rows. */
export const tsv: Format = {
  ...delimited("\t"),
  extensions: ["tsv", "tab"],
  mediaType: "text/tab-separated-values",
};

function delimited(separator: Separator): Omit<Format, "extensions" | "mediaType"> {
  return {
    isBinary: false,
    holds: "rows",
    async read(bytes, _file, options = {}) {
      const { readDelimited } = await import("./read.js");
      const { decodeText } = await import("../text/decode.js");
      const usual = separator === "\t" ? { separator } : {};
      return readDelimited(decodeText(bytes), { ...usual, ...options });
    },
    edit: async () => (await import("./edit.js")).delimitedEditor,
    async write({ content, guard = true, locale, bom = false }) {
      const { writeDelimited } = await import("./write.js");
      const isComma = separator === "," && locale !== undefined && decimalOf(locale) === ",";
      const { text, notices } = writeDelimited(content, isComma ? ";" : separator, {
        guard,
        ...defined({ locale }),
      });
      return { data: bom ? `\uFEFF${text}` : text, notices };
    },
  };
}
