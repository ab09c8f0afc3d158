import { makeCell, makeTable } from "../../content/make-table.js";
import type { Cell, Flow, Row } from "../../content/model.js";
import { placeOf, type Furniture } from "./furniture.js";
import { addGoingOn } from "./going-on.js";
import { gridsOf, piecesInGrid, type Grid, type GridCell } from "./grid.js";
import type { Box, PageFacts, PictureOnPage } from "./page-facts.js";
import { flowsOfRows, type Setting } from "./paragraphs.js";
import { framesOf, type Piece } from "./pieces.js";
import { blocksOf, type Atom, type Block, type Placed } from "./regions.js";
import { rowsOf, segmentsOf } from "./segments.js";
import { idsOf, taggedFlows } from "./tagged.js";

/** What a page has become. */
export interface PageFlows {
  readonly flows: readonly Flow[];
  /** How many lines were left out because other pages have them at the same place, or tags say that they are no text. */
  readonly furniture: number;
  readonly isScanned: boolean;
  /** Pictures that lie behind all of the page's text. */
  readonly backgrounds: number;
}

/** Tags that say less of a page's text than this are not followed. */
const TAGGED = 0.7;
/** A picture that covers more of a page than this is the page, or lies behind its text. */
const WHOLE = 0.75;

/**
 * Makes a page flows: as its tags say, or, where it has none, by how its text stands.
 * @param furniture its running heads and feet
 * @param pictureOf keeps a picture
 */
export function flowsOfPage(
  page: PageFacts,
  furniture: Furniture,
  setting: Setting,
  pictureOf: (picture: PictureOnPage, alt: string) => Flow,
): PageFlows {
  const isWhole = (box: Box) =>
    (box.right - box.left) * (box.bottom - box.top) > WHOLE * page.width * page.height;
  const hasText = page.pieces.some(({ text }) => text.trim() !== "");
  const behind = page.pictures.filter((picture) => hasText && isWhole(picture));
  const shown = page.pictures.filter((picture) => !behind.includes(picture));
  const facts = { isScanned: !hasText && shown.some(isWhole), backgrounds: behind.length };
  const tagged = taggedPage(page, shown, furniture.pieces, setting, pictureOf);
  if (tagged) return { ...facts, ...tagged };
  const frames = framesOf(page, page.pieces);
  const flows = frames.flatMap((frame, at) => {
    const pieces = at === 0 ? frame.filter((piece) => !furniture.pieces.has(placeOf(piece))) : frame;
    const [grids, pictures] = at === 0 ? [gridsOf(page.rules), shown] : [[], []];
    return untaggedFlows(pieces, grids, pictures, setting, pictureOf);
  });
  const alone = frames.length === 0 ? shown.map((picture) => pictureOf(picture, "")) : [];
  return { ...facts, flows: [...flows, ...alone], furniture: furniture.lines };
}

/** A page whose tags hold nearly all of its text. */
function taggedPage(
  page: PageFacts,
  shown: readonly PictureOnPage[],
  furniture: ReadonlySet<string>,
  { rejoined }: Setting,
  picture: (picture: PictureOnPage, alt: string) => Flow,
): Pick<PageFlows, "flows" | "furniture"> | undefined {
  const { structure } = page;
  if (!structure) return undefined;
  const ids = new Set(idsOf([structure]));
  const said = page.pieces.filter(({ isArtifact }) => !isArtifact);
  const length = (pieces: readonly { text: string }[]) =>
    pieces.reduce((sum, { text }) => sum + text.trim().length, 0);
  const inTags = said.filter(({ mark }) => mark !== undefined && ids.has(mark));
  if (length(said) === 0 || length(inTags) < TAGGED * length(said)) return undefined;
  const byMark = <Value extends { mark?: string }>(values: readonly Value[]) => {
    const map = new Map<string, Value[]>();
    for (const value of values)
      if (value.mark !== undefined) map.set(value.mark, [...(map.get(value.mark) ?? []), value]);
    return map;
  };
  const pictures = byMark(shown as (PictureOnPage & { mark?: string })[]);
  const flows = taggedFlows({
    ...{ structure, picture, rejoined, pictures },
    pieces: byMark(framesOf(page, said).flat()),
  });
  // Pictures and words that no tag names.
  const lost = shown
    .filter(({ mark }) => mark === undefined || !ids.has(mark))
    .map((each) => picture(each, ""));
  const untold = said.filter(({ mark }) => mark === undefined || !ids.has(mark));
  const [loose = []] = framesOf(page, untold);
  const words = loose.filter((piece) => !furniture.has(placeOf(piece)));
  const rest = untaggedFlows(words, [], [], inCell({ bodySize: 0, outline: [], rejoined }), picture);
  const artifacts = framesOf(
    page,
    page.pieces.filter(({ isArtifact }) => isArtifact),
  ).flat();
  const left = [...artifacts, ...loose.filter((piece) => furniture.has(placeOf(piece)))];
  return { flows: [...flows, ...rest, ...lost], furniture: rowsOf(segmentsOf(left)).length };
}

