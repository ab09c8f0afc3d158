import { strToU8 } from "fflate";
import { ZipWriter } from "./zip-writer.js";
import type { Parts } from "./zip.js";

/** A zipped document of which some parts are changed: all others are copied as they are, packed bytes too. */
export class EditedPackage {
  readonly #removed = new Set<string>();
  /** What parts say that are not changed. */
  readonly #texts = new Map<string, string>();
  readonly #changed = new Map<string, string | Uint8Array>();

  constructor(readonly parts: Parts) {}

  /** A part's text (UTF-8) as it is now; nothing when it is not there. */
  text(name: string): string | undefined {
    const changed = this.#changed.get(name);
    if (changed === undefined) return this.#textAsItWas(name);
    return typeof changed === "string" ? changed : new TextDecoder().decode(changed);
  }

  #textAsItWas(name: string): string | undefined {
    const known = this.#texts.get(name) ?? this.parts.text(name);
    if (known !== undefined) this.#texts.set(name, known);
    return known;
  }

  has(name: string): boolean {
    return this.#changed.has(name) || this.parts.has(name);
  }

  /** Changes a part, or adds one. */
  set(name: string, content: string | Uint8Array): void {
    this.#changed.set(name, content);
  }

  /** Takes a part out. */
  remove(name: string): void {
    this.#changed.delete(name);
    this.#removed.add(name);
  }

  /** The names of all parts. */
  get names(): string[] {
    const names = new Set([...this.parts.entries.keys(), ...this.#changed.keys()]);
    return [...names].filter((name) => !this.#removed.has(name));
  }

  /** The whole file. */
  bytes(): Uint8Array {
    const zip = new ZipWriter();
    const added = new Map(this.#changed);
    for (const [name, entry] of this.parts.entries) {
      const changed = added.get(name);
      added.delete(name);
      if (this.#removed.has(name)) continue;
      if (changed === undefined) zip.copy(entry);
      else zip.add(name, asBytes(changed));
    }
    for (const [name, content] of added) zip.add(name, asBytes(content));
    return zip.bytes();
  }
}

function asBytes(content: string | Uint8Array): Uint8Array {
  return typeof content === "string" ? strToU8(content) : content;
}
