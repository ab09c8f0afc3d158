import { html, nothing } from "lit";
import type { Recipe } from "../../../compose/recipe.js";
import { notice, type Notice } from "../../../content/notice.js";
import type { LoggedAction } from "../../../drawer/action-log.js";
import type { Drawer } from "../../../drawer/drawer.js";
import { pickOf } from "../../../drawer/model/pick.js";
import { displayText, masked, type Snippet } from "../../../drawer/snippets.js";
import { aside, gone } from "../../../messages/core/panel-sentences.js";
import { pageNotices } from "../../../messages/en/page.js";
import type { ShownBlock } from "../../binding/blocks.js";
import type { ComputerSettings, DeviceInvitation } from "../../binding/host-desktop.js";
import { blocks, fileReaders, rewriting } from "../../binding/lazy.js";
import type { ReadFile } from "../../capture/read-files.js";
import type { FillPlan } from "../../places/form.js";
import type { DrawerHost } from "../drawer-host.js";
import type { ListRow } from "../row.js";
import { computerPanel, type Computer } from "./computer.js";
import { donePanel } from "./done.js";
import { fillPanel } from "./fill.js";
import { gonePanel } from "./gone.js";
import { keysPanel } from "./keys.js";
import { askLeave, panelName, type Panel } from "./names.js";
import type { LookedInto } from "./parts.js";
import { recipesPanel } from "./recipes.js";
import { rulesPanel } from "./rules.js";
import { setRules } from "./set-rules.js";
import { isEditable, snippetPanel, type SnippetPanelState } from "./snippet.js";
export { panelStyles } from "./panel-styles.js";

/** How many acts are shown of what was done. */
const MOST_ACTS = 100;

/** What stands beside the list, or over it, while one looks at it. It is loaded when the first panel is opened. */
export class PanelSide {
  #open: Panel | undefined;
  #recipes: ReadonlyMap<string, Recipe> = new Map();
  /** What was done and stands. */
  #acts: readonly LoggedAction[] = [];
  /** What a form would get. */
  #plan: FillPlan | undefined;
  /** What is set on this computer. */
  #computer: Computer | undefined;
  /** An invitation of another device, until the panel is closed. */
  #invitation: DeviceInvitation | undefined;
  /** Files that are looked into. */
  #looked: LookedInto | undefined;
  /** The snippet that is shown whole. */
  #shown: { readonly snippet: Snippet; readonly written: ShownBlock } | undefined;
  /** Whether its words are being changed. */
  #isEdited = false;
  #isTouched = false;

  /** @param isElsewhere tells whether the user is about to open another by now */
  constructor(
    readonly host: DrawerHost,
    readonly isElsewhere: () => boolean,
  ) {}

  /** Which is open. */
  get open(): Panel | undefined {
    return this.#open;
  }

  /** Shows the list alone again. */
  close(): void {
    if (this.#open === undefined || !this.#mayLeave()) return;
    this.#isEdited = false;
    this.#invitation = undefined;
    this.#open = undefined;
    this.host.requestUpdate();
  }

  /**
   * Opens a panel, and gives what is first in it the focus.
   * @param first a selector of that
   */
  async #show(panel: Panel, first: string): Promise<void> {
    this.#open = panel;
    this.host.requestUpdate();
    await this.host.updateComplete;
    // Who has gone on to something else stays there.
    if (this.isElsewhere()) return;
    const { renderRoot } = this.host;
    const focused = renderRoot.querySelector(first) ?? renderRoot.querySelector(".back button");
    (focused as HTMLElement | null)?.focus();
  }

