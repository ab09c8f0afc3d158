import * as v from "valibot";
import { KINDS } from "../../content/kind.js";
import type { Origin } from "../../content/origin.js";
import type { Method } from "./wire.js";

/** What may be asked of a store from afar: the arguments of each of its methods, checked before the store hears of them. */

const text = v.string();
const texts = v.array(text);
const count = v.number();

const kind = v.picklist(KINDS);

/** All that an origin may say: what is forgotten here does not compile. */
export const originFields: { readonly [Name in keyof Required<Origin>]: v.GenericSchema } = {
  ...{ document: v.optional(text), at: v.optional(text), title: v.optional(text) },
  ...{ address: v.optional(text), app: v.optional(text), path: v.optional(text) },
};

const entry: v.GenericSchema = v.strictObject({
  ...{ id: text, drawer: text, order: text, kind, text, content: text, pictures: v.optional(texts) },
  ...{ bytes: count, label: v.optional(text), kept: v.boolean(), private: v.boolean() },
  privateAge: v.optional(v.nullable(v.number())),
  origin: v.strictObject(originFields),
  collectedAt: text,
  parts: v.optional(v.array(v.lazy(() => entry))),
});

const change = v.strictObject({
  ...{ id: text, drawer: text, at: text, operation: text },
  ...{ undoneOperation: v.optional(text), groupId: v.optional(text), part: v.optional(count) },
  edits: v.array(v.strictObject({ id: text, before: v.nullable(entry), after: v.nullable(entry) })),
  values: v.optional(
    v.array(v.strictObject({ name: text, before: v.optional(text), after: v.optional(text) })),
  ),
});

const bytes = v.instance(Uint8Array);

/** The arguments of each method. */
const QUESTIONS: Readonly<Record<Method, v.GenericSchema>> = {
  entries: v.tuple([
    v.strictObject({
      ...{ drawer: text, kind: v.optional(kind), document: v.optional(text), kept: v.optional(v.boolean()) },
      ...{ content: v.optional(text), ids: v.optional(texts), offset: v.optional(count) },
      ...{ limit: v.optional(count), last: v.optional(count) },
    }),
  ]),
  size: v.tuple([text]),
  drawers: v.tuple([]),
  oldest: v.tuple([
    v.strictObject({
      ...{ drawer: text, picture: v.optional(v.boolean()), cameBefore: v.optional(v.number()), limit: count },
    }),
  ]),
  find: v.tuple([
    v.strictObject({
      ...{ drawer: text, terms: texts, kind: v.optional(kind), document: v.optional(text), limit: count },
    }),
  ]),
  positions: v.tuple([v.array(entry)]),
  gone: v.tuple([text]),
  privateEntries: v.tuple([]),
  contents: v.tuple([texts]),
  commit: v.tuple([v.array(v.strictObject({ change, contents: v.map(text, bytes) }))]),
  revert: v.tuple([change, v.picklist(["undo", "redo"])]),
  changes: v.tuple([
    v.strictObject({
      ...{ drawer: v.optional(text), about: v.optional(texts) },
      ...{ offset: v.optional(count), limit: v.optional(count) },
    }),
  ]),
  forget: v.tuple([
    v.strictObject({
      ...{ drawer: text, ids: v.optional(texts), until: v.optional(text) },
      everything: v.optional(v.boolean()),
    }),
  ]),
  value: v.tuple([text, text]),
  valueNames: v.tuple([text, text]),
  setValue: v.tuple([text, text, v.optional(text), v.optional(text)]),
};

/** Whether these are arguments that a method takes. */
export function isQuestion(name: Method, args: readonly unknown[]): boolean {
  return v.is(QUESTIONS[name], args);
}
