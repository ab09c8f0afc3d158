import { DrawerError } from "../../content/error.js";
import { tableWords } from "../../messages/en/content.js";
import { formatErrors } from "../../messages/en/formats.js";
import { componentsOf, textOf, type Fact, type Value } from "../ics/components.js";
import { sheetOf, type Entries, type Entry } from "../ics/table.js";
import type { ReadSheet } from "../office/sheet.js";
import { decodeText } from "../text/decode.js";
import { asVersion3 } from "./version-2.js";

const WORDS = tableWords.cards;
/** The column of each fact that has one. */
const COLUMNS: Readonly<Record<string, string>> = {
  fn: WORDS.name,
  org: WORDS.organisation,
  title: WORDS.role,
  role: WORDS.role,
  tel: WORDS.telephone,
  email: WORDS.mail,
  adr: WORDS.address,
  url: WORDS.web,
  bday: WORDS.birthday,
  note: WORDS.note,
};
/** What programs keep for themselves, and the parts of a name that is said whole. */
const OWN = /^(?:x-|uid$|rev$|version$|prodid$|n$|sort-string$|mailer$|kind$|clientpidmap$)/;
/** What is said of most numbers and addresses, and tells nothing. */
const USUAL = new Set(["pref", "voice", "internet", "text"]);

/**
 * Reads an address book (vCard, RFC 6350 and before): a sheet with a row for each card.
 *
 * @param bytes the whole file
 * @param file its name, for messages
 * @throws DrawerError `unreadable`, `unknown-format` where the package that reads it is not installed
 */
export async function readVcf(bytes: Uint8Array, file: string): Promise<ReadSheet[]> {
  const all = await componentsOf(asVersion3(bytes, decodeText(bytes)), file, "vcf");
  const cards = all.filter(({ name }) => name === "vcard");
  if (cards.length === 0) throw new DrawerError(formatErrors, "unreadable/not-one", { file, what: "vcf" });
  const left = new Set<string>();
  const rows = cards.map(({ facts }) => {
    for (const { name } of facts) if (!(name in COLUMNS) && !OWN.test(name)) left.add(name);
    return rowOf(facts);
  });
  return [sheetOf(file, tableWords.cardSheet, Object.values(WORDS), rows, left)];
}

function rowOf(facts: readonly Fact[]): Entries {
  const row = new Map<string, Entry>();
  const add = (column: string, lines: readonly string[]) =>
    row.set(column, { lines: [...(row.get(column)?.lines ?? []), ...lines.filter(Boolean)] });
  for (const fact of facts) {
    const column = COLUMNS[fact.name];
    if (column !== undefined) add(column, linesOf(fact));
  }
  if (!row.get(WORDS.name)?.lines.length) add(WORDS.name, [nameOf(facts.find(({ name }) => name === "n"))]);
  return row;
}

/** A name of its parts: those before it, given, further and family name, and those behind it (RFC 6350, 6.2.2). */
function nameOf(fact: Fact | undefined): string {
  const [family, given, further, before, behind] = partsOf(fact);
  return [before, given, further, family, behind].filter(Boolean).join(" ");
}

function partsOf(fact: Fact | undefined): string[] {
  const [value] = fact?.values ?? [];
  return Array.isArray(value)
    ? value.map((part: Value) => textOf(part))
    : value === undefined
      ? []
      : [textOf(value)];
}

function linesOf(fact: Fact): string[] {
  const { name, parameters, values } = fact;
  if (name === "adr") {
    // Post box, further, street, town, region, code, country (RFC 6350, 6.3.1).
    const [box, further, street, town, region, code, country] = partsOf(fact);
    const place = [code, town].filter(Boolean).join(" ");
    return [withKind([box, further, street, place, region, country].filter(Boolean).join(", "), parameters)];
  }
  if (name === "org") return [partsOf(fact).filter(Boolean).join(", ")];
  // The library leaves what is escaped here, as it need not be (RFC 2426, 5).
  const said = values.map((value) => textOf(value).replaceAll("\\;", ";")).join(", ");
  if (name === "tel" || name === "email")
    return [withKind(said.replace(/^(?:tel|mailto):/i, ""), parameters)];
  return said.split("\n");
}

/** What is said of a number or an address stands before it: `work: …`. */
function withKind(text: string, { type }: Fact["parameters"]): string {
  const kinds = [type ?? []].flat().map((kind) => kind.toLowerCase());
  const told = kinds.filter((kind) => !USUAL.has(kind));
  return told.length > 0 && text !== "" ? `${told.join(", ")}: ${text}` : text;
}
