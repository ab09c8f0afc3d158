import type { Rectangle } from "../../content/cells.js";
import type { Cell } from "../../content/model.js";
import type { SheetCells } from "./sheet.js";
import type { XmlStream } from "./xml-stream.js";

/** The cells of a sheet that are read from a stream of its XML, which is opened when something is first asked for. */
export abstract class StreamedCells implements SheetCells {
  readonly facts;
  extent: { top: number; left: number; bottom: number; right: number } | undefined;
  #opened: XmlStream | undefined;

  constructor(isHidden: boolean) {
    const [hiddenRows, hiddenColumns] = [new Set<number>(), new Set<number>()];
    this.facts = { isHidden, hiddenRows, hiddenColumns, unresolved: [] as number[] };
  }

  protected abstract open(): XmlStream;
  abstract readonly rowsRead: number;
  abstract row(row: number): readonly (Cell | undefined)[];
  abstract merges(): readonly Rectangle[];

  protected get stream(): XmlStream {
    return (this.#opened ??= this.open());
  }

  get isRead(): boolean {
    return this.stream.isRead;
  }

  readOn(): void {
    this.stream.readOn();
  }

  /** Notes that some places of rows hold something. */
  protected extend(top: number, left: number, bottom = top, right = left): void {
    const { extent } = this;
    if (!extent) {
      this.extent = { top, left, bottom, right };
      return;
    }
    if (top < extent.top) extent.top = top;
    if (left < extent.left) extent.left = left;
    if (bottom > extent.bottom) extent.bottom = bottom;
    if (right > extent.right) extent.right = right;
  }
}
