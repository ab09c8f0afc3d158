import { DrawerError } from "../../content/error.js";
import { refusalFor } from "../binding/actions.js";
import type { Binding } from "../binding/binding.js";
import { BINDING_EVENTS } from "../binding/events.js";
import type { Composer } from "./composer.js";
import type { DrawerHost } from "./drawer-host.js";
import { isHotkey } from "./keys.js";
import { ListViewModel } from "./list-view-model.js";
import type { SnippetList } from "./list.js";
import type { Panels } from "./panels/panels.js";

/** What the element does for the binding that it shows: it shows its drawer, tells its events, and listens to its keys. */
export class Following {
  /** What of the drawer is in sight. */
  viewModel: ListViewModel | undefined;
  /** The names of the drawers that there are. */
  drawers: readonly string[] = [];
  #unsubscribe: (() => void)[] = [];

  constructor(
    readonly host: DrawerHost,
    readonly list: SnippetList,
    readonly composer: Composer,
    readonly panels: Panels,
  ) {}

  /** Shows a binding's drawer, in place of the one before. */
  begin(binding: Binding | undefined): void {
    this.close();
    if (!binding) return;
    const { host } = this;
    this.viewModel = new ListViewModel(
      binding.drawer,
      () => this.list.viewport,
      () => this.composer.sightChanged(),
    );
    this.composer.follow(this.viewModel);
    const keys = new AbortController();
    const listen = (root: Document) =>
      root.addEventListener("keydown", this.#pressed, { signal: keys.signal });
    binding.documents.forEach(listen);
    this.#unsubscribe = [
      binding.use(host),
      () => keys.abort(),
      binding.on("document", ({ detail }) => listen(detail.document)),
      binding.drawer.watch(() => void host.read()),
      binding.on("notice", ({ detail }) => host.report(detail)),
      binding.on("moved", () => void this.composer.compose()),
      binding.on("opened", () => this.begin(binding)),
      this.#followFiles(binding),
      ...BINDING_EVENTS.map((name) => binding.on(name, (event) => this.#dispatch(name, event))),
    ];
    void host.read();
    void this.readDrawers();
    void this.#reporting(() => host.arrangement.follow(binding.drawer.store));
  }

  /** Follows what becomes of snippets in their files. Returns what stops it. */
  #followFiles(binding: Binding): () => void {
    if (!binding.options.desktop?.files) return () => undefined;
    const { standings } = this.host;
    const look = () => void this.#reporting(() => this.panels.lookAgain());
    const read = () => {
      look();
      void this.#reporting(() => standings.read());
    };
    const stops = [
      binding.drawer.watch(() => standings.isAny && read()),
      // What was undone may be something that was done to a file.
      binding.on("notice", look),
      () => window.removeEventListener("focus", read),
    ];
    window.addEventListener("focus", read);
    read();
    return () => stops.forEach((stop) => stop());
  }

  /** Lets go of the binding, and of what is in sight. */
  close(): void {
    this.end();
    this.viewModel?.close();
  }

  /** Lets go of the binding; what is in sight stays. */
  end(): void {
    for (const unsubscribe of this.#unsubscribe.splice(0)) unsubscribe();
  }

  /** Reads which drawers there are: when one is opened, and when the user is about to choose one. */
  async readDrawers(): Promise<void> {
    await this.#reporting(async () => {
      const drawers = await this.viewModel!.drawer.store.drawers();
      this.drawers = drawers.map(({ drawer: name }) => name);
      this.host.requestUpdate();
    });
  }

  /** Reads the drawer again, and brings into sight what has come, or what is to have the focus. */
  read(): Promise<void> {
    return this.#reporting(async () => {
      const { host, composer, panels } = this;
      const viewModel = this.viewModel!;
      const before = viewModel.count;
      const isFollowed = this.list.viewport.isAtEnd;
      if (!(await viewModel.read({ gone: panels.open === "gone" }))) return;
      await panels.read(viewModel.drawer);
      if (viewModel !== this.viewModel) return;
      if (viewModel.picked.length === 0 && composer.which === "picked") composer.which = "all";
      void composer.compose();
      await host.updateComplete;
      await this.list.afterRead({ before, after: viewModel.count, isFollowed });
    });
  }

  /** Reads something for what is shown. Where that cannot be read, it is told, and what is in sight stays. */
  async #reporting(read: () => Promise<void>): Promise<void> {
    try {
      await read();
    } catch (error) {
      this.host.report({ notices: [], error: refusalFor(error) });
      if (!(error instanceof DrawerError)) throw error;
    }
  }

  /** Dispatches an event of the binding as one of the element's own. */
  #dispatch(name: string, event: CustomEvent<unknown>): void {
    const { detail, cancelable } = event;
    const own = new CustomEvent(`drawer-${name}`, { detail, cancelable, bubbles: true, composed: true });
    if (!this.host.dispatchEvent(own)) event.preventDefault();
  }

  readonly #pressed = (event: KeyboardEvent): void => {
    const { host } = this;
    const isPressed = (key: string) => key !== "" && !event.defaultPrevented && isHotkey(event, key);
    if (isPressed(host.hotkey)) host.focus();
    else if (isPressed(host.sendkey)) host.send();
    else return;
    event.preventDefault();
  };
}
