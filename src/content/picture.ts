import type { PictureType } from "./model.js";
import { readOfficePicture } from "./office-picture.js";
import { readSvg } from "./svg.js";

/** What a picture's own bytes say about it. */
export interface PictureFacts {
  readonly mediaType: PictureType;
  readonly width?: number;
  readonly height?: number;
}

/**
 * Tells a picture's type and its size in pixels from its bytes: PNG, JPEG, GIF, WebP, SVG, BMP,
 * TIFF, EMF and WMF. Nothing for bytes that
 * are none of these, whatever their name says, and for an SVG that holds anything but what only draws.
 */
export function readPictureBytes(bytes: Uint8Array): PictureFacts | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const ascii = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (bytes.length >= 24 && ascii(0, 8) === "\u0089PNG\r\n\u001a\n") {
    return { mediaType: "image/png", width: view.getUint32(16), height: view.getUint32(20) };
  }
  if (bytes.length >= 10 && /^GIF8[79]a$/.test(ascii(0, 6))) {
    return { mediaType: "image/gif", width: view.getUint16(6, true), height: view.getUint16(8, true) };
  }
  if (bytes.length >= 30 && ascii(0, 4) === "RIFF" && ascii(8, 12) === "WEBP")
    return webp(bytes, view, ascii(12, 16));
  if (bytes.length >= 4 && bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff)
    return jpeg(bytes, view);
  const office = readOfficePicture(bytes, view);
  if (office) return office;
  const svg = readSvg(bytes);
  return svg && { mediaType: "image/svg+xml", ...svg };
}

const NOT_DRAWN: ReadonlySet<PictureType> = new Set<PictureType>(["image/tiff", "image/emf", "image/wmf"]);

/** Whether browsers draw pictures of a type. */
export function isDrawn(type: PictureType): boolean {
  return !NOT_DRAWN.has(type);
}

function webp(bytes: Uint8Array, view: DataView, chunk: string): PictureFacts {
  const mediaType = "image/webp";
  if (chunk === "VP8X") {
    const three = (at: number) => view.getUint16(at, true) + (bytes[at + 2]! << 16) + 1;
    return { mediaType, width: three(24), height: three(27) };
  }
  if (chunk === "VP8L") {
    const bits = view.getUint32(21, true);
    return { mediaType, width: (bits & 0x3fff) + 1, height: ((bits >> 14) & 0x3fff) + 1 };
  }
  return { mediaType, width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
}

/** The size stands in the first frame header (SOF0 to SOF15, but for DHT, JPG and DAC). */
function jpeg(bytes: Uint8Array, view: DataView): PictureFacts {
  let at = 2;
  while (at + 9 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1]!;
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc) {
      return { mediaType: "image/jpeg", height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
    }
    at += 2 + view.getUint16(at + 2);
  }
  return { mediaType: "image/jpeg" };
}
