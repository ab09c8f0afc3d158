/** Control characters but for tabs and line ends (C0, DEL and C1, ECMA-48): they show nothing, and may steer a terminal. */
const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/;
const EACH_CONTROL = new RegExp(CONTROLS.source, "g");

/** Whether there is a control character other than a tab or a line end in a text. */
export function hasControls(text: string): boolean {
  return CONTROLS.test(text);
}

/**
 * A name that a person gives, without spaces around it; nothing for one that is blank, longer than so many characters, or has control
 * characters, tabs or line ends in it.
 */
export function plainName(name: string, longest: number): string | undefined {
  const trimmed = name.trim();
  const isPlain =
    trimmed !== "" && trimmed.length <= longest && !hasControls(trimmed) && !/[\t\n]/.test(trimmed);
  return isPlain ? trimmed : undefined;
}

/** Text without control characters; those that part words or lines leave a space. */
export function withoutControls(text: string): string {
  if (!CONTROLS.test(text)) return text;
  return text.replace(EACH_CONTROL, (sign) => (/\s/.test(sign) ? " " : ""));
}