  /** Reads what the open panel shows. */
  async read(drawer: Drawer): Promise<void> {
    if (this.#open === "recipes") {
      const names = await drawer.recipes();
      const kept = names.map(async (name) => [name, await drawer.recipe(name)] as const);
      this.#recipes = new Map(await Promise.all(kept));
    }
    if (this.#open === "done") this.#acts = (await drawer.actions(MOST_ACTS)).filter(({ stands }) => stands);
    if (this.#open === "computer")
      this.#computer = await this.host.binding!.options.desktop!.settings!.read();
  }

  /** Shows what the form where the user is would get of these snippets. */
  async planFill(pick: string): Promise<void> {
    await this.host.acting(async () => {
      this.#plan = await this.host.binding!.planFill(pick);
      await this.#show("fill", ".panel button");
      return [];
    });
  }

  /**
   * Looks into files: shows their parts, of which the user collects some. What has one part only is collected at once, and a
   * drawer file is brought in.
   */
  async lookInto(files: readonly File[]): Promise<void> {
    const isDrawer = ({ name }: File) => name.toLowerCase().endsWith(".drawer");
    for (const file of files.filter(isDrawer)) await this.#import(file);
    const others = files.filter((file) => !isDrawer(file));
    if (others.length === 0) return;
    await this.#lookInto(async () => (await fileReaders()).readFiles(others));
  }

  /** Shows the files that are looked into as they are now. */
  async lookAgain(): Promise<void> {
    if (this.#open === "parts") await this.#looked?.look();
  }

  /** Looks into the file that a snippet came from. */
  async lookIntoFileOf(id: string): Promise<void> {
    const { drawer, options } = this.host.binding!;
    await this.#lookInto(async () => {
      const { path, name, bytes } = await options.desktop!.files!.open(drawer.name, id);
      const { readSource } = await import("../../../files/source.js");
      return [{ path, bytes, source: await readSource(bytes, name) }];
    });
  }

  async #lookInto(read: () => Promise<readonly ReadFile[]>): Promise<void> {
    const { host } = this;
    await host.acting(async () => {
      const [files, { LookedInto }] = await Promise.all([read(), import("./parts.js")]);
      const looked = LookedInto.of(
        files,
        host,
        () => {
          host.requestUpdate();
          return host.updateComplete;
        },
        (sentence) => host.binding?.announce(sentence),
      );
      if (looked.isChoice) {
        this.#looked = looked;
        // What was said before is not about these files.
        host.report({ notices: [] });
        await this.#show("parts", ".panel :is(input, drawer-cell-grid)");
      } else void host.binding?.collectParts(looked.whole);
      return [];
    });
  }

