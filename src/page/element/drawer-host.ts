import type { Recipe } from "../../compose/recipe.js";
import type { Notice } from "../../content/notice.js";
import type { ActionResult } from "../../drawer/collecting-session.js";
import type { Drawer } from "../../drawer/drawer.js";
import type { Binding } from "../binding/binding.js";
import type { FileStanding } from "../binding/host-files.js";
import type { Arrangement } from "./arrangement.js";
import type { ListViewModel } from "./list-view-model.js";
import type { ListRow } from "./row.js";

/** What may take long, and is shown until it is done. */
export type LongAct = "importing" | "exporting" | "copying" | "placing";

/** What the parts of `<snippet-drawer>` know of it: what it works with, what it does for them, and how they are drawn. */
export interface DrawerHost extends HTMLElement {
  readonly binding: Binding | undefined;
  /** What of the drawer is in sight. */
  readonly viewModel: ListViewModel | undefined;
  /** The recipe that the sentence says. */
  recipe: Recipe;
  /** The look that a lone snippet is placed in. */
  readonly styleOfOne: Recipe;
  /** How many snippets the sentence speaks of, and which. */
  readonly chosenCount: number;
  chosenPick(): Promise<string>;
  readonly hotkey: string;
  readonly sendkey: string;

  /** What has become of snippets in the files that they came from. */
  readonly standings: {
    of(id: string): FileStanding["type"] | undefined;
    readonly isAny: boolean;
    read(): Promise<void>;
  };
  /** How it is arranged. */
  readonly arrangement: Arrangement;
  /** Its shadow tree. */
  readonly renderRoot: HTMLElement | DocumentFragment;
  /** Settles when it is drawn. */
  readonly updateComplete: Promise<boolean>;
  /** Has it drawn again soon. */
  requestUpdate(): void;

  /** Does something in the drawer, and reports how it went. */
  act(action: (drawer: Drawer) => Promise<readonly Notice[]>): void;
  /** The same, and settles when it is done. */
  acting(action: (drawer: Drawer) => Promise<readonly Notice[]>): Promise<void>;
  /** Shows what was reported. */
  report(result: ActionResult): void;
  /** Shows how far something is that takes long; nothing when it is done. */
  showProgress(what: LongAct | undefined, done?: number, of?: number): void;
  /** Reads the drawer again. */
  read(): Promise<void>;

  /** Shows a snippet whole, with where it came from and when; or has its words changed there. */
  show(row: ListRow, isEdited?: boolean): void;
  /** Picks these snippets in place of those that were picked; with an empty pick, none. */
  pick(pick: string): Promise<void>;
  /** Lays the pieces out as they ask for. */
  takeSuggestion(): void;
  /** Has what is picked placed; all, when nothing is. */
  choosePicked(): void;
  /** Shows what the form where the user is would get. */
  planFill(): Promise<void>;
  send(): void;
  undo(): void;
  redo(): void;
  /** Gives the focus to the field to find in. */
  focusFind(): void;
  /** Goes back to where the user last wrote. */
  leave(): void;
}
