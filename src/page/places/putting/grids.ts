import type { Block } from "../../../compose/block.js";
import { DrawerError } from "../../../content/error.js";
import { fillGrid } from "../../../content/spans.js";
import { cellText, writeText } from "../../../formats/text/write.js";
import { pageErrors } from "../../../messages/en/page.js";
import { fieldIn, shownIn, type GridName, type GridCell } from "../cells.js";
import { allOrNone, comesToBe, nextTurn, type Caret, type Placing } from "../place.js";
import { putTextIntoField, setValue } from "./field.js";
import { pasteEvent, pressKey } from "./page-events.js";

/** How something is written into the cells of a grid. */
interface GridWriting {
  /** The cell so many rows below another and so many columns after it. */
  readonly beside: (
    cell: HTMLElement,
    host: Element,
    down: number,
    across: number,
  ) => Element | null | undefined;
  /** Puts texts into the cells from one on. */
  readonly put: (at: GridCell, texts: Texts, block: Block, caret?: Caret) => Promise<Placing>;
}

/** The texts of a grid, row by row. */
type Texts = readonly (readonly string[])[];

const WRITING: Readonly<Record<GridName, GridWriting>> = {
  agGrid: {
    beside: (cell, host, down, across) => {
      const row = Number(cell.closest("[row-index]")?.getAttribute("row-index")) + down;
      const column = Number(cell.getAttribute("aria-colindex")) + across;
      return host.querySelector(`[row-index="${row}"] .ag-cell[aria-colindex="${column}"]`);
    },
    put: putByEditing,
  },
  tabulator: {
    beside: (cell, _, down, across) => {
      const row = below(cell.closest(".tabulator-row")!, down, ".tabulator-row");
      const shown = (of: Element) => [...of.querySelectorAll<HTMLElement>(".tabulator-cell")].filter(isShown);
      return row && shown(row)[shown(cell.closest(".tabulator-row")!).indexOf(cell) + across];
    },
    put: putByEditing,
  },
  handsontable: { beside: besideInTable, put: putByPaste },
  fields: { beside: besideInTable, put: (at, texts, _, caret) => putIntoFields(at, texts, caret) },
};

/** Puts a block into the cells of a grid from one on, as {@link Place.put}. */
export async function putIntoGrid(at: GridCell, block: Block, caret?: Caret): Promise<Placing> {
  if (!at.element.isConnected) throw refused(at, "closed");
  return WRITING[at.grid].put(at, textsOf(block), block, caret);
}

/** The cell so far from one. */
function beside(at: GridCell, down: number, across: number): HTMLElement | undefined {
  const found = WRITING[at.grid].beside(at.element, at.host, down, across);
  return (found as HTMLElement | null) ?? undefined;
}

function refused(at: GridCell, why: "closed" | "refused" | "room"): DrawerError {
  return new DrawerError(pageErrors, `not-placed/${why}`, { place: at.name });
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
  at: GridCell,
  texts: Texts,
  write: (cell: HTMLElement, text: string) => Promise<Placing>,
): Promise<Placing> {
  // The cells are looked for as they are written: a grid draws further ones when it is scrolled.
  return allOrNone(
    texts.flatMap((row, down) =>
      row.map((text, across) => async () => {
        const cell = down === 0 && across === 0 ? at.element : beside(at, down, across);
        if (!cell) throw refused(at, "room");
        return write(cell, text);
      }),
    ),
  );
}

/** A table of fields: each gets its text; a lone one gets it at its caret. */
async function putIntoFields(at: GridCell, texts: Texts, caret?: Caret): Promise<Placing> {
  const first = fieldIn(at.element);
  if (first && texts.length === 1 && texts[0]!.length === 1)
    return putTextIntoField(first, texts[0]![0]!, caret);
  return intoEach(at, texts, async (cell, text) => {
    const field = fieldIn(cell);
    if (!field) throw refused(at, "room");
    return putTextIntoField(field, text, { offsets: [0, field.value.length] });
  });
}

/** Opens the editor of each cell, writes there, and closes it, as a user does. */
function putByEditing(at: GridCell, texts: Texts): Promise<Placing> {
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

async function edit(at: GridCell, cell: HTMLElement, text: string): Promise<void> {
  cell.scrollIntoView({ block: "nearest" });
  const before = shownIn(cell);
  const known = WAYS.get(at.host);
  for (const way of known ? [known, ...OPENERS] : OPENERS) {
    if (fieldIn(cell)) break;
    way(cell);
    if (await comesToBe(() => fieldIn(cell) !== undefined, OPENING)) WAYS.set(at.host, way);
  }
  const editor = fieldIn(cell);
  if (!editor) throw refused(at, "closed");
  setValue(editor, text.replace(/\s*\n\s*/g, editor.localName === "input" ? " " : "\n"), "input");
  pressKey(editor, { key: "Enter", code: "Enter", keyCode: 13 });
  if (!(await comesToBe(() => fieldIn(cell) === undefined, OPENING))) {
    editor.dispatchEvent(new Event("change", { bubbles: true }));
    editor.blur();
    await comesToBe(() => fieldIn(cell) === undefined, OPENING);
  }
  // A cell may show what it holds in a form of its own; but it shows something else than before.
  if (shownIn(cell) === before && before !== text.trim()) throw refused(at, "refused");
}

/** Chooses the cell and pastes, as such a grid takes a paste for all cells at once, and as one step of its undo. */
async function putByPaste(at: GridCell, texts: Texts, block: Block): Promise<Placing> {
  const wanted = texts.flatMap((row, down) =>
    row.map((text, across) => ({ cell: beside(at, down, across), text })),
  );
  if (wanted.some(({ cell }) => !cell)) throw refused(at, "room");
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
  if (!isAsBefore && !(await comesToBe(() => shown() !== before))) throw refused(at, "refused");
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

function isShown(element: Element): boolean {
  return getComputedStyle(element).display !== "none";
}