/** Text, tables that are drawn, and pictures of a page, by how they stand. */
function untaggedFlows(
  pieces: readonly Piece[],
  grids: readonly Grid[],
  pictures: readonly PictureOnPage[],
  setting: Setting,
  pictureOf: (picture: PictureOnPage, alt: string) => Flow,
): Flow[] {
  const atoms: Atom[] = [];
  let rest = [...pieces];
  for (const grid of grids) {
    const { inside, outside } = piecesInGrid(grid, rest);
    // Lines around nothing are a drawing, and those around one text a frame.
    if (inside.size < 2) continue;
    rest = outside;
    atoms.push(placed(grid, tableOf(grid, inside, setting)));
  }
  for (const picture of pictures) atoms.push(placed(picture, pictureOf(picture, "")));
  const flows: Flow[] = [];
  for (const block of blocksOf([...atoms, ...segmentsOf(rest)]))
    addGoingOn(flows, flowsOfBlock(block, setting), setting.rejoined);
  return flows;
}

function flowsOfBlock(block: Block, setting: Setting): Flow[] {
  switch (block.type) {
    case "placed":
      return [block.placed.flow];
    case "lines":
      return flowsOfRows(block.rows, block.within, setting);
    case "table": {
      const rows = block.rows.map((row) =>
        row.map((cell) =>
          makeCell(
            flowsOfRows(rowsOf(cell), cell.length > 0 ? widthOf(cell) : block.box, inCell(setting)),
            {},
          ),
        ),
      );
      return [makeTable(rows, 0)];
    }
  }
}

/** In a cell nothing is a heading. */
function inCell(setting: Setting): Setting {
  return { ...setting, bodySize: Infinity, outline: [] };
}

function widthOf(boxes: readonly Box[]): Pick<Box, "left" | "right"> {
  return {
    left: Math.min(...boxes.map(({ left }) => left)),
    right: Math.max(...boxes.map(({ right }) => right)),
  };
}

function placed(box: Box, flow: Flow): Placed {
  const { left, right, top, bottom } = box;
  return { left, right, top, bottom, y: bottom, size: 1, flow };
}

function tableOf(grid: Grid, inside: ReadonlyMap<GridCell, readonly Piece[]>, setting: Setting): Flow {
  const rows: Row[] = Array.from({ length: grid.rows }, (_, row) =>
    grid.cells
      .filter((cell) => cell.row === row)
      .map((cell): Cell => {
        const segments = segmentsOf(inside.get(cell) ?? []);
        const { rowspan, colspan } = cell;
        // Text keeps as far from one side of its cell as from the other.
        const room = Math.min(...segments.map(({ left }) => left)) - cell.left;
        const within = { left: cell.left + room, right: cell.right - room };
        return makeCell(flowsOfRows(rowsOf(segments), within, inCell(setting)), {
          ...(rowspan > 1 && { rowspan }),
          ...(colspan > 1 && { colspan }),
        });
      }),
  );
  return makeTable(rows, 0);
}
