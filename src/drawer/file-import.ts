import { generateNKeysBetween } from "fractional-indexing";
import { fromBase64 } from "../content/base64.js";
import { checkValue } from "../content/check.js";
import { defined } from "../content/defined.js";
import { encodeContent, hashBytes, type Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { notice, type Notice } from "../content/notice.js";
import { readPictureBytes } from "../content/picture.js";
import { type LineFault, actErrors, actNotices } from "../messages/en/acts.js";
import { sources } from "../messages/en/content.js";
import { header as isHeader, snippet as isSnippet } from "./drawer-file-validator.js";
import {
  FORMAT,
  PAGE,
  VERSION,
  type Header,
  type SnippetRecord,
  type PartRecord,
  type FileLines,
  type ImportOptions,
} from "./drawer-file.js";
import { revertGroup } from "./history.js";
import { cleanLabel, cleanOrigin, contentFacts, contentHash } from "./incoming.js";
import { lastOf, type Arriving } from "./limits.js";
import { changeOf } from "./model/change.js";
import { hashesOf, type Entry } from "./model/entry.js";
import { newId } from "./model/ids.js";
import { readValue, VALUES } from "./model/values.js";
import { hidden } from "./operations/set-private.js";
import { privateByHash } from "./private-traces.js";
import { rulesOf } from "./rules-of.js";
import { Conflict, type Store } from "./store.js";
import { retryOnConflict, type Context } from "./transaction.js";

/** Brings a drawer file in, as the operation `importFile` says. */
export async function importInto(
  context: Context,
  open: () => FileLines,
  { name = sources.file, progress = () => undefined }: ImportOptions,
): Promise<Notice[]> {
  const importing = new Import(context, name, progress);
  const lines = (): FileLines => {
    const opened = open();
    const given: object = Object(opened);
    const isLines = Symbol.asyncIterator in given || Symbol.iterator in given;
    checkValue("open()", opened, isLines, "the lines of a file, one after another");
    return opened;
  };
  const checked = await importing.check(lines());
  const { imported, repeated, hidden: count } = await importing.write(lines(), checked);
  return [
    notice(actNotices, "imported", { count: imported, file: name, drawer: context.drawer }),
    ...(repeated > 0 ? [notice(actNotices, "repeat/imported", { count: repeated })] : []),
    ...(count > 0 ? [notice(actNotices, "imported/private", { count })] : []),
  ];
}

/** What is kept of an import while it is under way. */
interface UnderWay {
  readonly groupId: string;
  readonly name: string;
  /** How many snippets it brings. */
  readonly snippets: number;
  /** When it last wrote something, in milliseconds since 1970. */
  readonly at: number;
  /** The process that does it, where one is known. */
  readonly process?: number;
}

/** For how long an import may write nothing before it is taken to have been cut off, in milliseconds. */
const PATIENCE = 30_000;

/** Takes back an import into a drawer that was cut off. */
export async function takeBackImport(store: Store, drawer: string, now: number): Promise<Notice[]> {
  const text = await store.value(drawer, VALUES.importing);
  if (text === undefined) return [];
  const underWay = readValue<UnderWay>(
    text,
    ({ groupId, snippets }) => !!groupId && Number.isFinite(snippets),
  );
  if (!underWay) {
    await store.setValue(drawer, VALUES.importing, text, undefined);
    return [];
  }
  const { groupId, name, snippets } = underWay;
  if (isAlive(underWay, now)) return [];
  let written = 0;
  for (const { edits, groupId: own } of await store.changes({ drawer, about: [groupId] }))
    if (own === groupId) written += edits.length;
  const isCut = written < snippets;
  const stays = isCut && written > 0 && !(await isReverted(store, drawer, groupId));
  await store.setValue(drawer, VALUES.importing, text, undefined);
  if (!isCut) return [];
  return [
    stays
      ? notice(actNotices, "imported/left", { file: name, count: written, of: snippets })
      : notice(actNotices, "imported/taken-back", { file: name, count: written }),
  ];
}

/** Takes back what an import has written. Returns whether it could: what has been changed since stays. */
async function isReverted(store: Store, drawer: string, groupId: string): Promise<boolean> {
  try {
    await revertGroup(store, drawer, groupId);
    return true;
  } catch (error) {
    if (error instanceof DrawerError && error.code === "conflict") return false;
    throw error;
  }
}

/** Whether the program that imports lives: its process, or, where none is known, for a while after it has last written. */
function isAlive({ process: id, at }: UnderWay, now: number): boolean {
  const process = thisProcess();
  if (id === undefined || !process?.kill) return now - at < PATIENCE;
  try {
    return process.kill(id, 0);
  } catch (error) {
    // One of another user lives, and may not be asked.
    return (error as { readonly code?: string }).code === "EPERM";
  }
}

/** The process of a program of Node; nothing in a page. */
function thisProcess(): Partial<Pick<NodeJS.Process, "pid" | "kill">> | undefined {
  return (globalThis as { readonly process?: Partial<NodeJS.Process> }).process;
}

/** What a file that was checked holds. */
interface Checked {
  readonly header: Header;
  /** How many of its snippets are not there yet, and the bytes of their contents. */
  readonly fresh: number;
  readonly bytes: number;
}

/** What was written: how many snippets, how many were there already, and how many of those written are private. */
interface Written {
  readonly imported: number;
  readonly repeated: number;
  readonly hidden: number;
}

/** The import of a drawer file into a drawer. */
class Import {
  readonly #groupId = newId();
  #line = 0;
  /** How many parts have been written. */
  #written = 0;

  constructor(
    readonly context: Context,
    readonly name: string,
    readonly progress: (read: number, of: number) => void,
  ) {}

  /** Checks the whole file, and that there is room for it. */
  async check(lines: FileLines): Promise<Checked> {
    const { store, drawer: name } = this.context;
    const known = await keysOf(store, name);
    let header: Header | undefined;
    let read = 0;
    let fresh = 0;
    let bytes = 0;
    for await (const line of this.#linesOf(lines)) {
      if ("header" in line) {
        header = line.header;
        continue;
      }
      read++;
      const entry = this.#entry(line.snippet, new Map());
      if (known.has(keyOf(entry, entry.content))) continue;
      fresh++;
      bytes += entry.bytes;
    }
    if (!header) throw new DrawerError(actErrors, "bad-file/empty", { file: this.name });
    if (read !== header.snippets)
      throw new DrawerError(actErrors, "bad-file/count", {
        file: this.name,
        expected: header.snippets,
        found: read,
      });
    await this.#checkRoom(header, { count: fresh, bytes });
    return { header, fresh, bytes };
  }

  /** Writes what was checked, part by part; should one fail, those before it are taken back. */
  async write(lines: FileLines, { header, fresh }: Checked): Promise<Written> {
    if (fresh === 0) return { imported: 0, repeated: header.snippets, hidden: 0 };
    const { store, drawer: name } = this.context;
    const known = await keysOf(store, name);
    let mark = await this.#mark(undefined, fresh);
    let imported = 0;
    let hidden = 0;
    let read = 0;
    try {
      const page: SnippetRecord[] = [];
      const flush = async () => {
        const part = await this.#writePage(header, page.splice(0), known);
        imported += part.length;
        hidden += part.filter((entry) => entry.private).length;
        mark = await this.#mark(mark, fresh);
        this.progress(read, header.snippets);
      };
      this.#line = 0;
      for await (const line of this.#linesOf(lines)) {
        if ("header" in line) continue;
        page.push(line.snippet);
        read++;
        if (page.length === PAGE) await flush();
      }
      if (page.length > 0) await flush();
    } catch (error) {
      await revertGroup(store, name, this.#groupId);
      await store.setValue(name, VALUES.importing, mark, undefined);
      throw error;
    }
    await store.setValue(name, VALUES.importing, mark, undefined);
    return { imported, repeated: header.snippets - imported, hidden };
  }

  /** Keeps that the import is under way. */
  async #mark(before: string | undefined, snippets: number): Promise<string> {
    const underWay: UnderWay = {
      groupId: this.#groupId,
      name: this.name,
      snippets,
      at: Date.now(),
      ...defined({ process: thisProcess()?.pid }),
    };
    const after = JSON.stringify(underWay);
    try {
      await this.context.store.setValue(this.context.drawer, VALUES.importing, before, after);
    } catch (error) {
      if (!(error instanceof Conflict)) throw error;
      throw new DrawerError(actErrors, "conflict/import", { drawer: this.context.drawer }, { cause: error });
    }
    return after;
  }

  /** Writes some snippets in one change, private where a private one says the same. Returns those that were not there yet. */
  async #writePage(
    header: Header,
    lines: readonly SnippetRecord[],
    known: Set<string>,
  ): Promise<readonly Entry[]> {
    const { store, drawer: name } = this.context;
    const contents = new Map<Hash, Uint8Array>();
    const secrets = await privateByHash(store);
    const entries = lines
      .map((line) => this.#entry(line, contents))
      .filter((entry) => !known.has(keyOf(entry, entry.content)))
      .map((entry) => {
        if (!secrets.has(entry.content)) return entry;
        const bytes = contents.get(entry.content)!;
        const secret = hidden(entry, bytes, null);
        contents.set(secret.content, bytes);
        return secret;
      });
    if (entries.length === 0) return [];
    const named = new Set(entries.flatMap((entry) => hashesOf(entry)));
    for (const hash of [...contents.keys()]) if (!named.has(hash)) contents.delete(hash);
    const part = ++this.#written;
    await retryOnConflict(name, async () => {
      const bytes = entries.reduce((sum, entry) => sum + entry.bytes, 0);
      await this.#checkRoom(header, { count: entries.length, bytes });
      const last = await lastOf(store, name);
      const orders = generateNKeysBetween(last?.order ?? null, null, entries.length);
      const edits = entries.map((entry, index) => ({
        id: entry.id,
        before: null,
        after: { ...entry, order: orders[index]! },
      }));
      await store.commit([
        { change: { ...changeOf(name, "import"), groupId: this.#groupId, part, edits }, contents },
      ]);
    });
    return entries;
  }

  async #checkRoom(header: Header, arriving: Arriving): Promise<void> {
    const { store, drawer } = this.context;
    const [size, rules] = [await store.size(drawer), await rulesOf(store, drawer)];
    const tooMany = rules.snippets !== null && size.count + arriving.count > rules.snippets;
    const tooLarge = rules.size !== null && size.bytes + arriving.bytes > rules.size;
    if (!tooMany && !tooLarge) return;
    throw new DrawerError(actErrors, "full/import", {
      file: this.name,
      count: header.snippets,
      drawer,
      snippets: rules.snippets,
      bytes: rules.size,
    });
  }

  /** The header and the snippets of a file, checked. */
  async *#linesOf(
    lines: FileLines,
  ): AsyncGenerator<{ readonly header: Header } | { readonly snippet: SnippetRecord }> {
    let header: Header | undefined;
    for await (const line of lines) {
      this.#line++;
      if (line.trim() === "" && header) continue;
      const value = this.#parse(line);
      if (!header) {
        header = this.#header(value);
        yield { header };
      } else if (isSnippet(value)) yield { snippet: value as SnippetRecord };
      else throw this.#bad({ is: "no-snippet", why: faultOf(isSnippet) });
    }
  }

  #parse(line: string): unknown {
    try {
      return JSON.parse(this.#line === 1 ? line.replace(/^\uFEFF/, "") : line);
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      throw this.#bad({ is: this.#line === 1 ? "no-drawer-file" : "no-json" });
    }
  }

  #header(value: unknown): Header {
    const { format, version } = (value ?? {}) as Partial<Header>;
    if (format !== FORMAT) throw new DrawerError(actErrors, "bad-file/other", { file: this.name });
    if (typeof version === "number" && version > VERSION)
      throw new DrawerError(actErrors, "bad-file/newer", { file: this.name, version, known: VERSION });
    if (!isHeader(value)) throw this.#bad({ is: "no-header", why: faultOf(isHeader) });
    return value as Header;
  }

  #bad(fault: LineFault): DrawerError {
    return new DrawerError(actErrors, "bad-file/line", { file: this.name, line: this.#line, fault });
  }

  #entry({ pictures = {}, ...part }: SnippetRecord, contents: Map<Hash, Uint8Array>): Entry {
    for (const [hash, text] of Object.entries(pictures)) {
      const bytes = fromBase64(text);
      if (!bytes || hashBytes(bytes) !== hash || !readPictureBytes(bytes))
        throw this.#bad({ is: "bad-picture", hash });
      contents.set(hash, bytes);
    }
    return this.#part(part, Object.keys(pictures), contents);
  }

  #part(
    { content, parts, label, kept, origin, collectedAt }: PartRecord,
    pictures: readonly Hash[],
    contents: Map<Hash, Uint8Array>,
  ): Entry {
    const bytes = encodeContent(content);
    const hash = hashBytes(bytes);
    contents.set(hash, bytes);
    return {
      id: newId(),
      drawer: this.context.drawer,
      order: "a0",
      ...contentFacts(content, hash, false),
      ...(pictures.length > 0 && { pictures }),
      bytes: bytes.length + pictures.reduce((sum, each) => sum + (contents.get(each)?.length ?? 0), 0),
      ...(label !== undefined && { label: cleanLabel(label) }),
      kept: kept ?? false,
      private: false,
      origin: cleanOrigin(origin),
      collectedAt,
      ...(parts && { parts: parts.map((one) => this.#part(one, pictures, contents)) }),
    };
  }
}

/** By what a snippet is known again: its content, by its hash, and when it was collected. */
function keyOf({ collectedAt }: Entry, content: Hash): string {
  return content.slice(0, 24) + collectedAt;
}

async function keysOf(store: Store, drawer: string): Promise<Set<string>> {
  const known = new Set<string>();
  const { count } = await store.size(drawer);
  for (let offset = 0; offset < count; offset += 1000)
    for (const { entry } of await store.entries({ drawer, offset, limit: 1000 }))
      known.add(keyOf(entry, await contentHash(store, entry)));
  return known;
}

/** What a check found wrong, and where. */
function faultOf({ errors }: typeof isHeader): string {
  const [first] = errors ?? [];
  const more =
    first?.params["additionalProperty"] === undefined ? "" : ` (“${first.params["additionalProperty"]}”)`;
  return `${first?.message ?? "it is wrong"}${more}${first?.instancePath ? `, at ${first.instancePath}` : ""}`;
}
