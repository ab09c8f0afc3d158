import type { Address } from "../../content/address.js";
import { defined } from "../../content/defined.js";
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
  const { script = "none", background = "none", color = "auto" } = props;
  return {
    ...(props.bold && !base.bold && { bold: true }),
    ...(props.italic && !base.italic && { italic: true }),
    ...(props.underline && !base.underline && { underline: true }),
    ...(props.strike && { strike: true }),
    ...(props.code && { code: true }),
    ...(script !== "none" && { [script]: true }),
    ...(color !== "auto" && color !== base.color && { color }),
    ...(background !== "none" && { background }),
    ...(props.font && props.font !== base.font && !props.code && { font: props.font }),
    ...(props.size && props.size !== base.size && script === "none" && !props.code && { size: props.size }),
    ...defined({ link }),
  };
}
