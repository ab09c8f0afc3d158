import { xchacha20poly1305 } from "@noble/ciphers/chacha.js";
import { ed25519, x25519 } from "@noble/curves/ed25519.js";
import { hkdf } from "@noble/hashes/hkdf.js";
import { hmac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { concatBytes, randomBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { primitives } from "./primitives.js";

/**
 * The few things that the protocol of `docs/security.md` does with keys: XChaCha20-Poly1305 seals, Ed25519 signs (RFC 8032), X25519
 * agrees (RFC 7748), HKDF derives (RFC 5869) and HMAC names (RFC 2104), both with SHA-256. Keys and seeds have 32 bytes.
 */

/** A secret of one's own, and what others know of it. */
export interface KeyPair {
  readonly secret: Uint8Array;
  readonly public: Uint8Array;
}

const KEY = 32;
const NONCE = 24;
/** What is sealed is no shorter than this, so that short texts look alike. */
const SHORTEST = 512;

/** 32 random bytes. */
export function newKey(): Uint8Array {
  return randomBytes(KEY);
}

/** A name for a key. */
export function newKeyId(): string {
  return encodeBytes(randomBytes(12));
}

/** A pair that signs, from its seed. */
export function signingPair(secret = newKey()): KeyPair {
  return { secret, public: ed25519.getPublicKey(secret) };
}

/** A pair that others seal to. */
export function sealingPair(secret = newKey()): KeyPair {
  return { secret, public: x25519.getPublicKey(secret) };
}

/** Signs bytes, said for a purpose. */
export function sign(secret: Uint8Array, purpose: string, bytes: Uint8Array): Uint8Array {
  return primitives.sign(secret, spoken(purpose, bytes));
}

/** Whether a signature is good. */
export function isSigned(
  key: Uint8Array,
  purpose: string,
  bytes: Uint8Array,
  signature: Uint8Array,
): boolean {
  if (key.length !== KEY || signature.length !== 2 * KEY) return false;
  try {
    return primitives.verify(key, spoken(purpose, bytes), signature);
  } catch {
    // A key or a signature that is no point of the curve signs nothing.
    return false;
  }
}

/** What is signed: the purpose, so that what was signed for one is good for no other, and the bytes. */
function spoken(purpose: string, bytes: Uint8Array): Uint8Array {
  return concatBytes(utf8ToBytes(`drawer ${purpose}\0`), bytes);
}

/** Seals bytes, padded, under a key; `place` is what they belong to, without which they do not open. */
export function seal(key: Uint8Array, place: Uint8Array, bytes: Uint8Array): Uint8Array {
  const nonce = randomBytes(NONCE);
  return concatBytes(nonce, xchacha20poly1305(key, nonce, place).encrypt(padded(bytes)));
}

/** What {@link seal} sealed; nothing when it was changed, or belongs elsewhere. */
export function open(key: Uint8Array, place: Uint8Array, sealed: Uint8Array): Uint8Array | undefined {
  if (sealed.length < NONCE) return undefined;
  try {
    const cipher = xchacha20poly1305(key, sealed.subarray(0, NONCE), place);
    return unpadded(cipher.decrypt(sealed.subarray(NONCE)));
  } catch {
    // Whatever was done to it, it is not what was sealed.
    return undefined;
  }
}

/** Seals bytes to somebody whose public key is known, by a pair that is used once. */
export function sealTo(key: Uint8Array, place: Uint8Array, bytes: Uint8Array): Uint8Array {
  const once = sealingPair();
  const shared = agreed(x25519.getSharedSecret(once.secret, key), once.public, key);
  return concatBytes(once.public, seal(shared, place, bytes));
}

/** What {@link sealTo} sealed to this pair; nothing when it is something else. */
export function openOwn(pair: KeyPair, place: Uint8Array, sealed: Uint8Array): Uint8Array | undefined {
  if (sealed.length < KEY) return undefined;
  const once = sealed.subarray(0, KEY);
  try {
    const shared = agreed(x25519.getSharedSecret(pair.secret, once), once, pair.public);
    return open(shared, place, sealed.subarray(KEY));
  } catch {
    // A key that agrees on nothing.
    return undefined;
  }
}

function agreed(shared: Uint8Array, once: Uint8Array, key: Uint8Array): Uint8Array {
  return hkdf(sha256, shared, concatBytes(once, key), utf8ToBytes("drawer sealed to a device"), KEY);
}

/** A name that says nothing to who has not the key: 128 bits, in base64url. */
export function keyedName(key: Uint8Array, sort: "slot" | "blob", name: string): string {
  return encodeBytes(hmac(sha256, key, utf8ToBytes(`${sort}\0${name}`)).subarray(0, 16));
}

/** A name that anybody can work out of bytes: 128 bits of their SHA-256, in base64url. */
export function nameOfBytes(bytes: Uint8Array): string {
  return encodeBytes(sha256(bytes).subarray(0, 16));
}

/** SHA-256. */
export function digest(bytes: Uint8Array): Uint8Array {
  return sha256(bytes);
}

/** Bytes as text (base64url, RFC 4648, section 5). */
export function encodeBytes(bytes: Uint8Array): string {
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text).replaceAll("+", "-").replaceAll("/", "_").replaceAll("=", "");
}

/** The bytes of such text. */
export function decodeBytes(text: string): Uint8Array {
  const binary = atob(text.replaceAll("-", "+").replaceAll("_", "/"));
  return Uint8Array.from(binary, (sign) => sign.charCodeAt(0));
}

/**
 * How long bytes are when they are padded: of their length only the first bits are kept, so that it tells little and costs an eighth at
 * most (Padmé, Nikitin and others, 2019).
 */
function paddedLength(length: number): number {
  if (length <= SHORTEST) return SHORTEST;
  const exponent = Math.floor(Math.log2(length));
  const step = 2 ** (exponent - Math.floor(Math.log2(exponent)) - 1);
  return Math.ceil(length / step) * step;
}

const LENGTH_BYTES = 4;

function padded(bytes: Uint8Array): Uint8Array {
  const whole = new Uint8Array(paddedLength(LENGTH_BYTES + bytes.length));
  new DataView(whole.buffer).setUint32(0, bytes.length);
  whole.set(bytes, LENGTH_BYTES);
  return whole;
}

function unpadded(whole: Uint8Array): Uint8Array | undefined {
  if (whole.length < LENGTH_BYTES) return undefined;
  const length = new DataView(whole.buffer, whole.byteOffset).getUint32(0);
  return length > whole.length - LENGTH_BYTES
    ? undefined
    : whole.subarray(LENGTH_BYTES, LENGTH_BYTES + length);
}
