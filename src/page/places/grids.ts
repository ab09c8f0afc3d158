import type { Block } from "../../compose/block.js";
import { defined } from "../../content/defined.js";
import { DrawerError } from "../../content/error.js";
import { fillGrid } from "../../content/spans.js";
import type { Flavours } from "../../formats/flavours.js";
import { cellText, writeText } from "../../formats/text/write.js";
import type { NamedPlace } from "../../messages/core/names.js";
import { pageErrors } from "../../messages/en/page.js";
import { FieldPlace, setValue, type Field } from "./field.js";
import { describePlace } from "./name.js";
import { pasteEvent, pressKey } from "./page-events.js";
import {
  allOrNone,
  comesToBe,
  nextTurn,
  type Caret,
  type Place,
  type PlaceKind,
  type Placing,
} from "./place.js";

/** What is particular of a grid: how its parts are told, and how something is written into a cell. */
interface GridKind {
  /** The grid's own element. */
  readonly host: string;
  /** A cell of it. */
  readonly cell: string;
  /** The cell that is chosen, where the focus is not in it. */
  readonly chosen?: string;
  /** Whether an element that `host` tells is one after all. */
  readonly isGrid?: (host: Element) => boolean;
  /** The cell so many rows below another and so many columns after it. */
  readonly beside: (
    cell: HTMLElement,
    host: Element,
    down: number,
    across: number,
  ) => Element | null | undefined;
  /** Puts texts into the cells from one on. */
  readonly put: (at: GridPlace, texts: Texts, block: Block, caret?: Caret) => Promise<Placing>;
}

/** The texts of a grid, row by row. */
type Texts = readonly (readonly string[])[];

/** Grids by what they are told by. One that is not here works where it is a table of fields. */
const GRIDS: Readonly<Record<string, GridKind>> = {
  agGrid: {
    ...{ host: ".ag-root-wrapper", cell: ".ag-cell", chosen: ".ag-cell-focus" },
    beside: (cell, host, down, across) => {
      const row = Number(cell.closest("[row-index]")?.getAttribute("row-index")) + down;
      const column = Number(cell.getAttribute("aria-colindex")) + across;
      return host.querySelector(`[row-index="${row}"] .ag-cell[aria-colindex="${column}"]`);
    },
    put: putByEditing,
  },
  tabulator: {
    ...{
      host: ".tabulator",
      cell: ".tabulator-cell",
      chosen: ".tabulator-editing, .tabulator-range-only-cell-selected",
    },
    beside: (cell, _, down, across) => {
      const row = below(cell.closest(".tabulator-row")!, down, ".tabulator-row");
      const shown = (of: Element) => [...of.querySelectorAll<HTMLElement>(".tabulator-cell")].filter(isShown);
      return row && shown(row)[shown(cell.closest(".tabulator-row")!).indexOf(cell) + across];
    },
    put: putByEditing,
  },
  handsontable: {
    ...{
      host: ".handsontable:not(.handsontable .handsontable)",
      cell: ".ht_master tbody td",
      chosen: ".ht_master td.current",
    },
    beside: besideInTable,
    put: putByPaste,
  },
  fields: {
    ...{ host: "table, [role=grid]", cell: "td, th, [role=gridcell]" },
    isGrid: (host) =>
      [...host.querySelectorAll("tr, [role=row]")].some(
        (row) => [...row.children].filter((cell) => fieldIn(cell)).length > 1,
      ),
    beside: besideInTable,
    put: (at, texts, _, caret) => putIntoFields(at, texts, caret),
  },
};

/** The cells of grids. */
export const grids: PlaceKind = { find: gridPlaceOf };

function gridPlaceOf(element: Element): GridPlace | undefined {
  for (const kind of Object.values(GRIDS)) {
    const host = element.closest(kind.host);
    if (!host || (kind.isGrid && !kind.isGrid(host))) continue;
    const cell =
      element.closest<HTMLElement>(kind.cell) ?? host.querySelector<HTMLElement>(kind.chosen ?? ":not(*)");
    if (!cell) continue;
    if (kind !== GRIDS["fields"]) return new GridPlace(cell, host, kind);
    // There one writes in the field, and its caret counts.
    const field = fieldIn(cell);
    if (field) return new GridPlace(field, host, kind);
  }
  return undefined;
}

