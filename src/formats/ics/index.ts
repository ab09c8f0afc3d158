import type { Format } from "../format.js";

/** A calendar (iCalendar, RFC 5545): its events and its tasks are rows. It is read, and not written. */
export const ics: Format = {
  extensions: ["ics"],
  readExtensions: ["ical", "ifb"],
  mediaType: "text/calendar",
  isBinary: false,
  holds: "structure",
  async read(bytes, file) {
    const { readIcs } = await import("./read.js");
    return { sheets: await readIcs(bytes, file) };
  },
};
