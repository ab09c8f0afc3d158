// Draws the sketches of the sample data: small line drawings, as PNG.
import { deflateSync } from "node:zlib";
import { mkdirSync, writeFileSync } from "node:fs";

/** Draws polylines of 1.5-pixel ink on paper, and gives the picture as a PNG. */
function png(width, height, lines) {
  const grey = new Uint8Array(width * height).fill(250);
  const dot = (x, y) => {
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const [px, py] = [Math.round(x) + dx, Math.round(y) + dy];
        const ink = dx === 0 && dy === 0 ? 40 : 150;
        if (px >= 0 && py >= 0 && px < width && py < height)
          grey[py * width + px] = Math.min(grey[py * width + px], ink);
      }
    }
  };
  for (const line of lines) {
    for (let i = 1; i < line.length; i++) {
      const [[x0, y0], [x1, y1]] = [line[i - 1], line[i]];
      const steps = Math.max(1, Math.hypot(x1 - x0, y1 - y0) * 2);
      for (let s = 0; s <= steps; s++) dot(x0 + ((x1 - x0) * s) / steps, y0 + ((y1 - y0) * s) / steps);
    }
  }
  const raw = Buffer.alloc((width + 1) * height);
  for (let y = 0; y < height; y++)
    Buffer.from(grey.subarray(y * width, (y + 1) * width)).copy(raw, y * (width + 1) + 1);
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from("\x89PNG\r\n\x1a\n", "latin1"),
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(raw)),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

function chunk(type, data) {
  const body = Buffer.concat([Buffer.from(type), data]);
  const framed = Buffer.alloc(8);
  framed.writeUInt32BE(data.length, 0);
  framed.writeUInt32BE(crc(body), 4);
  return Buffer.concat([framed.subarray(0, 4), body, framed.subarray(4)]);
}

function crc(bytes) {
  let value = ~0;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return ~value >>> 0;
}

const curve = (from, to, f) => Array.from({ length: 40 }, (_, i) => from + ((to - from) * i) / 39).map(f);

mkdirSync("demo/sketches", { recursive: true });
writeFileSync(
  "demo/sketches/wheatear.png",
  png(240, 160, [
    curve(0, 2 * Math.PI, (t) => [120 + 48 * Math.cos(t), 80 + 26 * Math.sin(t)]),
    curve(0, 2 * Math.PI, (t) => [170 + 17 * Math.cos(t), 55 + 15 * Math.sin(t)]),
    [
      [186, 54],
      [204, 58],
      [186, 60],
    ],
    [
      [74, 86],
      [38, 100],
      [76, 94],
    ],
    [
      [112, 106],
      [112, 138],
      [104, 142],
    ],
    [
      [130, 106],
      [130, 138],
      [122, 142],
    ],
    curve(0, 2 * Math.PI, (t) => [174 + 2 * Math.cos(t), 52 + 2 * Math.sin(t)]),
    [
      [10, 142],
      [230, 142],
    ],
  ]),
);
writeFileSync(
  "demo/sketches/tide.png",
  png(240, 120, [
    curve(0, 220, (x) => [10 + x, 60 - 38 * Math.sin((x / 220) * 4 * Math.PI)]),
    [
      [10, 10],
      [10, 110],
      [230, 110],
    ],
  ]),
);
