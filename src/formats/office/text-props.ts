import type { Address } from "../../content/address.js";
import type { Marks } from "../../content/model.js";

/** How text looks by an office document's styles; what is not said is left to the style below. */
export interface TextProps {
  readonly bold?: boolean;
  readonly italic?: boolean;
  readonly underline?: boolean;
  readonly strike?: boolean;
  readonly code?: boolean;
  readonly script?: "sub" | "sup" | "none";
  readonly color?: string | "auto";
  readonly background?: string | "none";
  readonly font?: string;
  /** Points. */
  readonly size?: number;
  readonly hidden?: boolean;
}

/**
 * The marks of text that looks so, where plain text of that place looks like `base`: only what differs is formatting.
 */
export function marksFrom(props: TextProps, base: TextProps, link?: Address): Marks {
  const marks: { -readonly [Name in keyof Marks]: Marks[Name] } = {};
  const { script = "none", background = "none", color = "auto" } = props;
  if (props.bold && !base.bold) marks.bold = true;
  if (props.italic && !base.italic) marks.italic = true;
  if (props.underline && !base.underline) marks.underline = true;
  if (props.strike) marks.strike = true;
  if (props.code) marks.code = true;
  if (script !== "none") marks[script] = true;
  if (color !== "auto" && color !== base.color) marks.color = color;
  if (background !== "none") marks.background = background;
  if (props.font && props.font !== base.font && !props.code) marks.font = props.font;
  if (props.size && props.size !== base.size && script === "none" && !props.code) marks.size = props.size;
  if (link !== undefined) marks.link = link;
  return marks;
}
