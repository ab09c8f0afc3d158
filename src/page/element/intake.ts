import { html, nothing } from "lit";
import { defined } from "../../content/defined.js";
import type { Origin } from "../../content/origin.js";
import { page } from "../../messages/core/page-sentences.js";
import { sources } from "../../messages/en/content.js";
import { readTransfer } from "../capture/selection.js";
import type { DrawerHost } from "./drawer-host.js";
import type { RowDrag } from "./row-drag.js";

/** What is pasted or dropped into the drawer: one of its own rows, files, or what another program offers. */
export class Intake {
  /** What hangs over it, to be dropped: files, or what another program offers. */
  #over: "files" | "piece" | undefined;

  /** @param lookInto looks into files that are dropped */
  constructor(
    readonly host: DrawerHost,
    readonly drag: RowDrag,
    readonly lookInto: (files: readonly File[]) => Promise<void>,
  ) {
    host.addEventListener("paste", (event) => {
      // What is pasted into a field of the drawer itself is for that field.
      const { clipboardData } = event as ClipboardEvent;
      if ((event.composedPath()[0] as Element).localName !== "input") this.#given(event, clipboardData);
    });
    host.addEventListener("dragover", (event) => this.#hangs(event as DragEvent));
    host.addEventListener("dragleave", () => this.#setOver(undefined));
    host.addEventListener("drop", (event) => {
      this.#setOver(undefined);
      this.#given(event, (event as DragEvent).dataTransfer);
    });
    host.addEventListener("dragend", () => drag.ended());
  }

  /** Something hangs over it: it is shown where that will go. */
  #hangs(event: DragEvent): void {
    event.preventDefault();
    if (this.drag.over(event)) return;
    const types = event.dataTransfer?.types ?? [];
    const isText = ["text/html", "text/plain", "text/rtf"].some((type) => types.includes(type));
    this.#setOver(types.includes("Files") && !isText ? "files" : "piece");
  }

  #setOver(over: "files" | "piece" | undefined): void {
    if (over === undefined) this.drag.left();
    if (over === this.#over) return;
    this.#over = over;
    this.host.requestUpdate();
  }

  /** Where it will go, what hangs over it; nothing while nothing does. */
  view() {
    const next = (this.host.viewModel?.chosenCount("all") ?? 0) + 1;
    return this.#over === undefined
      ? nothing
      : html`<p class="receiving">${page.receives[this.#over](next)}</p>`;
  }

  #given(event: Event, transfer: DataTransfer | null): void {
    if (!transfer || !this.host.binding) return;
    event.preventDefault();
    const isDrop = event.type === "drop";
    if (!isDrop || !this.drag.dropped(event as DragEvent)) void this.take(transfer, isDrop);
  }

  /** Takes in what another program offers. Files that are dropped are looked into. */
  async take(
    transfer: DataTransfer,
    isDropped: boolean,
    origin: Origin = { app: sources.otherWindow },
  ): Promise<void> {
    const { binding } = this.host;
    const flavours = readTransfer(transfer);
    const files = [...transfer.files];
    // An office program offers a picture of the cells beside them; a file is what is meant where there is nothing else.
    const isText = flavours.rtf !== undefined || (flavours.html ?? flavours.text ?? "").trim() !== "";
    if (files.length === 0 || isText) {
      // Of a picture that was copied, the HTML has the address, and the file the bytes.
      const file = files.find(({ type }) => type.startsWith("image/"));
      const picture = file && new Uint8Array(await file.arrayBuffer());
      await binding?.collect({ ...flavours, ...defined({ picture }) }, origin);
    } else if (isDropped) await this.lookInto(files);
    else await binding?.collectFiles(files);
  }
}
