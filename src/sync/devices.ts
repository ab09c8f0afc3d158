import { concatBytes } from "@noble/hashes/utils.js";
import { wordlist } from "@scure/bip39/wordlists/english.js";
import { digest, nameOfBytes } from "./sealing.js";

/** A device of the group, as the others know it. */
export interface Device {
  /** The name of its signing key. */
  readonly id: string;
  /** What its user calls it. */
  readonly name: string;
  readonly signing: Uint8Array;
  readonly sealing: Uint8Array;
  /** The number of the last of its records that is heard, for one that was removed. */
  readonly removedAfter?: number;
}

/** The id of a device. */
export function deviceId(signing: Uint8Array): string {
  return nameOfBytes(signing);
}

/** Whether a device is one of the group. */
export function isMember({ removedAfter }: Device): boolean {
  return removedAfter === undefined;
}

/** Words are told apart by 11 bits each. */
const WORD_BITS = 11;

/** Bytes as words that can be read aloud. */
export function wordsOf(bytes: Uint8Array, count: number): string[] {
  let value = 0n;
  for (const byte of bytes) value = (value << 8n) | BigInt(byte);
  const spare = BigInt(bytes.length * 8 - count * WORD_BITS);
  value >>= spare;
  const words: string[] = [];
  for (let at = 0; at < count; at++) {
    words.unshift(wordlist[Number(value & 0x7ffn)]!);
    value >>= BigInt(WORD_BITS);
  }
  return words;
}

/** Whether a word is one that is read aloud. */
export function isWord(word: string): boolean {
  return wordlist.includes(word);
}

/** The words that begin like this one, for who has misheard it. */
export function wordsLike(word: string): string[] {
  return wordlist.filter((known) => known.slice(0, 4) === word.slice(0, 4));
}

/** Four words by which two people see that they speak of the same device in the same group. */
export function comparingWords(group: string, { signing, sealing }: Device): string {
  const bytes = digest(concatBytes(new TextEncoder().encode(group), signing, sealing));
  return wordsOf(bytes.subarray(0, 8), 4).join(" ");
}
