/** The most bytes of a workbook that is read: it is held whole, several times. */
export const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Makes an xlsx of a workbook in a form of before 2007, or a binary one ([MS-XLS], [MS-XLSB]): its cells with their values, number formats
 * and formulas, what is merged and what is hidden. Looks and pictures stay behind.
 * @throws what the library throws about a file that is none, or has a password
 */
export async function toXlsx(bytes: Uint8Array): Promise<Uint8Array> {
  const { read, write } = await import("@e965/xlsx");
  const workbook = read(bytes, {
    ...{ type: "array", cellNF: true, cellText: false, cellHTML: false },
    // Rows and columns that are hidden count as looks.
    cellStyles: true,
  });
  const made = write(workbook, { type: "array", bookType: "xlsx", compression: true }) as ArrayBuffer;
  return new Uint8Array(made);
}
