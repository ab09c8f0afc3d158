import { isDrawn } from "../../content/picture.js";
import { picturesOf } from "../../content/traverse.js";
import type { Snippet } from "../../drawer/snippets.js";

/** How large a picture may be, in bytes, to be drawn small. */
export const DRAWN_PICTURE = 4 * 1024 * 1024;
/** How many addresses are kept: more than a screen of rows. */
const KEPT = 200;

/** Addresses at which a page shows pictures of snippets, by their content, none for those that no browser draws; those that were made first are given back first. */
export class SmallPictures {
  readonly #addresses = new Map<string, string | undefined>();

  has(content: string): boolean {
    return this.#addresses.has(content);
  }

  get(content: string): string | undefined {
    return this.#addresses.get(content);
  }

  /** Makes the address of the picture that a snippet is. */
  add({ entry, content, pictures }: Snippet): void {
    const [picture] = picturesOf(content);
    const bytes = picture && pictures.get(picture.hash);
    if (!bytes) return;
    const blob = isDrawn(picture.mediaType) && new Blob([bytes as BlobPart], { type: picture.mediaType });
    this.#addresses.set(entry.content, blob ? URL.createObjectURL(blob) : undefined);
    for (const [first, address] of this.#addresses) {
      if (this.#addresses.size <= KEPT) break;
      if (address !== undefined) URL.revokeObjectURL(address);
      this.#addresses.delete(first);
    }
  }

  /** Gives all of them back. */
  clear(): void {
    for (const address of this.#addresses.values()) if (address !== undefined) URL.revokeObjectURL(address);
    this.#addresses.clear();
  }
}
