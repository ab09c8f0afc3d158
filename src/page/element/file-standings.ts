import type { FileStanding } from "../binding/host-files.js";
import type { DrawerHost } from "./drawer-host.js";

/**
 * What has become of the snippets in the files that they came from, where the page knows the user's files: it is asked when a drawer is
 * opened, when the window comes to the front, and after something was done to a file.
 */
export class FileStandings {
  #types: ReadonlyMap<string, FileStanding["type"]> = new Map();

  constructor(readonly host: DrawerHost) {}

  /** What has become of one; nothing when it is the same there, or that is not known. */
  of(id: string): FileStanding["type"] | undefined {
    return this.#types.get(id);
  }

  /** Whether any is not the same there. */
  get isAny(): boolean {
    return this.#types.size > 0;
  }

  /** Asks what has become of them. */
  async read(): Promise<void> {
    const { binding } = this.host;
    const { files } = binding?.options.desktop ?? {};
    if (!files) return;
    const { name } = binding!.drawer;
    const standings = await files.standings(name);
    if (name !== this.host.binding?.drawer.name) return;
    this.#types = new Map(standings.map(({ id, type }) => [id, type]));
    this.host.requestUpdate();
  }
}
