import { defined } from "../content/defined.js";
import type { Cell, CellValue, Flow, Marker, Marks, Picture, Run } from "../content/model.js";
import { NUMBER_FORMS } from "../content/number-forms.js";

/**
 * The lines of a drawer file as a JSON Schema (draft 2020-12): `$defs/header` for the first, `$defs/snippet` for the
 * others. It lets through what the content model can hold and nothing else.
 */
const ref = (name: string) => ({ $ref: `#/$defs/${name}` });
const list = (of: object) => ({ type: "array", items: of });
const text = { type: "string" };

/** The members that a type demands, and those that it allows, each with a schema: none forgotten, none too many. */
type Demanded<T> = { [Name in keyof T as object extends Pick<T, Name> ? never : Name]: object };
type Allowed<T> = { [Name in keyof T as object extends Pick<T, Name> ? Name : never]-?: object };
type Members<T> =
  object extends Allowed<T>
    ? [demanded: Demanded<Omit<T, "type">>, allowed?: Allowed<T>]
    : [demanded: Demanded<Omit<T, "type">>, allowed: Allowed<T>];

/** An object with these members and no others. */
function closed(
  properties: Record<string, object>,
  optional: Record<string, object> = {},
  description?: string,
): object {
  return {
    ...defined({ description }),
    type: "object",
    properties: { ...properties, ...optional },
    required: Object.keys(properties),
    additionalProperties: false,
  };
}

/** One of several types of content, told apart by `type`. */
function oneOfTypes<T extends { readonly type: string }>(types: {
  [Type in T["type"]]: Members<Extract<T, { type: Type }>>;
}): object {
  return {
    type: "object",
    required: ["type"],
    discriminator: { propertyName: "type" },
    oneOf: Object.entries<[object, object?]>(types).map(([type, [demanded, allowed]]) =>
      closed({ type: { const: type }, ...demanded }, { ...allowed }),
    ),
  };
}

const runs = list(ref("run"));
const flows = list(ref("flow"));
const count = (minimum: number) => ({ type: "integer", minimum, maximum: 1_000_000 });
const format = { type: "string", maxLength: 1000 };
const sides = {
  align: { enum: ["left", "center", "right", "justify"] },
  direction: { enum: ["ltr", "rtl"] },
};
const picture: Members<Picture> = [
  {
    hash: ref("hash"),
    mediaType: {
      enum: ["png", "jpeg", "gif", "webp", "svg+xml", "bmp", "tiff", "emf", "wmf"].map(
        (type) => `image/${type}`,
      ),
    },
    alt: text,
  },
  { width: count(0), height: count(0), link: ref("link") },
];
const snippetMembers: Record<string, object> = {
  origin: ref("origin"),
  collectedAt: { type: "string", pattern: "^\\d{4}-\\d\\d-\\d\\dT\\d\\d:\\d\\d:\\d\\d(\\.\\d+)?Z$" },
  content: flows,
};
/** What stands around the number of an item. */
const aside = { type: "string", maxLength: 40 };
const on = { const: true };

/** The schema. */
export const DRAWER_FILE_SCHEMA = {
  $schema: "https://json-schema.org/draft/2020-12/schema",
  title: "A line of a drawer file",
  oneOf: [ref("header"), ref("snippet")],
  $defs: {
    header: closed(
      {
        format: { const: "drawer-snippets" },
        version: { const: 1 },
        snippets: { type: "integer", minimum: 0 },
      },
      { drawer: text, exportedAt: text },
      "The first line: what the file is, and how many snippets follow.",
    ),
    snippet: closed(
      snippetMembers,
      {
        label: { type: "string", maxLength: 200 },
        kept: on,
        pictures: { type: "object", propertyNames: ref("hash"), additionalProperties: text },
        parts: list(ref("part")),
      },
      "A snippet. `pictures` holds the bytes of the pictures in it, in base64, by their hash; `parts` the snippets it was merged from.",
    ),
    part: closed(snippetMembers, {
      label: { type: "string", maxLength: 200 },
      kept: on,
      parts: list(ref("part")),
    }),
    origin: closed({}, { document: text, at: text, title: text, address: text, app: text }),
    hash: { description: "SHA-256, in lower-case hexadecimal.", type: "string", pattern: "^[0-9a-f]{64}$" },
    color: { type: "string", pattern: "^#[0-9a-f]{6}$" },
    flow: oneOfTypes<Flow>({
      paragraph: [{ runs }, sides],
      heading: [{ level: { type: "integer", minimum: 1, maximum: 6 }, runs }, sides],
      list: [
        { ordered: { type: "boolean" }, items: list(closed({ flows })) },
        { start: { type: "integer" }, marker: ref("marker") },
      ],
      table: [
        { headerRows: count(0), rows: list(list(ref("cell"))) },
        { caption: runs, widths: list({ type: "number", minimum: 0 }) },
      ],
      picture,
      quote: [{ flows }],
      code: [{ text }, { language: { type: "string", pattern: "^[\\p{L}\\p{N}+#._-]{1,60}$" } }],
      divider: [{}],
    }),
    marker: closed({}, {
      numbers: { enum: Object.keys(NUMBER_FORMS) },
      before: aside,
      after: aside,
      bullet: { type: "string", minLength: 1, maxLength: 4 },
    } satisfies Allowed<Marker>),
    cell: closed({ flows }, {
      colspan: count(1),
      rowspan: count(1),
      align: sides.align,
      background: ref("color"),
      value: oneOfTypes<CellValue>({
        number: [{ number: { type: "number" } }, { format }],
        date: [
          {
            date: {
              type: "string",
              pattern: "^\\d{4}-\\d\\d-\\d\\d(T\\d\\d:\\d\\d(:\\d\\d(\\.\\d+)?)?)?$",
            },
          },
          { format },
        ],
        boolean: [{ boolean: { type: "boolean" } }],
      }),
    } satisfies Allowed<Cell>),
    run: oneOfTypes<Run>({
      text: [{ text }, { marks: ref("marks") }],
      break: [{}],
      picture,
      note: [{ flows }],
    }),
    marks: closed({}, {
      bold: on,
      italic: on,
      underline: on,
      strike: on,
      code: on,
      sub: on,
      sup: on,
      color: ref("color"),
      background: ref("color"),
      font: { type: "string", pattern: "^[\\p{L}\\p{N}][\\p{L}\\p{N}\\p{M} ._+-]{0,79}$" },
      size: { description: "Points.", type: "number", minimum: 1, maximum: 1638 },
      link: ref("link"),
    } satisfies Allowed<Marks>),
    link: {
      type: "string",
      pattern:
        '^([Hh][Tt][Tt][Pp][Ss]?://[^/?#\\s]|[Mm][Aa][Ii][Ll][Tt][Oo]:|[Tt][Ee][Ll]:)[^\\u0000-\\u0020\\u007f<>"\\\\^`{|}]*$',
    },
  },
} as const;
