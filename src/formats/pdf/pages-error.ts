/** Why a PDF, or a page of one, could not be read: by the name, or the code, of what was thrown. */
export class PagesError extends Error {
  constructor({ name, message, code }: { name: string; message: string; code?: unknown }) {
    super(message);
    this.name = typeof code === "string" && code !== "" ? code : name;
  }
}
