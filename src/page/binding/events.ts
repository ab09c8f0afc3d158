import type { Block } from "../../compose/block.js";
import type { ActionResult } from "../../drawer/collecting-session.js";

/** What is told of something that is collected from the page. */
export interface CollectDetail {
  /** Where on the page it was copied; nothing when it was pasted or dropped into the drawer. */
  readonly element: Element | undefined;
}

/** What is told of a block that is placed. */
export interface PlaceDetail {
  /** The ids of the snippets that it is made of. */
  readonly ids: readonly string[];
  /** Where it goes. */
  readonly target: Element;
  readonly block: Block;
}

/** The events of a {@link Binding}, by their names, with what each tells in `detail`. */
export interface BindingEventMap {
  /** Something is about to be collected; `preventDefault` keeps it out. */
  readonly collecting: CollectDetail;
  /** Something was collected. */
  readonly collected: CollectDetail & { readonly ids: readonly string[] };
  /** A block is about to be placed; `preventDefault` keeps it from it. */
  readonly placing: PlaceDetail;
  /** A block was placed. */
  readonly placed: PlaceDetail;
  /** Another drawer is worked with. */
  readonly opened: { readonly name: string };
  /** An action was done, or refused. */
  readonly notice: ActionResult;
  /** The user is in another place, or what is known of the drawer has changed. */
  readonly moved: { readonly target: Element | undefined };
  /** A document is followed from now on: the page's own, or a frame's. */
  readonly document: { readonly document: Document };
}

/** The names of the events that a page may want to hear. */
export const BINDING_EVENTS = ["collecting", "collected", "placing", "placed", "opened", "notice"] as const;

/** What dispatches the events of a binding. */
export class BindingEvents extends EventTarget {
  /** @internal Dispatches an event. Returns whether nobody has prevented it. */
  emit<Name extends keyof BindingEventMap>(name: Name, detail: BindingEventMap[Name]): boolean {
    const cancelable = name === "collecting" || name === "placing";
    return this.dispatchEvent(new CustomEvent(name, { detail, cancelable }));
  }

  /** Listens to an event, with what it tells. Returns an unsubscribe function. */
  on<Name extends keyof BindingEventMap>(
    name: Name,
    listener: (event: CustomEvent<BindingEventMap[Name]>) => void,
  ): () => void {
    this.addEventListener(name, listener as EventListener);
    return () => this.removeEventListener(name, listener as EventListener);
  }
}