  async #import(file: File): Promise<void> {
    const { host } = this;
    try {
      await host.binding?.importFile(file, (read, of) => host.showProgress("importing", read, of));
    } finally {
      host.showProgress(undefined);
    }
  }

  /** Whether words that are being changed may be left as they were. */
  #mayLeave(): boolean {
    return !this.#isEdited || !this.#isTouched || confirm(askLeave());
  }

  #setEdited(isEdited: boolean): void {
    this.#isTouched = false;
    this.#isEdited = isEdited;
    void this.#show("snippet", isEdited ? ".panel .edited" : ".panel.whole");
  }

  /** Opens one from the menu. */
  async openOf(panel: Panel): Promise<void> {
    this.#open = panel;
    await this.host.read();
    // Who has gone back, or on to another, meanwhile stays there.
    if (this.#open !== panel) return;
    await this.#show(panel, ".panel :is(button, input, select, [tabindex])");
    this.host.binding?.announce(this.#said);
  }

  /** Shows one snippet whole, as it is once what was asked for before is done; or has its words changed. */
  async show(row: ListRow, isEdited = false): Promise<void> {
    await this.host.acting(async (drawer) => {
      const [[snippet], { compose, shownOf }] = await Promise.all([drawer.snippets(pickOf([row])), blocks()]);
      this.#shown = { snippet: snippet!, written: shownOf(compose([masked(snippet!)], {})) };
      this.#isTouched = false;
      this.#isEdited = isEdited && isEditable(snippet!, this.#shown.written);
      await this.#show("snippet", this.#isEdited ? ".panel .edited" : ".panel.whole");
      this.host.binding?.announce(this.#said);
      return [];
    });
  }

  /** Puts the words of the snippet that is shown in place of what it says. */
  #rewrite(html: string): void {
    if (!this.#isTouched) return this.#setEdited(false);
    const { snippet } = this.#shown!;
    this.host.act(async (drawer) => {
      const { rewriteFromHtml } = await rewriting();
      const notices = await rewriteFromHtml(drawer, snippet, html);
      this.#isEdited = false;
      this.close();
      void this.host.focus();
      return notices;
    });
  }

  /** What is looked at beside the list, or over it, with the way back; nothing when nothing is. */
  view() {
    const panel = this.#view();
    if (panel === undefined) return nothing;
    const back = () => {
      this.close();
      void this.host.focus();
    };
    const key = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || event.defaultPrevented) return;
      event.stopPropagation();
      back();
    };
    return html`<div class="aside" @keydown=${key}>
      <p class="back"><button @click=${back}>${aside.back}</button><b>${this.#name}</b></p>
      ${panel}
    </div>`;
  }

  /** What is said aloud of the open panel: its name, and what the snippet says that it shows. */
  get #said(): string {
    const isShown = this.#open === "snippet" && this.#shown && !this.#isEdited;
    return isShown ? `${this.#name}: ${displayText(this.#shown!.snippet.entry)}` : this.#name;
  }

  /** What the open panel is called. */
  get #name(): string {
    if (this.#open === undefined) return "";
    return panelName(this.#open, this.#shown?.snippet.position ?? 0);
  }

  #view() {
    const { host } = this;
    const { viewModel, binding } = host;
    const leave = () => this.close();
    switch (this.#open) {
      case "rules":
        return viewModel?.rules
          ? rulesPanel(viewModel.rules, binding?.options.desktop !== undefined, (changes) =>
              host.act((drawer) => setRules(drawer, changes)),
            )
          : nothing;
      case "gone":
        return gonePanel(viewModel?.gone ?? [], {
          restore: (one) => host.act((drawer) => drawer.restore(pickOf([one]))),
          empty: () => host.act((drawer) => drawer.empty()),
          forget: () => this.#forget(),
        });
      case "done":
        return donePanel(this.#acts, (id) => host.act((drawer) => drawer.undoTo(id)));
      case "recipes":
        return recipesPanel(this.#recipes, {
          use: (recipe) => (host.recipe = recipe),
          remove: (name) => void this.#keepRecipes((drawer) => drawer.removeRecipe(name)),
          keep: (name) => void this.#keepRecipes((drawer) => drawer.saveRecipe(name, host.recipe), name),
        });
      case "computer": {
        const set = (change: (settings: ComputerSettings) => Promise<readonly Notice[]>) =>
          void this.#set(change);
        return this.#computer
          ? computerPanel(this.#computer, this.#invitation, {
              setKey: (key) => set((settings) => settings.setKey(key)),
              setStart: (place, isThere) => set((settings) => settings.setStart(place, isThere)),
              invite: (hub) =>
                set(async (settings) => {
                  this.#invitation = await settings.invite(hub);
                  return [];
                }),
              join: (invitation) => set((settings) => settings.join(invitation)),
            })
          : nothing;
      }
      case "keys":
        return keysPanel(host.hotkey, host.sendkey, binding?.options.desktop);
      case "fill":
        return this.#plan
          ? fillPanel(this.#plan, {
              fill: (fields) => {
                leave();
                void binding?.fill(fields);
              },
              leave,
            })
          : nothing;
      case "snippet":
        return this.#shown
          ? snippetPanel(this.#shown.snippet, this.#shown.written, {
              isEdited: this.#isEdited,
              edit: () => this.#setEdited(true),
              save: (written) => this.#rewrite(written),
              leave: () => this.#mayLeave() && this.#setEdited(false),
              touched: () => (this.#isTouched = true),
              ...this.#inFile(this.#shown.snippet),
            })
          : nothing;
      case "parts":
        return this.#looked?.view({
          collect: (parts) => {
            leave();
            void binding?.collectParts(parts);
          },
          leave,
        });
      case undefined:
        return undefined;
    }
  }

  /** What has become of a snippet in its file, and what can be done about it. */
  #inFile({ entry: { id, origin } }: Snippet): Pick<SnippetPanelState, "standing" | "file"> {
    const { host } = this;
    const { files } = host.binding?.options.desktop ?? {};
    const file = {
      refresh: () => {
        host.act((drawer) => files!.refresh(drawer.name, pickOf([{ entry: { id } }])));
        this.close();
        void host.focus();
      },
      lookInto: () => void this.lookIntoFileOf(id),
    };
    const isKnown = files !== undefined && origin.path !== undefined;
    return { standing: host.standings.of(id), file: isKnown ? file : undefined };
  }

  /** Sets something on this computer, and shows what holds then. */
  async #set(change: (settings: ComputerSettings) => Promise<readonly Notice[]>): Promise<void> {
    await this.host.acting(() => change(this.host.binding!.options.desktop!.settings!));
    await this.host.read();
  }

  async #keepRecipes(change: (drawer: Drawer) => Promise<unknown>, kept?: string): Promise<void> {
    await this.host.acting(async (drawer) => {
      await change(drawer);
      return kept === undefined ? [] : [notice(pageNotices, "recipe/kept", { name: kept })];
    });
    await this.host.read();
  }

  /** Forgets for good what is not kept, once the user has said so twice. */
  #forget(): void {
    if (confirm(gone.askForget)) this.host.act((drawer) => drawer.emptyForGood());
  }
}
