import { DrawerError } from "../../content/error.js";
import { contentErrors } from "../../messages/en/content.js";
import type { Format } from "../format.js";

/** A picture: PNG, JPEG, GIF, WebP, BMP, TIFF, EMF, WMF, or an SVG that only draws. */
export const picture: Format = {
  extensions: ["png", "jpg", "jpeg", "gif", "webp", "svg", "bmp", "tiff", "tif", "emf", "wmf"],
  mediaType: "image/*",
  isBinary: true,
  holds: "picture",
  async read(bytes, file) {
    const { readPicture } = await import("./read.js");
    const reading = readPicture(bytes, file.replace(/\.[^.]+$/, ""));
    if (reading.content.length === 0) throw new DrawerError(contentErrors, "unreadable/picture", { file });
    return reading;
  },
};
