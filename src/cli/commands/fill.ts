import { rm } from "node:fs/promises";
import type { Command } from "commander";
import type { Content, Table } from "../../content/model.js";
import { notice, type Notice } from "../../content/notice.js";
import { fillGrid } from "../../content/spans.js";
import type { Snippet } from "../../drawer/snippets.js";
import { fillPages, fillPlaces, placesIn, type FilledFile, type FillValue } from "../../files/fill.js";
import { plainName } from "../../formats/fill.js";
import { cellText, writeText } from "../../formats/text/write.js";
import { commands } from "../../messages/en/cli-help.js";
import { cliNotices } from "../../messages/en/cli.js";
import { answer, type CommonOptions } from "../answer.js";
import { begin } from "../command.js";
import { withDrawer } from "../home.js";
import { readBytes } from "../input.js";
import { writeNewFile } from "../output.js";
import { UsageError } from "../refusal.js";

interface FillOptions extends CommonOptions {
  readonly to?: string;
  readonly from?: string;
  readonly each?: boolean;
  readonly overwrite?: boolean;
}

type Values = Record<string, FillValue>;

/** `drawer fill FILE --to NEW`: puts snippets into the named places of a document. */
export function add(program: Command): void {
  const says = commands.fill;
  begin(program, "fill")
    .option("--to <file>", says.to)
    .option("--from <pick>", says.from)
    .option("--each", says.each)
    .option("--overwrite", says.overwrite)
    .action(async (path: string, options: FillOptions) => {
      const { to, from = "all", overwrite = false } = options;
      if (to === undefined) throw new UsageError("bad-option/fill", {});
      const { bytes, name } = await readBytes(path);
      const { snippets, notices: leftOut } = await withDrawer(options.drawer, (drawer) =>
        drawer.snippetsToGiveOut(from),
      );
      const isPrivate = snippets.some(({ entry }) => entry.private);
      const names = new Set((await placesIn(bytes, name)).map((place) => plainName(place.name)));
      const sets = options.each
        ? rowsOf(snippets, names, to)
        : [{ path: to, values: valuesOf(snippets, names) }];
      const made: Made[] = [];
      if (sets.length > 1 && isOneFile(to)) {
        const pages = sets.map(({ values }) => values);
        made.push({ target: to, pages: pages.length, ...(await fillPages(bytes, name, pages)) });
      } else
        for (const { path: target, values } of sets)
          made.push({ target, ...(await fillPlaces(bytes, name, values)) });
      const written: string[] = [];
      try {
        for (const { target, data } of made) {
          await writeNewFile(target, data, { overwrite, isPrivate });
          written.push(target);
        }
      } catch (error) {
        // All of them, or none.
        if (!overwrite) for (const target of written) await rm(target);
        throw error;
      }
      answer(options, [...said(made), ...leftOut], { files: written });
    });
}

/** A file that was made. */
interface Made extends FilledFile {
  readonly target: string;
  /** For how many rows it has pages, where these are in one file. */
  readonly pages?: number;
}

/** Whether all rows go into one file: its name has no name in braces, by which files would differ. */
function isOneFile(pattern: string): boolean {
  return !/\{\{[^{}]+\}\}/.test(pattern);
}

function said(made: readonly Made[]): Notice[] {
  const once = (lists: readonly (readonly string[])[]) => [...new Set(lists.flat())];
  const [empty, unused] = [once(made.map((each) => each.empty)), once(made.map((each) => each.unused))];
  const { target: path, pages } = made.at(-1)!;
  return [
    pages === undefined
      ? notice(cliNotices, "filled", { count: made.length, path })
      : notice(cliNotices, "filled/pages", { pages, path }),
    ...(empty.length > 0 ? [notice(cliNotices, "filled/empty", { names: empty })] : []),
    ...(unused.length > 0 ? [notice(cliNotices, "filled/unused", { names: unused })] : []),
    ...made.flatMap((each) => each.notices),
  ];
}

/** What snippets say for names: by their labels, and by tables of two columns whose first has names of the file. */
function valuesOf(snippets: readonly Snippet[], names: ReadonlySet<string>): Values {
  const values: Values = {};
  for (const { entry, content, pictures } of snippets) {
    if (entry.label !== undefined) values[entry.label] = { content, pictures };
    for (const table of content) {
      if (table.type !== "table") continue;
      const rows = cellsOf(table);
      if (
        !rows.every((row) => row.length === 2) ||
        !rows.some(([name]) => names.has(plainName(cellText(name!))))
      )
        continue;
      for (const [name, value] of rows.slice(table.headerRows))
        if (cellText(name!).trim() !== "") values[cellText(name!).trim()] = { content: value!, pictures };
    }
  }
  return values;
}

/**
 * What each row of the one table says for the names in its header, which are some of the file's, with what the other snippets say by their labels.
 * @throws UsageError `bad-option`
 */
function rowsOf(
  snippets: readonly Snippet[],
  places: ReadonlySet<string>,
  pattern: string,
): { path: string; values: Values }[] {
  const tables = snippets.flatMap(({ content }) => content.filter((flow) => flow.type === "table"));
  const found = tables.flatMap((each) => {
    const cells = cellsOf(each);
    // A table whose rows are all words has no header that could be told: its first row is one where it has names of the file.
    const header = Math.max(0, each.headerRows - 1);
    const isNamed = cells[header]?.some((cell) => places.has(plainName(cellText(cell))));
    return isNamed ? [{ table: each, header, cells }] : [];
  });
  const [one, ...others] = found;
  if (!one || others.length > 0) throw new UsageError("bad-option/each-table", {});
  const { table, header, cells } = one;
  const names = cells[header]!.map((cell) => cellText(cell).trim());
  const labelled = valuesOf(
    snippets.filter(({ content }) => !content.includes(table)),
    new Set(),
  );
  const files = cells.slice(header + 1).map((row) => {
    const own = Object.fromEntries(
      names.flatMap((name, at) => (name === "" ? [] : [[name, { content: row[at] ?? [] }] as const])),
    );
    const path = pattern.replace(/\{\{\s*([^{}]+?)\s*\}\}/g, (all, wanted: string) => {
      const name = names.find((each) => plainName(each) === plainName(wanted));
      // What a name of a file cannot have becomes a hyphen.
      return name === undefined
        ? all
        : writeText(own[name]!.content)
            .trim()
            .replace(/[/\\:*?"<>|\u0000-\u001F]+/g, "-");
    });
    return { path, values: { ...labelled, ...own } };
  });
  if (!isOneFile(pattern) && new Set(files.map(({ path }) => path)).size < files.length)
    throw new UsageError("bad-option/each-name", { names });
  return files;
}

function cellsOf(table: Table): Content[][] {
  return fillGrid(table, [] as Content, ({ flows }) => flows);
}
