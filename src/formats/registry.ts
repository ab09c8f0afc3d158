import { defined } from "../content/defined.js";
import { DrawerError } from "../content/error.js";
import { contentErrors } from "../messages/en/content.js";
import { csv, tsv } from "./delimited/index.js";
import { doc } from "./doc/index.js";
import { docx } from "./docx/index.js";
import { epub } from "./epub/index.js";
import type { Format } from "./format.js";
import { html } from "./html/index.js";
import { ics } from "./ics/index.js";
import { json } from "./json/index.js";
import { mail } from "./mail/index.js";
import { markdown } from "./markdown/index.js";
import { mbox } from "./mbox/index.js";
import { mhtml } from "./mhtml/index.js";
import { msg } from "./msg/index.js";
import { odp } from "./odp/index.js";
import { ods } from "./ods/index.js";
import { odt } from "./odt/index.js";
import { pdf } from "./pdf/index.js";
import { picture } from "./picture/index.js";
import { pptx } from "./pptx/index.js";
import { rtf } from "./rtf/index.js";
import { text } from "./text/index.js";
import { vcf } from "./vcf/index.js";
import { xls } from "./xls/index.js";
import { xlsx } from "./xlsx/index.js";

/** All formats, by their names, in the order in which they are listed. */
export const FORMATS = {
  text,
  markdown,
  html,
  csv,
  tsv,
  json,
  docx,
  odt,
  xlsx,
  ods,
  xls,
  pptx,
  odp,
  mail,
  msg,
  mbox,
  mhtml,
  pdf,
  rtf,
  doc,
  epub,
  ics,
  vcf,
  picture,
} as const;

/** The name of a format. */
export type FormatName = keyof typeof FORMATS;

/** The names of the formats that are read. */
export const READ_FORMATS = namesOf(({ read }) => read !== undefined);
/** The names of the formats that are written. */
export const WRITTEN_FORMATS = namesOf(({ write }) => write !== undefined);

/** The names of the formats whose files are changed. */
export const EDITED_FORMATS = namesOf(({ edit }) => edit !== undefined);
/** The names of the formats whose files have named places. */
export const FILLED_FORMATS = namesOf(({ fill }) => fill !== undefined);

function namesOf(is: (format: Format) => boolean): readonly FormatName[] {
  return (Object.keys(FORMATS) as FormatName[]).filter((name) => is(FORMATS[name]));
}

/**
 * The format of this name.
 * @param name its name
 */
export function formatOf(name: FormatName): Format {
  return FORMATS[name];
}

/**
 * The format that is read, by its name or by an ending of its files.
 * @param name a name of a format, or an ending of its files
 */
export function findReadFormat(name: string): FormatName | undefined {
  return find(READ_FORMATS, name, ({ extensions, readExtensions = [] }) => [
    ...extensions,
    ...readExtensions,
  ]);
}

/**
 * The format that is written, by its name or by an ending of its files.
 * @param name a name of a format, or an ending of its files
 */
export function findWrittenFormat(name: string): FormatName | undefined {
  return find(WRITTEN_FORMATS, name, ({ extensions }) => extensions);
}

function find(
  among: readonly FormatName[],
  name: string,
  extensionsOf: (format: Format) => readonly string[],
): FormatName | undefined {
  const wanted = name.toLowerCase();
  return (
    among.find((each) => each === wanted) ??
    among.find((each) => extensionsOf(formatOf(each)).includes(wanted))
  );
}

/** The endings of the files that are read, in the order of their formats; those of one that others stand beside in brackets. */
export function readEndings(): string {
  return READ_FORMATS.map((name) => {
    const { extensions, readExtensions = [] } = formatOf(name);
    const [usual, ...others] = [...extensions, ...readExtensions];
    return others.length > 0 ? `${usual} (${others.join(", ")})` : usual;
  }).join(", ");
}

/** The ending of a file's name, without its stop, in small letters. */
export function extensionOf(file: string): string | undefined {
  return /\.([^./\\]+)$/.exec(file)?.[1]?.toLowerCase();
}

/** What files of formats that are not read are saved as, to be read: by their endings. */
const SAVED_AS: readonly { readonly endings: readonly string[]; readonly as: readonly FormatName[] }[] = [
  { endings: ["wpd", "wps", "pages", "sxw", "abw"], as: ["docx", "odt"] },
  { endings: ["numbers", "sxc", "wk1", "wks", "dbf"], as: ["xlsx", "ods"] },
  { endings: ["ppt", "pps", "pot", "key", "sxi"], as: ["pptx", "pdf"] },
  {
    endings: ["mobi", "azw3", "djvu", "ps", "eps", "xps", "oxps", "odg", "vsd", "vsdx", "pub"],
    as: ["pdf"],
  },
  { endings: ["pst", "ost"], as: ["mail"] },
  { endings: ["webarchive", "maff", "chm"], as: ["html"] },
];
/** The endings of pictures that are not read. */
const OTHER_PICTURES = ["heic", "heif", "avif", "jxl", "psd", "ai", "ico", "raw", "cr2", "nef", "dng", "xcf"];
const ARCHIVES = ["zip", "7z", "rar", "tar", "gz", "tgz", "bz2", "xz"];

/** The format that a name ends in; nothing when it is none that is read. */
export function namedFormat(name: string): FormatName | undefined {
  const ending = extensionOf(name);
  return ending === undefined ? undefined : findReadFormat(ending);
}

/**
 * The format that a file's name ends in.
 * @param file the name of a file
 * @throws DrawerError `unknown-format` for an ending of no format that is read
 */
export function formatOfName(file: string): FormatName {
  const found = namedFormat(file);
  if (found) return found;
  const ending = extensionOf(file);
  if (ending !== undefined) {
    if (ARCHIVES.includes(ending)) throw new DrawerError(contentErrors, "unknown-format/packed", { file });
    const known = SAVED_AS.find(({ endings }) => endings.includes(ending))?.as;
    const as = known?.map((name) => formatOf(name).extensions[0]!) ?? [];
    if (OTHER_PICTURES.includes(ending)) as.push("png", "jpeg");
    if (as.length > 0) throw new DrawerError(contentErrors, "unknown-format/other", { file, as });
  }
  const formats = READ_FORMATS.flatMap((name) => formatOf(name).extensions).join(", ");
  throw new DrawerError(contentErrors, "unknown-format/read", { file, ...defined({ ending }), formats });
}
