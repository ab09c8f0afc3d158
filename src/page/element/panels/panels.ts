import { nothing } from "lit";
import type { Drawer } from "../../../drawer/drawer.js";
import type { DrawerHost } from "../drawer-host.js";
import type { ListRow } from "../row.js";
import { PanelMenu } from "./menu.js";
import type { Panel } from "./names.js";
import type { PanelSide } from "./panel-side.js";

/** The panels of an element: what opens them, and what is open, once that was loaded. */
export class Panels {
  readonly menu: PanelMenu;
  #side: PanelSide | undefined;

  constructor(readonly host: DrawerHost) {
    this.menu = new PanelMenu(
      host,
      (panel) => void this.#inside((side) => side.openOf(panel)),
      (files) => void this.lookInto(files),
    );
  }

  /** Which is open. */
  get open(): Panel | undefined {
    return this.#side?.open;
  }

  /** Shows the list alone again. */
  close(): void {
    this.#side?.close();
  }

  /** What is looked at beside the list, or over it, with the way back; nothing when nothing is. */
  view() {
    return this.#side?.view() ?? nothing;
  }

  /** Reads what the open panel shows. */
  async read(drawer: Drawer): Promise<void> {
    await this.#side?.read(drawer);
  }

  /** Shows the files that are looked into as they are now. */
  async lookAgain(): Promise<void> {
    await this.#side?.lookAgain();
  }

  /** Shows what the form where the user is would get of these snippets. */
  planFill(pick: string): Promise<void> {
    return this.#inside((side) => side.planFill(pick));
  }

  /** Looks into files; what has one part only is collected at once, and a drawer file is brought in. */
  lookInto(files: readonly File[]): Promise<void> {
    return this.#inside((side) => side.lookInto(files));
  }

  /** Shows one snippet whole, as it is once what was asked for before is done; or has its words changed. */
  show(row: ListRow, isEdited?: boolean): Promise<void> {
    return this.#inside((side) => side.show(row, isEdited));
  }

  /** Does something with what is open, which is loaded for the first. That it cannot be loaded is told. */
  async #inside(act: (side: PanelSide) => Promise<void>): Promise<void> {
    const { host } = this;
    await host.acting(async () => {
      if (this.#side) return [];
      const { PanelSide, panelStyles } = await import("./panel-side.js");
      // Another may have asked for it meanwhile.
      if (this.#side) return [];
      this.#side = new PanelSide(host, () => this.menu.isOpen);
      (host.renderRoot as ShadowRoot).adoptedStyleSheets.push(panelStyles.styleSheet!);
      return [];
    });
    if (this.#side) await act(this.#side);
  }
}
