/**
 * An address that {@link safeLink} has let through. Its type is its own, so that content built by hand cannot hold an
 * address that nobody has checked; writers check again, for callers without types.
 */
export type Address = string & { readonly [checked]: true };
declare const checked: unique symbol;

/**
 * Returns the address, trimmed, when it is one that content may hold (http, https, mailto, tel), and otherwise
 * nothing. Control characters and spaces that browsers skip in a scheme are refused with it.
 * @param address as a document or a person has written it
 */
export function safeLink(address: string): Address | undefined {
  const trimmed = address.trim();
  if (
    !/^(https?:\/\/[^/?#\s]|mailto:|tel:)/i.test(trimmed) ||
    /[\u0000-\u0020\u007f<>"\\^`{|}]/.test(trimmed)
  ) {
    return encodeLoose(trimmed);
  }
  return trimmed as Address;
}

/** A safe address that people and programs wrote with spaces or brackets in it, made well-formed (RFC 3986). */
function encodeLoose(address: string): Address | undefined {
  if (!/^(https?:\/\/[^/?#\s]|mailto:|tel:)/i.test(address) || /[\u0000-\u001f\u007f]/.test(address))
    return undefined;
  return address.replace(/[\s<>"\\^`{|}]/g, (unsafe) => encodeURIComponent(unsafe)) as Address;
}
