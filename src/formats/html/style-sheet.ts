import { LIMITS } from "../../content/limits.js";
import type { Declaration, StyleRule } from "./tree-adapter.js";

/** What selector matching needs to know of an element; the path to it is the chain of its parents. */
export interface Selectable {
  readonly name: string;
  readonly classes: readonly string[];
  readonly id: string | undefined;
  readonly parent: Selectable | undefined;
}

interface Compound {
  readonly name: string | undefined;
  readonly classes: readonly string[];
  readonly id: string | undefined;
  /** Whether the next compound to the left must match the parent itself, not just any ancestor. */
  readonly child: boolean;
}

interface Rule {
  /** From right to left. */
  readonly compounds: readonly Compound[];
  readonly specificity: number;
  readonly declarations: readonly Declaration[];
}

/**
 * The style sheets of a payload, ready to be asked which declarations hold for an element. Understands element, class
 * and id selectors, descendants and children; rules with any other selector (attributes, pseudo-classes but `:link`)
 * do not match.
 */
export class StyleSheet {
  readonly #byKey = new Map<string, Rule[]>();
  readonly #order = new Map<Rule, number>();
  readonly #ordinary = new Map<string, readonly Declaration[]>();
  readonly #selects = new Set<string>();

  constructor(rules: readonly StyleRule[]) {
    for (const { selector, declarations } of rules.slice(0, LIMITS.rules)) {
      for (const part of selector.split(",")) {
        const compounds = parseSelector(part);
        if (!compounds) continue;
        const last = compounds[0]!;
        const rule: Rule = { compounds, declarations, specificity: specificity(compounds) };
        const key = last.id ? `#${last.id}` : last.classes[0] ? `.${last.classes[0]}` : (last.name ?? "*");
        const bucket = this.#byKey.get(key);
        if (bucket) bucket.push(rule);
        else this.#byKey.set(key, [rule]);
        this.#order.set(rule, this.#order.size);
        for (const { id, classes } of compounds) {
          if (id) this.#selects.add("id");
          if (classes.length > 0) this.#selects.add("class");
        }
      }
    }
  }

  /** Whether any rule asks for an attribute: `class` or `id`. */
  selectsBy(attribute: string): boolean {
    return this.#selects.has(attribute);
  }

  /** Whether there is any rule at all. */
  get isEmpty(): boolean {
    return this.#byKey.size === 0;
  }

  /**
   * What holds for every block of a name: a rule for the name alone, or for the class that office programs give to
   * ordinary paragraphs.
   */
  ordinary(name: string): readonly Declaration[] {
    let known = this.#ordinary.get(name);
    if (!known) {
      known = this.declarations({ name, classes: ["MsoNormal"], id: undefined, parent: undefined });
      this.#ordinary.set(name, known);
    }
    return known;
  }

  /** The declarations that hold for an element, the weakest first. */
  declarations(element: Selectable): readonly Declaration[] {
    const found: Rule[] = [];
    const keys = ["*", element.name, ...element.classes.map((name) => `.${name}`)];
    if (element.id) keys.push(`#${element.id}`);
    for (const key of keys) {
      for (const rule of this.#byKey.get(key) ?? []) if (matches(rule.compounds, element)) found.push(rule);
    }
    if (found.length === 0) return NO_DECLARATIONS;
    if (found.length === 1) return found[0]!.declarations;
    found.sort((a, b) => a.specificity - b.specificity || this.#order.get(a)! - this.#order.get(b)!);
    return found.flatMap((rule) => rule.declarations);
  }
}

const NO_DECLARATIONS: readonly Declaration[] = [];

function specificity(compounds: readonly Compound[]): number {
  let weight = 0;
  for (const { id, classes, name } of compounds) {
    weight += (id ? 1_000_000 : 0) + classes.length * 1000 + (name ? 1 : 0);
  }
  return weight;
}

function parseSelector(selector: string): Compound[] | undefined {
  const compounds: Compound[] = [];
  let child = false;
  for (const token of selector.replace(/>/g, " > ").trim().split(/\s+/)) {
    if (token === ">") {
      child = true;
      continue;
    }
    const match = /^(\*|[a-zA-Z][\w-]*)?((?:[.#][\w-]+)*)(:link)?$/.exec(token);
    if (!match || token === "") return undefined;
    const marks = match[2]!.match(/[.#][\w-]+/g) ?? [];
    compounds.unshift({
      name: match[1] && match[1] !== "*" ? match[1].toLowerCase() : undefined,
      classes: marks.filter((mark) => mark.startsWith(".")).map((mark) => mark.slice(1)),
      id: marks.find((mark) => mark.startsWith("#"))?.slice(1),
      child,
    });
    child = false;
  }
  return compounds.length > 0 && compounds.length <= 16 ? compounds : undefined;
}

function matches(compounds: readonly Compound[], element: Selectable): boolean {
  if (!matchesOne(compounds[0]!, element)) return false;
  let at = element.parent;
  for (let i = 1; i < compounds.length; i++) {
    const direct = compounds[i - 1]!.child;
    while (at && !direct && !matchesOne(compounds[i]!, at)) at = at.parent;
    if (!at || !matchesOne(compounds[i]!, at)) return false;
    at = at.parent;
  }
  return true;
}

function matchesOne(compound: Compound, element: Selectable): boolean {
  return (
    (!compound.name || compound.name === element.name) &&
    (!compound.id || compound.id === element.id) &&
    compound.classes.every((name) => element.classes.includes(name))
  );
}
