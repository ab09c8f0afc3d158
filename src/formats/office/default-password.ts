import { cbc, ecb } from "@noble/ciphers/aes.js";
import { sha1 } from "@noble/hashes/legacy.js";
import { sha256, sha384, sha512 } from "@noble/hashes/sha2.js";
import { concatBytes } from "@noble/hashes/utils.js";
import { find, read } from "cfb";
import { fromBase64 } from "../../content/base64.js";
import { attributeOf, descendantsOf, parseXml, type Element } from "./xml.js";

/** What a workbook is encrypted with that is only protected against changes: it opens without a question ([MS-OFFCRYPTO] 2.3). */
const DEFAULT_PASSWORD = Uint8Array.from([..."VelvetSweatshop"].flatMap((sign) => [sign.charCodeAt(0), 0]));
/** How often a password may be hashed. Those who write files hash it 50,000 to 100,000 times. */
const MOST_HASHINGS = 1_000_000;
/** How often standard encryption hashes a password. */
const STANDARD_HASHINGS = 50_000;
/** How many bytes of an agile package are encrypted together. */
const SEGMENT = 4096;
/** What is hashed with a password for the key of one thing ([MS-OFFCRYPTO] 2.3.4.13). */
const KEY_OF = {
  verifier: Uint8Array.of(0xfe, 0xa7, 0xd2, 0x76, 0x3b, 0x4b, 0x9e, 0x79),
  verifierHash: Uint8Array.of(0xd7, 0xaa, 0x0f, 0x6d, 0x30, 0x61, 0x34, 0x4e),
  packageKey: Uint8Array.of(0x14, 0x6e, 0x0b, 0xe7, 0xab, 0xac, 0xd0, 0xd6),
};
const HASHES = new Map([
  ["SHA1", sha1],
  ["SHA-1", sha1],
  ["SHA256", sha256],
  ["SHA384", sha384],
  ["SHA512", sha512],
]);
type Hash = (bytes: Uint8Array) => Uint8Array;

/**
 * The zip file in an encrypted package that needs no password, since it is encrypted with the default one; nothing when it
 * needs one. Agile and standard encryption by AES ([MS-OFFCRYPTO] 2.3.4).
 *
 * @param compoundFile the whole file
 * @param file its name, for messages
 * @throws what stands in the way of reading it, when it is damaged
 */
export function openWithDefaultPassword(compoundFile: Uint8Array, file: string): Uint8Array | undefined {
  const container = read(compoundFile, { type: "array" });
  const stream = (name: string) => Uint8Array.from((find(container, name)?.content ?? []) as number[]);
  const info = stream("/EncryptionInfo");
  const sealed = stream("/EncryptedPackage");
  const isAgile = info[0] === 4 && info[2] === 4;
  const opened = isAgile ? openAgile(info, sealed.subarray(8), file) : openStandard(info, sealed.subarray(8));
  return opened?.subarray(0, Number(viewOf(sealed).getBigUint64(0, true)));
}

/** Agile encryption: an XML says how, and the package is encrypted in segments. */
function openAgile(info: Uint8Array, sealed: Uint8Array, file: string): Uint8Array | undefined {
  const root = parseXml(new TextDecoder().decode(info.subarray(8)), file);
  const [byPassword] = descendantsOf(root, "encryptedKey");
  const [ofPackage] = descendantsOf(root, "keyData");
  const known = aesOf(byPassword);
  const packed = aesOf(ofPackage);
  const hashings = Number(attributeOf(byPassword, "spinCount"));
  if (!known || !packed || !(hashings <= MOST_HASHINGS)) return undefined;
  const hashed = hashPassword(known.hash, known.salt, hashings);
  const decrypted = (attribute: string, of: Uint8Array) => {
    const key = fit(known.hash(concatBytes(hashed, of)), known.keyBytes);
    return cbcOpen(key, fit(known.salt, known.blockSize), bytesOf(byPassword, attribute));
  };
  const verifier = decrypted("encryptedVerifierHashInput", KEY_OF.verifier);
  const expected = decrypted("encryptedVerifierHashValue", KEY_OF.verifierHash);
  if (!isSame(known.hash(verifier.subarray(0, known.salt.length)), expected)) return undefined;
  const key = decrypted("encryptedKeyValue", KEY_OF.packageKey).subarray(0, packed.keyBytes);
  const opened = new Uint8Array(sealed.length);
  for (let at = 0; at < sealed.length; at += SEGMENT) {
    const iv = fit(packed.hash(concatBytes(packed.salt, littleEndian(at / SEGMENT))), packed.blockSize);
    opened.set(cbcOpen(key, iv, sealed.subarray(at, at + SEGMENT)), at);
  }
  return opened;
}

