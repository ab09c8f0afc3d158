import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import type { Content } from "./model.js";

/** SHA-256 of some bytes, in lower-case hexadecimal: the name under which they are stored. */
export type Hash = string;

/** Content as bytes: canonical JSON in UTF-8, so that equal content has equal bytes. */
export function encodeContent(content: Content): Uint8Array {
  return new TextEncoder().encode(canonicalJson(content));
}

/**
 * A plain value as JSON whose names stand in the order of the alphabet, whatever their order was (as RFC 8785 has it,
 * for names and values of ours). Names whose value is undefined are left out.
 */
export function canonicalJson(value: unknown): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value);
  if (Array.isArray(value)) {
    let json = "[";
    for (let at = 0; at < value.length; at++) json += (at > 0 ? "," : "") + canonicalJson(value[at]);
    return json + "]";
  }
  const named = value as Readonly<Record<string, unknown>>;
  let json = "{";
  for (const name of Object.keys(named).sort()) {
    if (named[name] === undefined) continue;
    json += `${json.length > 1 ? "," : ""}${JSON.stringify(name)}:${canonicalJson(named[name])}`;
  }
  return json + "}";
}

/** The content that {@link encodeContent} wrote. */
export function decodeContent(bytes: Uint8Array): Content {
  return JSON.parse(new TextDecoder().decode(bytes)) as Content;
}

/** The hash of some bytes. */
export function hashBytes(bytes: Uint8Array): Hash {
  return bytesToHex(sha256(bytes));
}
