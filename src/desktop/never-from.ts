import { notice, type Notice } from "../content/notice.js";
import type { Drawer } from "../drawer/drawer.js";
import { actNotices } from "../messages/en/acts.js";
import type { Copied } from "./desktop.js";

/** Copies that are left alone, because of the program or the window that they were made in; each of those is told once. */
export class NeverFrom {
  readonly #told = new Set<string>();

  /**
   * What is told instead of collecting a copy; nothing when it may be collected.
   * @param drawer the drawer into which it would go, whose rule `neverFrom` holds
   */
  async refusal(drawer: Drawer, { origin }: Copied): Promise<readonly Notice[] | undefined> {
    const { neverFrom } = await drawer.rules();
    if (neverFrom === "") return undefined;
    const where = `${origin.app ?? ""}\n${origin.title ?? ""}`.toLowerCase();
    const name = neverFrom.split(", ").find((each) => where.includes(each.toLowerCase()));
    if (name === undefined) return undefined;
    if (this.#told.has(name)) return [];
    this.#told.add(name);
    return [notice(actNotices, "not-from", { name })];
  }
}
