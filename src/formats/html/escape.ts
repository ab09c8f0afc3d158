const ENTITIES: Readonly<Record<string, string>> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&#39;",
};

/** Makes text safe inside an element or a quoted attribute. */
export function escapeHtml(text: string): string {
  return /[&<>"']/.test(text) ? text.replace(/[&<>"']/g, (sign) => ENTITIES[sign]!) : text;
}
