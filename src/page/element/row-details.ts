import { pickOf } from "../../drawer/model/pick.js";
import { writeText } from "../../formats/text/write.js";
import type { DrawerHost } from "./drawer-host.js";
import type { ListRow } from "./row.js";

/** What of single rows is shown for the moment: what a private snippet says, and the field for a label. */
export class RowDetails {
  /** What private snippets say that the user wants to see, by id. */
  readonly #revealed = new Map<string, string>();
  /** The row whose label is being asked for, by its id. */
  #labelled: string | undefined;

  /** @param focus gives a row the focus */
  constructor(
    readonly host: DrawerHost,
    readonly focus: (id: string) => void,
  ) {}

  /** What a private snippet says, when it was revealed. */
  revealed(id: string): string | undefined {
    return this.#revealed.get(id);
  }

  /** Whether its label is being asked for. */
  isLabelled(id: string): boolean {
    return id === this.#labelled;
  }

  /** Shows what a private snippet says, or masks it again. */
  async reveal(row: ListRow): Promise<void> {
    const { id } = row.entry;
    if (!this.#revealed.delete(id)) {
      const [snippet] = await this.host.viewModel!.drawer.read([row]);
      this.#revealed.set(id, writeText(snippet!.content));
    }
    this.host.requestUpdate();
  }

  /** Asks for a label. */
  async askLabel({ entry }: ListRow): Promise<void> {
    this.#labelled = entry.id;
    this.host.requestUpdate();
    await this.host.updateComplete;
    const field = this.host.renderRoot.querySelector<HTMLInputElement>(
      `.list [data-id="${entry.id}"] .label input`,
    );
    field?.focus();
    field?.select();
  }

  /** Gives the label that was asked for; without one, it stays as it was. */
  label(row: ListRow, label: string | undefined): void {
    const { entry } = row;
    if (this.#labelled !== entry.id) return;
    this.#labelled = undefined;
    this.host.requestUpdate();
    const isSame = label === undefined || label.trim() === (entry.label ?? "");
    if (!isSame) this.host.act((drawer) => drawer.label(pickOf([row]), label));
    void this.host.updateComplete.then(() => this.focus(entry.id));
  }
}
