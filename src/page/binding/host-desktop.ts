import type { Block } from "../../compose/block.js";
import type { Notice } from "../../content/notice.js";
import type { ShownDevice } from "../../sync/group.js";
import type { HostFiles } from "./host-files.js";

/** A window of another program, as the place where a block would go. */
export interface DesktopTarget {
  /** What the desktop knows it by. */
  readonly id: number;
  /** What the user knows it by: what it shows, or its program. */
  readonly name: string;
  /** Whether each line that is put there runs: a terminal. */
  readonly isTerminal: boolean;
}

/** The keys that lead to the next field, row or cell, by their names in a chord. */
export const NEXT_KEYS = ["Tab", "Enter", "Down", "Right"] as const;
/** A key that leads to the next field, row or cell. */
export type NextKey = (typeof NEXT_KEYS)[number];

/** A block for the desktop. */
export interface DesktopBlock {
  readonly block: Block;
  /** Whether anything in it is private. */
  readonly isPrivate: boolean;
}

/** Where and how blocks are put at the caret of another program. */
export interface CaretPlace {
  /** The window: that of the target that was named to the user. */
  readonly target: number;
  /** Whether the user comes back from there. */
  readonly returns: boolean;
  /** What is pressed between one block and the next. */
  readonly between?: NextKey;
}

/** A key of the user's own, and what it does in every program, as on the command line: `place last --as quotes`. */
export interface OwnKey {
  readonly key: string;
  readonly act: string;
}

/** Where Drawer is started from: the system's menu, or by itself when the user logs in. */
export type StartPlace = "menu" | "login";

/** An invitation of another device. */
export interface DeviceInvitation {
  /** The address of the hub, and ten words. */
  readonly invitation: string;
  /** The code that a telephone's camera reads, as a picture: a `data:` address. */
  readonly code: string;
  /** Until when it is good; ISO 8601, in UTC. */
  readonly until: string;
}

/** What the user can set of Drawer on this computer. */
export interface ComputerSettings {
  /** What is set now. */
  read(): Promise<{
    readonly keys: readonly OwnKey[];
    readonly startsFrom: readonly StartPlace[];
    /** The devices with which the drawers are shared; none where they are on this one alone. */
    readonly devices: readonly ShownDevice[];
  }>;
  /**
   * Sets what a key does; takes it back with an empty act.
   * @throws DrawerError `bad-key`, `bad-option`, `bad-pick`
   */
  setKey(key: OwnKey): Promise<readonly Notice[]>;
  /**
   * Has Drawer started from there, or not any more.
   * @throws DrawerError `no-menu`
   */
  setStart(place: StartPlace, isThere: boolean): Promise<readonly Notice[]>;
  /**
   * Invites another device.
   * @param hub the address of the hub, where this is the first device
   * @throws DrawerError `bad-option`, `hub-away`, `hub-refused`
   */
  invite(hub?: string): Promise<DeviceInvitation>;
  /**
   * Joins the devices of a group.
   * @throws DrawerError `joined`, `invitation`, `bad-option`, `hub-away`, `hub-refused`
   */
  join(invitation: string): Promise<readonly Notice[]>;
}

/**
 * The desktop around a page that has no places of its own to put into, as the window that stands beside one's programs:
 * blocks go to the caret of the window that the user came from, where the desktop lets a program put them there, and else onto
 * its clipboard.
 */
export interface HostDesktop {
  /** The window that the user came from; nothing where they came from none, or nothing can be put there. */
  readonly target: DesktopTarget | undefined;
  /** Whether the desktop lets a program put something at the caret of another. */
  readonly reachesCarets: boolean;
  /** What the user can set on this computer; nothing where there is nothing to set. */
  readonly settings?: ComputerSettings;
  /** The user's files; nothing where they cannot be reached. */
  readonly files?: HostFiles;
  /**
   * Puts blocks at the caret of the window that the user came from, one after another.
   * @returns how many were taken there, or are believed to be, and what is told of it
   * @throws DrawerError `not-placed` when the first was not taken, or the user came from another window by now
   */
  placeAtCaret(
    blocks: readonly DesktopBlock[],
    place: CaretPlace,
  ): Promise<{ readonly taken: number; readonly isUnsure?: boolean; readonly notices: readonly Notice[] }>;
  /**
   * Has the program take back what was put there last.
   * @throws DrawerError `nothing` when something else was done there since
   */
  takeBack(place: Pick<CaretPlace, "target" | "returns">): Promise<void>;
  /** Puts a block on the clipboard in every form that other programs take. */
  copy(block: DesktopBlock): Promise<readonly Notice[]>;
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
