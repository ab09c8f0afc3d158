import { asLines, type Format } from "../format.js";

/** The content itself, as JSON. */
export const json: Format = {
  extensions: ["json"],
  mediaType: "application/json",
  isBinary: false,
  holds: "structure",
  write: async ({ content }) => asLines(JSON.stringify(content)),
};
