import { ed25519 } from "@noble/curves/ed25519.js";
import { scryptAsync } from "@noble/hashes/scrypt.js";

/** What costs most of all that is done with keys. */
export interface Primitives {
  /** Ed25519 (RFC 8032). */
  sign(secret: Uint8Array, bytes: Uint8Array): Uint8Array;
  verify(key: Uint8Array, bytes: Uint8Array, signature: Uint8Array): boolean;
  /** scrypt (RFC 7914), 32 bytes. */
  scrypt(words: string, salt: string, cost: { N: number; r: number; p: number }): Promise<Uint8Array>;
}

/** In JavaScript, audited: wherever Drawer runs. */
export const portable: Primitives = {
  sign: (secret, bytes) => ed25519.sign(bytes, secret),
  verify: (key, bytes, signature) => ed25519.verify(signature, bytes, key),
  scrypt: (words, salt, cost) => scryptAsync(words, salt, { ...cost, dkLen: 32 }),
};

type Crypto = typeof import("node:crypto");

/** Node's own, which take a tenth of the time. */
export function nodePrimitives({
  createPrivateKey,
  createPublicKey,
  sign,
  verify,
  scrypt,
}: Crypto): Primitives {
  // What stands before the bytes of a key in its DER form (RFC 8410).
  const [inPrivate, inPublic] = ["302e020100300506032b657004220420", "302a300506032b6570032100"];
  const der = (before: string, key: Uint8Array) => Buffer.concat([Buffer.from(before, "hex"), key]);
  // To read a key takes longer than to work with it, and there are few.
  const privateKey = remembered((secret) =>
    createPrivateKey({ key: der(inPrivate, secret), format: "der", type: "pkcs8" }),
  );
  const publicKey = remembered((key) =>
    createPublicKey({ key: der(inPublic, key), format: "der", type: "spki" }),
  );
  return {
    sign: (secret, bytes) => new Uint8Array(sign(null, bytes, privateKey(secret))),
    verify: (key, bytes, signature) => verify(null, bytes, publicKey(key), signature),
    scrypt: (words, salt, { N, r, p }) =>
      new Promise((settle, fail) =>
        scrypt(words, salt, 32, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
          error ? fail(error) : settle(new Uint8Array(key)),
        ),
      ),
  };
}

/** What is made of bytes, once for as long as they are there. */
function remembered<Value>(make: (bytes: Uint8Array) => Value): (bytes: Uint8Array) => Value {
  const made = new WeakMap<Uint8Array, { readonly value: Value }>();
  return (bytes) => {
    const known = made.get(bytes) ?? { value: make(bytes) };
    made.set(bytes, known);
    return known.value;
  };
}

const { process: node } = globalThis as { process?: { getBuiltinModule?(name: string): unknown } };
const own = node?.getBuiltinModule?.("node:crypto") as Crypto | undefined;

/** The fastest that there are here. */
export const primitives: Primitives = own ? nodePrimitives(own) : portable;
