/** What is used of Trusted Types (W3C), which not every browser has. */
interface TrustedTypes {
  createPolicy(
    name: string,
    rules: { createHTML: (html: string) => string },
  ): { createHTML(html: string): string };
}

let policy: ReturnType<TrustedTypes["createPolicy"]> | undefined;

/**
 * HTML as a page with Trusted Types takes it, by the policy `drawer`: it is parsed into a document in which nothing runs, or was
 * written from content, which can hold no script.
 */
export function trustedHtml(html: string): string {
  const { trustedTypes } = globalThis as { trustedTypes?: TrustedTypes };
  if (!trustedTypes) return html;
  policy ??= trustedTypes.createPolicy("drawer", { createHTML: (given) => given });
  return policy.createHTML(html);
}
