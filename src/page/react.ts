import {
  createElement,
  useEffect,
  useRef,
  useState,
  type DetailedHTMLProps,
  type HTMLAttributes,
  type ReactElement,
  type Ref,
} from "react";
import type { Recipe } from "../compose/recipe.js";
import type { ListQuery } from "../drawer/drawer-reader.js";
import type { Drawer } from "../drawer/drawer.js";
import type { Positioned } from "../drawer/store.js";
import { Binding, type BindOptions } from "./binding/binding.js";
import { BINDING_EVENTS, type BindingEventMap } from "./binding/events.js";
import { openPageDrawer } from "./binding/page-drawer.js";
import { SnippetDrawer as SnippetDrawerElement } from "./element/snippet-drawer.js";

/** Drawer in React 19: a hook that binds the page, one that lists snippets, and the element as a component. */

/** Where the drawer is kept, or the drawer itself; and how the page is bound. These are read once. */
export interface UseDrawerOptions extends BindOptions {
  /** The name of a database of the browser's; `drawer` without it. */
  readonly database?: string;
  /** The name of the drawer in it; `main` without it. */
  readonly name?: string;
  /** A drawer that is open already, in place of both. */
  readonly drawer?: Drawer;
}

/**
 * Binds the page to a drawer for as long as the component is there. Nothing while it is being opened.
 * @param options the database and the drawer in it, and how the page is bound
 */
export function useDrawer(options: UseDrawerOptions = {}): Binding | undefined {
  const [binding, setBinding] = useState<Binding>();
  const given = useRef(options);
  useEffect(() => {
    const { drawer, database, name, ...bound } = given.current;
    let isGone = false;
    let made: Binding | undefined;
    const open = async () => {
      const opened =
        drawer ?? (await openPageDrawer({ ...(database && { database }), ...(name && { name }) }));
      if (isGone) return;
      made = new Binding(opened, bound);
      setBinding(made);
    };
    open().catch((error: unknown) =>
      // An error boundary shows it.
      setBinding(() => {
        throw error;
      }),
    );
    return () => {
      isGone = true;
      made?.unbind();
      setBinding(undefined);
    };
  }, []);
  return binding;
}

/**
 * The snippets of a binding's drawer that match, kept up to date; none while they are being read.
 * @param binding as `useDrawer` gives it
 * @param query which, and how many
 */
export function useSnippets(binding: Binding | undefined, query: ListQuery = {}): readonly Positioned[] {
  const [snippets, setSnippets] = useState<readonly Positioned[]>([]);
  const asked = JSON.stringify(query);
  useEffect(() => {
    if (!binding) return undefined;
    let isGone = false;
    const read = async () => {
      const listed = await binding.drawer.list(JSON.parse(asked) as ListQuery);
      if (!isGone) setSnippets(listed);
    };
    const tell = () => void read();
    tell();
    const stops = [binding.drawer.watch(tell), binding.on("opened", tell)];
    return () => {
      isGone = true;
      for (const stop of stops) stop();
    };
  }, [binding, asked]);
  return snippets;
}

/** The events of the element as the component's properties: `onPlaced` for `drawer-placed`. */
type EventProps = {
  readonly [Name in ElementEventName as `on${Capitalize<Name>}`]?: (
    event: CustomEvent<BindingEventMap[Name]>,
  ) => void;
};
type ElementEventName = (typeof BINDING_EVENTS)[number];

/** What the component takes: all that the element has, and what any element takes. */
export interface SnippetDrawerProps
  extends Omit<HTMLAttributes<SnippetDrawerElement>, "title" | keyof EventProps>, ElementProps, EventProps {
  readonly ref?: Ref<SnippetDrawerElement>;
}

/** `<snippet-drawer>` as a component. */
export function SnippetDrawer(props: SnippetDrawerProps): ReactElement {
  // React 19 listens to the event `drawer-placed` by the property `ondrawer-placed`.
  const listeners = new Map(
    BINDING_EVENTS.map((name) => [`on${name[0]!.toUpperCase()}${name.slice(1)}`, `ondrawer-${name}`]),
  );
  const given = Object.entries(props).map(([name, value]) => [listeners.get(name) ?? name, value]);
  return createElement("snippet-drawer", Object.fromEntries(given) as object);
}

/** The properties and attributes of the element. */
interface ElementProps {
  readonly binding?: Binding | undefined;
  /** The recipe that its sentence says. */
  readonly recipe?: Recipe;
  /** A database of the browser's in which it keeps what it holds; it makes its binding itself then. */
  readonly database?: string;
  /** Which drawer of that database. */
  readonly drawer?: string;
  readonly hotkey?: string;
  readonly sendkey?: string;
}

/** What `<snippet-drawer>` takes where it is written as an element. */
export type SnippetDrawerAttributes = DetailedHTMLProps<
  HTMLAttributes<SnippetDrawerElement>,
  SnippetDrawerElement
> &
  ElementProps;

declare module "react" {
  // eslint-disable-next-line @typescript-eslint/no-namespace
  namespace JSX {
    interface IntrinsicElements {
      "snippet-drawer": SnippetDrawerAttributes;
    }
  }
}
