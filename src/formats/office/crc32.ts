import { zlib } from "./node/zlib.js";

const CRC_TABLE = Int32Array.from({ length: 256 }, (_, byte) => {
  let value = byte;
  for (let bit = 0; bit < 8; bit++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  return value;
});

/**
 * The checksum by which a zip tells whether its files are whole (APPNOTE.TXT, 4.4.7).
 * @param before the checksum of the bytes that go before these
 */
export function crc32(bytes: Uint8Array, before = 0): number {
  if (zlib) return zlib.crc32(bytes, before);
  let crc = ~before;
  for (let at = 0; at < bytes.length; at++) crc = CRC_TABLE[(crc ^ bytes[at]!) & 0xff]! ^ (crc >>> 8);
  return ~crc >>> 0;
}