/** What the chosen cell of a grid shows, for a copy when nothing is selected; nothing in anything else. */
export function copiedCell(element: Element): Flavours | undefined {
  const cell = gridPlaceOf(element);
  const text = cell && !fieldIn(cell.element) ? shownIn(cell.element) : "";
  return text === "" ? undefined : { text };
}

/** A cell of a grid, from which on a block goes down and across. */
export class GridPlace implements Place {
  readonly fit = "cells";

  constructor(
    readonly element: HTMLElement,
    readonly host: Element,
    readonly kind: GridKind,
  ) {}

  get name(): NamedPlace {
    const own = fieldIn(this.element);
    if (own?.getAttribute("aria-label") || own?.labels?.length) return describePlace(own);
    return { element: "cell", ...defined({ column: this.#column() || undefined }) };
  }

  /** What stands above its column. */
  #column(): string {
    const { element: cell, host } = this;
    const index = cell.getAttribute("aria-colindex") ?? cell.getAttribute("tabulator-field");
    const byIndex =
      index !== null &&
      host.querySelector(`[role=columnheader]:is([aria-colindex="${index}"], [tabulator-field="${index}"])`);
    const column = [...(cell.parentElement?.children ?? [])].indexOf(cell);
    const heads = host.querySelector("thead tr")?.children;
    return (byIndex || heads?.[column])?.textContent?.replace(/\s+/g, " ").trim() ?? "";
  }

  async put(block: Block, caret?: Caret): Promise<Placing> {
    if (!this.element.isConnected) throw this.refused("closed");
    return this.kind.put(this, textsOf(block), block, caret);
  }

  /** The cell so far from this one. */
  beside(down: number, across: number): HTMLElement | undefined {
    return (this.kind.beside(this.element, this.host, down, across) as HTMLElement | null) ?? undefined;
  }

  refused(why: "closed" | "refused" | "room"): DrawerError {
    return new DrawerError(pageErrors, `not-placed/${why}`, { place: this.name });
  }
}

/** The texts of a block, as cells: of a table its cells, of anything else its lines. */
function textsOf({ content }: Block): Texts {
  const [table, ...others] = content;
  if (table?.type === "table" && others.length === 0)
    return fillGrid(table, "", ({ flows }) => cellText(flows));
  return writeText(content)
    .split("\n")
    .map((line) => [line]);
}

/** Writes into each cell; when one does not take it, those before it are as they were. */
function intoEach(
  at: GridPlace,
  texts: Texts,
  write: (cell: HTMLElement, text: string) => Promise<Placing>,
): Promise<Placing> {
  // The cells are looked for as they are written: a grid draws further ones when it is scrolled.
  return allOrNone(
    texts.flatMap((row, down) =>
      row.map((text, across) => async () => {
        const cell = down === 0 && across === 0 ? at.element : at.beside(down, across);
        if (!cell) throw at.refused("room");
        return write(cell, text);
      }),
    ),
  );
}

/** A table of fields: each gets its text; a lone one gets it at its caret. */
async function putIntoFields(at: GridPlace, texts: Texts, caret?: Caret): Promise<Placing> {
  const first = fieldIn(at.element);
  if (first && texts.length === 1 && texts[0]!.length === 1)
    return new FieldPlace(first).putText(texts[0]![0]!, caret);
  return intoEach(at, texts, async (cell, text) => {
    const field = fieldIn(cell);
    if (!field) throw at.refused("room");
    return new FieldPlace(field).putText(text, { offsets: [0, field.value.length] });
  });
}

/** Opens the editor of each cell, writes there, and closes it, as a user does. */
function putByEditing(at: GridPlace, texts: Texts): Promise<Placing> {
  return intoEach(at, texts, async (cell, text) => {
    const before = shownIn(cell);
    await edit(at, cell, text);
    const after = shownIn(cell);
    return {
      async takeBack() {
        if (!cell.isConnected || shownIn(cell) !== after) return false;
        await edit(at, cell, before);
        return shownIn(cell) === before;
      },
    };
  });
}

/** How long a grid may take to open the editor of a cell, in milliseconds. */
const OPENING = 80;

/** What opens the editor of a cell, in one grid or another. */
const OPENERS: readonly ((cell: HTMLElement) => void)[] = [
  (cell) => cell.focus({ preventScroll: true }),
  (cell) => pressKey(cell, { key: "F2", code: "F2", keyCode: 113 }),
  (cell) => cell.click(),
  (cell) => cell.dispatchEvent(new MouseEvent("dblclick", { bubbles: true, composed: true })),
];

/** What has opened an editor in a grid before. */
const WAYS = new WeakMap<Element, (cell: HTMLElement) => void>();

async function edit(at: GridPlace, cell: HTMLElement, text: string): Promise<void> {
  cell.scrollIntoView({ block: "nearest" });
  const before = shownIn(cell);
  const known = WAYS.get(at.host);
  for (const way of known ? [known, ...OPENERS] : OPENERS) {
    if (fieldIn(cell)) break;
    way(cell);
    if (await comesToBe(() => fieldIn(cell) !== undefined, OPENING)) WAYS.set(at.host, way);
  }
  const editor = fieldIn(cell);
  if (!editor) throw at.refused("closed");
  setValue(editor, text.replace(/\s*\n\s*/g, editor.localName === "input" ? " " : "\n"), "input");
  pressKey(editor, { key: "Enter", code: "Enter", keyCode: 13 });
  if (!(await comesToBe(() => fieldIn(cell) === undefined, OPENING))) {
    editor.dispatchEvent(new Event("change", { bubbles: true }));
    editor.blur();
    await comesToBe(() => fieldIn(cell) === undefined, OPENING);
  }
  // A cell may show what it holds in a form of its own; but it shows something else than before.
  if (shownIn(cell) === before && before !== text.trim()) throw at.refused("refused");
}

/** Chooses the cell and pastes, as such a grid takes a paste for all cells at once, and as one step of its undo. */
async function putByPaste(at: GridPlace, texts: Texts, block: Block): Promise<Placing> {
  const wanted = texts.flatMap((row, down) =>
    row.map((text, across) => ({ cell: at.beside(down, across), text })),
  );
  if (wanted.some(({ cell }) => !cell)) throw at.refused("room");
  const shown = () => wanted.map(({ cell }) => shownIn(cell!)).join("\t");
  const before = shown();
  const choose = async () => {
    // The click that asked for it is over by then, and takes the keys away from nobody any more.
    await nextTurn();
    const mouse = (type: string) =>
      new MouseEvent(type, { bubbles: true, cancelable: true, composed: true, button: 0 });
    at.element.dispatchEvent(mouse("mousedown"));
    // Not in the cell, where it would be taken for the second half of a double click, which opens its editor.
    at.element.ownerDocument.documentElement.dispatchEvent(mouse("mouseup"));
    at.element.dispatchEvent(mouse("click"));
    await nextTurn();
  };
  await choose();
  const transfer = new DataTransfer();
  transfer.setData("text/plain", block.text);
  const given =
    document.activeElement && at.host.contains(document.activeElement) ? document.activeElement : at.element;
  given.dispatchEvent(pasteEvent(transfer));
  const isAsBefore = wanted.every(({ cell, text }) => shownIn(cell!) === text.trim());
  if (!isAsBefore && !(await comesToBe(() => shown() !== before))) throw at.refused("refused");
  await nextTurn();
  const after = shown();
  return {
    async takeBack() {
      if (!at.element.isConnected || shown() !== after) return false;
      await choose();
      const undo = { key: "z", code: "KeyZ", keyCode: 90, isCommand: true };
      pressKey(document.activeElement ?? at.element, undo);
      return comesToBe(() => shown() === before);
    },
  };
}

/** In a table of HTML, and in grids that are laid out like one. */
function besideInTable(
  cell: HTMLElement,
  _: Element,
  down: number,
  across: number,
): Element | null | undefined {
  const row = cell.closest("tr, [role=row]")!;
  const column = [...row.children].findIndex((each) => each.contains(cell));
  return below(row, down, "tr, [role=row]")?.children[column + across];
}

function below(row: Element, down: number, selector: string): Element | undefined {
  let found: Element | null = row;
  for (let left = down; found && left > 0; left--)
    do found = found.nextElementSibling;
    while (found && !found.matches(selector));
  return found ?? undefined;
}

/** The field that stands in a cell. */
function fieldIn(cell: Element): Field | undefined {
  const field = cell.matches("input, textarea")
    ? (cell as Field)
    : cell.querySelector<Field>("input, textarea");
  return field && !/^(?:hidden|checkbox|radio|button|submit|password)$/.test(field.type) ? field : undefined;
}

function isShown(element: Element): boolean {
  return getComputedStyle(element).display !== "none";
}

/** What a cell shows, or what its open editor holds. */
function shownIn(cell: HTMLElement): string {
  return (fieldIn(cell)?.value ?? cell.textContent ?? "").trim();
}
