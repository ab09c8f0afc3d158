/** Hands a file to the user, who saves it where the browser saves things. */
export function saveFile(
  data: string | Uint8Array,
  { name, type }: { readonly name: string; readonly type: string },
): void {
  const address = URL.createObjectURL(new Blob([data as BlobPart], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  // The browser reads it in a later turn.
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
