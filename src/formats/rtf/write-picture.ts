import type { Picture, PictureType } from "../../content/model.js";
import { escapeText } from "./escape.js";

/** The widest a picture may stand, in points. */
const WIDEST = 450;
/** Points and twentieths of a point of a pixel. */
const PIXEL = { points: 0.75, twips: 15 };
/** How many bytes stand in a line. */
const LINE = 64;

/** What pictures are called that a file can hold (RTF 1.9.1, Pictures). */
const KINDS: Readonly<Partial<Record<PictureType, string>>> = {
  "image/png": "\\pngblip",
  "image/jpeg": "\\jpegblip",
  "image/emf": "\\emfblip",
  "image/wmf": "\\wmetafile8",
  "image/bmp": "\\dibitmap0",
};
/** How a WMF that stands in a file of its own begins, and how much of it is not of the picture ([MS-WMF] 2.3.2.3). */
const PLACEABLE = { head: [0xd7, 0xcd, 0xc6, 0x9a], bytes: 22 };
/** How much of a BMP is not of the bitmap. */
const BMP_HEAD = 14;

/** A picture as a group; nothing for one of a kind that a file cannot hold. */
export function pictureGroup(picture: Picture, bytes: Uint8Array): string | undefined {
  const kind = KINDS[picture.mediaType];
  if (kind === undefined) return undefined;
  const { width = 300, height = 200, alt } = picture;
  const scale = Math.min(1, WIDEST / (width * PIXEL.points));
  const [wide, high] = [width, height].map((pixels) => Math.round(pixels * PIXEL.twips * scale));
  const size = `\\picw${width}\\pich${height}\\picwgoal${wide}\\pichgoal${high}`;
  const described = alt === "" ? "" : `{\\*\\picprop{\\sp{\\sn wzDescription}{\\sv ${escapeText(alt)}}}}`;
  return `{\\*\\shppict{\\pict${described}${kind}${size}\n${hexOf(bare(picture.mediaType, bytes))}}}`;
}

/** A picture without what stands before it in a file of its own. */
function bare(type: PictureType, bytes: Uint8Array): Uint8Array {
  if (type === "image/bmp") return bytes.subarray(BMP_HEAD);
  const isPlaceable = type === "image/wmf" && PLACEABLE.head.every((byte, at) => bytes[at] === byte);
  return isPlaceable ? bytes.subarray(PLACEABLE.bytes) : bytes;
}

const HEX = Array.from({ length: 256 }, (_, byte) => byte.toString(16).padStart(2, "0"));

function hexOf(bytes: Uint8Array): string {
  const lines: string[] = [];
  for (let at = 0; at < bytes.length; at += LINE)
    lines.push(Array.from(bytes.subarray(at, at + LINE), (byte) => HEX[byte]).join(""));
  return lines.join("\n");
}
