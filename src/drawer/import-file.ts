import type { ValidateFunction } from "ajv/dist/2020.js";
import { generateNKeysBetween } from "fractional-indexing";
import { fromBase64 } from "../content/base64.js";
import { encodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import type { Notice } from "../content/notice.js";
import { grouped } from "../content/number.js";
import { readPictureBytes } from "../content/picture.js";
import { changeOf, untilItStands } from "./act.js";
import { cleanLabel, cleanOrigin, contentFacts } from "./draft.js";
import type { Drawer } from "./drawer.js";
import { FORMAT, PAGE, VERSION, type Header, type Line, type Part } from "./drawer-file.js";
import { DRAWER_FILE_SCHEMA } from "./drawer-file-schema.js";
import type { Entry } from "./entry.js";
import { newId } from "./ids.js";
import { lastOf, limitsOf } from "./room.js";
import type { Rules } from "./rules.js";
import { many } from "./saying.js";
import type { Commit, Store } from "./store.js";

/** How a drawer file is read. */
export interface ImportOptions {
  /** What the file is called in messages. */
  readonly name?: string;
  /** Is told now and then how many of how many snippets have been read. */
  readonly progress?: (read: number, of: number) => void;
}

/**
 * Brings the snippets of a drawer file into a drawer, at its end: all of them, or, if one line is refused, none. Those
 * that are there already, collected at the same time with the same content, are left out and counted.
 *
 * @param open opens the lines of the file; again, should somebody come between
 * @throws DrawerError `bad-file` for a file that is none, is cut short, or of a newer version, and for a line that is no
 *   snippet; `full` when the drawer's rules do not let so many in
 */
export async function importDrawer(
  drawer: Drawer,
  open: () => AsyncIterable<string> | Iterable<string>,
  { name = "the file", progress = () => undefined }: ImportOptions = {},
): Promise<Notice[]> {
  let importing: Import | undefined;
  await untilItStands(drawer.name, async () => {
    importing = new Import(drawer, name, progress);
    await drawer.store.commit(importing.read(open()));
  });
  const { imported, repeated } = importing!;
  const notices: Notice[] = [
    {
      code: "imported",
      message: `Imported ${many(imported)} from “${name}” into the drawer “${drawer.name}”.`,
    },
  ];
  if (repeated > 0) {
    const were =
      repeated === 1
        ? "One was there already and was left out."
        : `${grouped(repeated)} were there already and were left out.`;
    notices.push({ code: "repeat", message: were });
  }
  return notices;
}

/** One reading of a drawer file into a drawer. */
class Import {
  imported = 0;
  repeated = 0;
  readonly #act = newId();
  #order: string | null = null;
  #line = 0;

  constructor(
    readonly drawer: Drawer,
    readonly name: string,
    readonly progress: (read: number, of: number) => void,
  ) {}

  async *read(lines: AsyncIterable<string> | Iterable<string>): AsyncGenerator<Commit> {
    const { store, name } = this.drawer;
    const [checkHeader, check] = await validators();
    const rules = await this.drawer.rules();
    const { count, bytes: size } = await store.size(name);
    this.#order = (await lastOf(store, name, count))?.order ?? null;
    const known = await keysOf(store, name);
    let header: Header | undefined;
    const page: Line[] = [];
    let bytes = size;
    let read = 0;
    const commit = () => {
      const made = this.#commit(page.splice(0), known);
      bytes += made.change.edits.reduce((sum, { after }) => sum + after!.bytes, 0);
      const tooMany = rules.snippets !== null && count + this.imported > rules.snippets;
      if (tooMany || (rules.size !== null && bytes > rules.size)) throw this.#full(header!, rules);
      this.progress(read, header!.snippets);
      return made.change.edits.length > 0 ? [made] : [];
    };
    for await (const line of lines) {
      this.#line++;
      if (line.trim() === "" && header) continue;
      const value = this.#parse(line);
      if (!header) {
        header = this.#header(value, checkHeader);
        continue;
      }
      if (!check(value)) throw this.#bad(`is no snippet: ${said(check)}`);
      page.push(value as Line);
      read++;
      if (page.length === PAGE) yield* commit();
    }
    if (!header) throw new DrawerError("bad-file", `“${this.name}” is empty, and so no drawer file.`);
    if (read !== header.snippets) {
      const message = `Nothing was imported: “${this.name}” should hold ${many(header.snippets)} and holds ${grouped(read)}; it was cut short or changed. Export it again.`;
      throw new DrawerError("bad-file", message);
    }
    if (page.length > 0) yield* commit();
  }

  #parse(line: string): unknown {
    try {
      return JSON.parse(this.#line === 1 ? line.replace(/^\uFEFF/, "") : line);
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      throw this.#bad(this.#line === 1 ? "is no drawer file: its first line is not JSON" : "is not JSON");
    }
  }

  #header(value: unknown, check: ValidateFunction): Header {
    const { format, version } = (value ?? {}) as Partial<Header>;
    if (format !== FORMAT) {
      const message = `“${this.name}” is no drawer file. To take it in as a document, use “collect”.`;
      throw new DrawerError("bad-file", message);
    }
    if (typeof version === "number" && version > VERSION) {
      const message = `“${this.name}” was written by a newer Drawer (version ${version} of the form; this one reads ${VERSION}). Nothing was imported. Update Drawer first.`;
      throw new DrawerError("bad-file", message);
    }
    if (!check(value)) throw this.#bad(`is no header: ${said(check)}`);
    return value as Header;
  }

  #bad(what: string): DrawerError {
    return new DrawerError("bad-file", `Nothing was imported: “${this.name}”, line ${this.#line}, ${what}.`);
  }

  #full(header: Header, rules: Rules): DrawerError {
    return new DrawerError(
      "full",
      `Nothing was imported: “${this.name}” holds ${many(header.snippets)}, and the drawer “${this.drawer.name}” takes at most ${limitsOf(rules)}. Raise its rules “snippets” or “size”, or import into another drawer.`,
    );
  }

  #commit(lines: readonly Line[], known: Set<string>): Commit {
    const contents = new Map<Hash, Uint8Array>();
    const entries = lines.flatMap((line) => {
      const entry = this.#entry(line, contents);
      if (known.has(keyOf(entry))) {
        this.repeated++;
        return [];
      }
      return [entry];
    });
    const orders = generateNKeysBetween(this.#order, null, entries.length);
    this.#order = orders.at(-1) ?? this.#order;
    this.imported += entries.length;
    const edits = entries.map((entry, index) => ({
      id: entry.id,
      before: null,
      after: { ...entry, order: orders[index]! },
    }));
    return { change: { ...changeOf(this.drawer.name, "import"), act: this.#act, edits }, contents };
  }

  #entry({ pictures = {}, ...part }: Line, contents: Map<Hash, Uint8Array>): Entry {
    for (const [hash, text] of Object.entries(pictures)) {
      const bytes = fromBase64(text);
      if (!bytes || hashBytes(bytes) !== hash || !readPictureBytes(bytes))
        throw this.#bad(
          `or one of the ${PAGE} before it, has a picture that is damaged or of no known type (${hash.slice(0, 8)}…)`,
        );
      contents.set(hash, bytes);
    }
    return this.#part(part, Object.keys(pictures), contents);
  }

  #part(
    { content, parts, label, kept, origin, collectedAt }: Part,
    pictures: readonly Hash[],
    contents: Map<Hash, Uint8Array>,
  ): Entry {
    const bytes = encodeContent(content);
    const hash = hashBytes(bytes);
    contents.set(hash, bytes);
    return {
      ...{ id: newId(), drawer: this.drawer.name, order: "a0", ...contentFacts(content, hash, false) },
      ...(pictures.length > 0 && { pictures }),
      bytes: bytes.length + pictures.reduce((sum, each) => sum + (contents.get(each)?.length ?? 0), 0),
      ...(label !== undefined && { label: cleanLabel(label) }),
      ...{ kept: kept ?? false, private: false, origin: cleanOrigin(origin), collectedAt },
      ...(parts && { parts: parts.map((one) => this.#part(one, pictures, contents)) }),
    };
  }
}

/** By what a snippet is known again: its content, and when it was collected. */
function keyOf({ content, collectedAt }: Entry): string {
  return content.slice(0, 24) + collectedAt;
}

async function keysOf(store: Store, drawer: string): Promise<Set<string>> {
  const known = new Set<string>();
  const { count } = await store.size(drawer);
  for (let offset = 0; offset < count; offset += 1000)
    for (const { entry } of await store.entries({ drawer, offset, limit: 1000 })) known.add(keyOf(entry));
  return known;
}

/** The checks of a header and of a snippet; made at the first import. */
async function validators(): Promise<readonly [ValidateFunction, ValidateFunction]> {
  if (checks) return checks;
  const { default: ajvModule } = await import("ajv/dist/2020.js");
  const ajv = new ajvModule.Ajv2020({ discriminator: true, strict: false });
  ajv.addSchema(DRAWER_FILE_SCHEMA, "drawer-file");
  return (checks = [
    ajv.getSchema("drawer-file#/$defs/header")!,
    ajv.getSchema("drawer-file#/$defs/snippet")!,
  ]);
}

let checks: readonly [ValidateFunction, ValidateFunction] | undefined;

/** What a check found wrong, and where. */
function said({ errors }: ValidateFunction): string {
  const [first] = errors ?? [];
  const more =
    first?.params["additionalProperty"] === undefined ? "" : ` (“${first.params["additionalProperty"]}”)`;
  return `${first?.message ?? "it is wrong"}${more}${first?.instancePath ? `, at ${first.instancePath}` : ""}`;
}