/** How one thing in an agile package is encrypted; nothing when it is not by AES in chained blocks. */
function aesOf(element: Element | undefined) {
  const hash = HASHES.get(attributeOf(element, "hashAlgorithm") ?? "");
  const isAes =
    attributeOf(element, "cipherAlgorithm") === "AES" &&
    attributeOf(element, "cipherChaining") === "ChainingModeCBC";
  if (!hash || !isAes) return undefined;
  const [keyBytes, blockSize] = [
    Number(attributeOf(element, "keyBits")) / 8,
    Number(attributeOf(element, "blockSize")),
  ];
  return { hash, keyBytes, blockSize, salt: bytesOf(element, "saltValue") };
}

/** Standard encryption: one key by AES, block by block ([MS-OFFCRYPTO] 2.3.4.5 to 2.3.4.9). */
function openStandard(info: Uint8Array, sealed: Uint8Array): Uint8Array | undefined {
  const view = viewOf(info);
  const keyBytes = view.getUint32(28, true) / 8;
  const verifierAt = 12 + view.getUint32(8, true);
  const salt = info.subarray(verifierAt + 4, verifierAt + 20);
  const hashed = sha1(concatBytes(hashPassword(sha1, salt, STANDARD_HASHINGS), littleEndian(0)));
  const derived = [0x36, 0x5c].map((pad) =>
    sha1(Uint8Array.from({ length: 64 }, (_, at) => pad ^ (hashed[at] ?? 0))),
  );
  const cipher = ecb(concatBytes(...derived).subarray(0, keyBytes), { disablePadding: true });
  const verifier = cipher.decrypt(info.slice(verifierAt + 20, verifierAt + 36));
  const expected = cipher.decrypt(info.slice(verifierAt + 40, verifierAt + 72));
  if (!isSame(sha1(verifier), expected)) return undefined;
  return cipher.decrypt(wholeBlocks(sealed));
}

function hashPassword(hash: Hash, salt: Uint8Array, times: number): Uint8Array {
  let hashed = hash(concatBytes(salt, DEFAULT_PASSWORD));
  const counted = new Uint8Array(4 + hashed.length);
  const counter = viewOf(counted);
  for (let time = 0; time < times; time++) {
    counter.setUint32(0, time, true);
    counted.set(hashed, 4);
    hashed = hash(counted);
  }
  return hashed;
}

function cbcOpen(key: Uint8Array, iv: Uint8Array, sealed: Uint8Array): Uint8Array {
  return cbc(key, iv, { disablePadding: true }).decrypt(wholeBlocks(sealed));
}

/** AES takes blocks of 16 bytes; of a copy, which begins where its memory begins. */
function wholeBlocks(bytes: Uint8Array): Uint8Array {
  return bytes.slice(0, bytes.length - (bytes.length % 16));
}

/** So many bytes: cut, or filled up ([MS-OFFCRYPTO] 2.3.4.11). */
function fit(bytes: Uint8Array, length: number): Uint8Array {
  const fitted = new Uint8Array(length).fill(0x36);
  fitted.set(bytes.subarray(0, length));
  return fitted;
}

/** Whether bytes begin with a hash; what is decrypted may have some that fill its last block. */
function isSame(hash: Uint8Array, decrypted: Uint8Array): boolean {
  return hash.every((byte, at) => byte === decrypted[at]);
}

function bytesOf(element: Element | undefined, attribute: string): Uint8Array {
  return fromBase64(attributeOf(element, attribute) ?? "") ?? new Uint8Array();
}

function littleEndian(count: number): Uint8Array {
  const bytes = new Uint8Array(4);
  viewOf(bytes).setUint32(0, count, true);
  return bytes;
}

function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}
