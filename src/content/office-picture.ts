import type { Picture } from "./model.js";

type PictureFacts = Pick<Picture, "mediaType" | "width" | "height">;

/** How many pixels of a screen an inch has. */
const INCH = 96;
/** The sizes that the header of a bitmap has ([MS-WMF] 2.2.2.3 and 2.2.2.9; BITMAPINFOHEADER and those after it). */
const BITMAP_HEADERS = [12, 40, 52, 56, 64, 108, 124];
/** How many entries of a TIFF are looked through for its size. */
const MOST_ENTRIES = 1000;

/** Tells the pictures of office programs from their bytes: BMP, TIFF (6.0), EMF ([MS-EMF]) and WMF ([MS-WMF]); nothing for others. */
export function readOfficePicture(bytes: Uint8Array, view: DataView): PictureFacts | undefined {
  if (bytes.length < 26) return undefined;
  const first = view.getUint32(0, true);
  if (bytes[0] === 0x42 && bytes[1] === 0x4d && BITMAP_HEADERS.includes(view.getUint32(14, true)))
    return bitmap(view);
  if (first === 0x002a4949 || first === 0x2a004d4d) return tiff(view, first === 0x002a4949);
  if (first === 1 && bytes.length >= 88 && view.getUint32(40, true) === 0x464d4520) return emf(view);
  if (first === 0x9ac6cdd7) return placeableWmf(view);
  // A metafile in memory, with a header of nine words, of version 1.0 or 3.0 ([MS-WMF] 2.3.2.2).
  const isWmf = first === 0x00090001 && [0x100, 0x300].includes(view.getUint16(4, true));
  return isWmf ? { mediaType: "image/wmf" } : undefined;
}

function bitmap(view: DataView): PictureFacts {
  const isOld = view.getUint32(14, true) === 12;
  const [width, height] = isOld
    ? [view.getUint16(18, true), view.getUint16(20, true)]
    : [view.getInt32(18, true), view.getInt32(22, true)];
  // One that is drawn from the top has a negative height.
  return sized("image/bmp", width, Math.abs(height));
}

/** The size stands in the first directory (TIFF 6.0, section 2). */
function tiff(view: DataView, isLittle: boolean): PictureFacts {
  const at = view.getUint32(4, isLittle);
  let [width, height] = [0, 0];
  if (at + 2 <= view.byteLength) {
    const entries = Math.min(view.getUint16(at, isLittle), MOST_ENTRIES);
    for (let entry = at + 2; entry < at + 2 + entries * 12 && entry + 12 <= view.byteLength; entry += 12) {
      const isShort = view.getUint16(entry + 2, isLittle) === 3;
      const value = isShort ? view.getUint16(entry + 8, isLittle) : view.getUint32(entry + 8, isLittle);
      const tag = view.getUint16(entry, isLittle);
      if (tag === 256) width = value;
      if (tag === 257) height = value;
    }
  }
  return sized("image/tiff", width, height);
}

/** Its frame is in hundredths of a millimetre ([MS-EMF] 2.2.9). */
function emf(view: DataView): PictureFacts {
  const [left, top, right, bottom] = [24, 28, 32, 36].map((at) => view.getInt32(at, true)) as Four;
  const pixels = (length: number) => Math.round((length / 2540) * INCH);
  return sized("image/emf", pixels(right - left), pixels(bottom - top));
}

/** Its box is in units, of which it says how many an inch has ([MS-WMF] 2.3.2.3). */
function placeableWmf(view: DataView): PictureFacts {
  const [left, top, right, bottom] = [6, 8, 10, 12].map((at) => view.getInt16(at, true)) as Four;
  const pixels = (length: number) => Math.round((length / view.getUint16(14, true)) * INCH);
  return sized("image/wmf", pixels(right - left), pixels(bottom - top));
}

type Four = [number, number, number, number];

/** A picture with its size, where that is one. */
function sized(mediaType: PictureFacts["mediaType"], width: number, height: number): PictureFacts {
  const isSize = [width, height].every((length) => length > 0 && length <= 1_000_000);
  return isSize ? { mediaType, width, height } : { mediaType };
}
