import { formatOf, type WriteInput } from "drawer";

/** The formats of documents and workbooks. */
export const OFFICE_FORMATS = ["docx", "odt", "xlsx", "ods"] as const;
export type OfficeFormat = (typeof OFFICE_FORMATS)[number];

/** The bytes of a written document or workbook. */
export async function writeOffice(input: WriteInput, format: OfficeFormat): Promise<Uint8Array> {
  return (await formatOf(format).write!(input)).data as Uint8Array;
}
