import type { Block } from "../../compose/block.js";
import type { Notice } from "../../content/notice.js";

/**
 * The desktop around a page that has no places of its own to put into, as the window that stands beside one's programs:
 * blocks go onto its clipboard, and are pasted wherever the user is.
 */
export interface HostDesktop {
  /**
   * Puts a block on the clipboard in every form that other programs take.
   * @param isPrivate whether anything in it is private
   */
  copy(block: Block, isPrivate: boolean): Promise<readonly Notice[]>;
  /**
   * Hands out the deal of a drawer on the clipboard, or what is next of it now.
   * @returns whether each paste brings the next by itself
   */
  deal(drawer: string): Promise<{ readonly tellsPastes: boolean }>;
  /** Takes what is dealt off the clipboard. */
  endDeal(): Promise<void>;
  /** Says where what is copied on the desktop is to go: to which drawer, and whether onto its latest snippet. */
  collectInto(drawer: string, appends: boolean): Promise<void>;
}
