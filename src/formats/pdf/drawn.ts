import { encode } from "fast-png";
import type { PDFPageProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import type { Box, PictureOnPage } from "./page-facts.js";

type Pdfjs = typeof import("pdfjs-dist/legacy/build/pdf.mjs");
type Matrix = readonly [number, number, number, number, number, number];

/** Pictures with more pixels than this are left out. */
const PIXELS = 50_000_000;
/** Boxes as thin as this are lines, in points. */
const THIN = 3;
/** Lines shorter than this are parts of drawings, in points. */
const SHORT = 4;
/** Smaller pictures are dots and shades, in points. */
const DOT = 6;
/** More lines than this are a drawing, or a file that is made to be slow. */
const RULES = 20_000;

/** What is drawn on a page besides its text. */
export interface Drawn {
  readonly rules: readonly Box[];
  readonly pictures: readonly PictureOnPage[];
  readonly leftOut: number;
}

/**
 * Follows the operators of a page (ISO 32000-1, annex A) as far as they draw lines and pictures.
 * @param start how the page is turned and moved to be shown
 */
export async function drawnOn(pdfjs: Pdfjs, page: PDFPageProxy, start: readonly number[]): Promise<Drawn> {
  const { OPS } = pdfjs;
  const { fnArray, argsArray } = await page.getOperatorList();
  const rules: Box[] = [];
  const pictures: PictureOnPage[] = [];
  let leftOut = 0;
  let matrix = start as Matrix;
  const saved: Matrix[] = [];
  const marks: (string | undefined)[] = [];
  const strokes = new Set<number>([OPS.stroke, OPS.closeStroke]);
  const fills = new Set<number>([OPS.fill, OPS.eoFill]);
  const both = new Set<number>([
    ...[OPS.fillStroke, OPS.eoFillStroke, OPS.closeFillStroke, OPS.closeEOFillStroke],
  ]);
  const addPicture = async (named: () => unknown) => {
    const box = boxOf(matrix, [0, 0, 1, 1]);
    if (box.right - box.left < DOT || box.bottom - box.top < DOT) return;
    const png = pngOf(await named());
    const mark = marks.findLast((each) => each !== undefined);
    if (png) pictures.push({ ...box, png, ...(mark !== undefined && { mark }) });
    else leftOut++;
  };
  for (const [index, operator] of fnArray.entries()) {
    const args = argsArray[index] as unknown[];
    switch (operator) {
      case OPS.save:
        saved.push(matrix);
        break;
      case OPS.restore:
      case OPS.paintFormXObjectEnd:
        matrix = saved.pop() ?? matrix;
        break;
      case OPS.paintFormXObjectBegin:
        saved.push(matrix);
        if (args[0]) matrix = times(matrix, args[0] as Matrix);
        break;
      case OPS.transform:
        matrix = times(matrix, args as unknown as Matrix);
        break;
      case OPS.beginMarkedContentProps:
        marks.push(contentId(args[1]));
        break;
      case OPS.beginMarkedContent:
        marks.push(undefined);
        break;
      case OPS.endMarkedContent:
        marks.pop();
        break;
      case OPS.constructPath: {
        const [painted, [path]] = args as [number, [ArrayLike<number> | null]];
        if (!path || rules.length > RULES) break;
        const isFilled = fills.has(painted) || both.has(painted);
        if (strokes.has(painted) || isFilled) addRules(rules, matrix, path, !isFilled);
        break;
      }
      case OPS.paintImageXObject:
        await addPicture(() => objectOf(page, args[0] as string));
        break;
      case OPS.paintInlineImageXObject:
        await addPicture(() => args[0]);
        break;
    }
  }
  return { rules, pictures, leftOut };
}

function contentId(properties: unknown): string | undefined {
  const id = (properties as { id?: unknown } | null)?.id;
  return typeof id === "string" ? id : undefined;
}

/** An object of a page, which may come after its operators; nothing when it could not be read. */
function objectOf(page: PDFPageProxy, name: string): Promise<unknown> {
  const objects = name.startsWith("g_") ? page.commonObjs : page.objs;
  return new Promise((settle) => void objects.get(name, settle));
}

/** Adds the straight lines of a path that run across or down; of a filled path those that are thin boxes, or sides of boxes. */
function addRules(rules: Box[], matrix: Matrix, path: ArrayLike<number>, isStroked: boolean): void {
  let [from, start]: [number[], number[]] = [
    [0, 0],
    [0, 0],
  ];
  const points: number[][] = [];
  const line = (to: number[]) => {
    if (isStroked) add(from, to);
    points.push(to);
    from = to;
  };
  const add = (one: readonly number[], other: readonly number[]) => {
    const box = boxOf(matrix, [one[0]!, one[1]!, other[0]!, other[1]!]);
    const [wide, high] = [box.right - box.left, box.bottom - box.top];
    if (Math.min(wide, high) <= THIN && Math.max(wide, high) >= SHORT) rules.push(box);
  };
  const close = () => {
    if (isStroked || points.length < 4) return;
    // A filled box: a line when it is thin, or four sides.
    const [xs, ys] = [points.map(([x]) => x!), points.map(([, y]) => y!)];
    const [left, right] = [Math.min(...xs), Math.max(...xs)];
    const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
    const isBox = points.every(([x, y]) => (x === left || x === right) && (y === top || y === bottom));
    if (!isBox) return;
    const box = boxOf(matrix, [left, top, right, bottom]);
    if (Math.min(box.right - box.left, box.bottom - box.top) <= THIN)
      add([left, top] as const, [right, bottom] as const);
  };
  for (let at = 0; at < path.length;) {
    const operator = path[at++]!;
    const point = (offset: number) => [path[at + offset]!, path[at + offset + 1]!];
    // How paths are packed: 0 moves, 1 draws a line, 2 a curve of three points, 3 one of two, 4 closes.
    if (operator === 0) {
      close();
      points.length = 0;
      from = start = point(0);
      points.push(from);
      at += 2;
    } else if (operator === 1) {
      line(point(0));
      at += 2;
    } else if (operator === 2 || operator === 3) {
      points.length = 0;
      from = point(operator === 2 ? 4 : 2);
      at += operator === 2 ? 6 : 4;
    } else {
      line(start);
    }
  }
  close();
}

/** One matrix after another. */
function times([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix {
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

/** The box around a rectangle, where a matrix brings it. */
export function boxOf(
  matrix: readonly number[],
  [x1, y1, x2, y2]: readonly [number, number, number, number],
): Box {
  const [a, b, c, d, e, f] = matrix as Matrix;
  const xs = [x1, x2].flatMap((x) => [y1, y2].map((y) => a * x + c * y + e));
  const ys = [x1, x2].flatMap((x) => [y1, y2].map((y) => b * x + d * y + f));
  return {
    ...{ left: Math.min(...xs), top: Math.min(...ys) },
    ...{ right: Math.max(...xs), bottom: Math.max(...ys) },
  };
}

/** How pictures come: a bit a pixel, three bytes a pixel, or four (`ImageKind`). */
const BIT = 1;
const RGB = 2;

/** A picture as PNG; nothing for one that could not be read, or is too large. */
function pngOf(image: unknown): Uint8Array | undefined {
  const { width, height, kind, data } = (image ?? {}) as {
    width?: number;
    height?: number;
    kind?: number;
    data?: Uint8Array;
  };
  if (!width || !height || !data || width * height > PIXELS) return undefined;
  if (kind === BIT) return encode({ width, height, channels: 1, depth: 1, data });
  return encode({ width, height, channels: kind === RGB ? 3 : 4, depth: 8, data });
}
