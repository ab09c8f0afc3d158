import { DrawerError } from "../../content/error.js";
import { Binding } from "../binding/binding.js";
import { openPageDrawer } from "../binding/page-drawer.js";

/** The binding that an element makes itself, to a database of the browser's. */
export class OwnBinding {
  #binding: Binding | undefined;
  /** What was asked for last: an answer that comes later is not wanted any more. */
  #asked = 0;

  /**
   * @param show is told which binding is to be shown; none when it was closed
   * @param refused is told why it could not be opened
   */
  constructor(
    readonly show: (binding: Binding | undefined) => void,
    readonly refused: (error: DrawerError) => void,
  ) {}

  get binding(): Binding | undefined {
    return this.#binding;
  }

  /**
   * Opens a database in place of the one before.
   * @param name which drawer of it; `main` without it
   */
  async open(database: string, name: string | undefined): Promise<void> {
    const asked = ++this.#asked;
    try {
      const drawer = await openPageDrawer({ database, ...(name && { name }) });
      if (asked !== this.#asked) return;
      this.close();
      this.#binding = new Binding(drawer);
      this.show(this.#binding);
    } catch (error) {
      if (!(error instanceof DrawerError)) throw error;
      this.refused(error);
    }
  }

  /** Lets go of it, unless others show it too. */
  close(): void {
    this.#asked++;
    const binding = this.#binding;
    this.#binding = undefined;
    if (!binding) return;
    this.show(undefined);
    if (binding.users.size === 0) binding.unbind();
  }
}
