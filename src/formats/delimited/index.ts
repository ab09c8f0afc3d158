import { asText, type Format } from "../format.js";
import type { Separator } from "./write.js";

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
    async read(bytes) {
      const { readDelimited } = await import("./read.js");
      const { decodeText } = await import("../text/decode.js");
      return readDelimited(decodeText(bytes), separator === "\t" ? { separator } : {});
    },
    async write({ content, guard = true }) {
      return asText((await import("./write.js")).writeDelimited(content, separator, { guard }).text);
    },
  };
}
