/**
 * What a page of a PDF says, before anybody has guessed what it means: pieces of text with their places, lines that are drawn, links,
 * pictures, and the structure that tags give. Lengths are points; places count from the left and the top of the page as it is shown.
 */
export interface PageFacts {
  readonly width: number;
  readonly height: number;
  /** In the order of the file. */
  readonly pieces: readonly PieceFacts[];
  /** Lines that run across or down, thin boxes and the sides of boxes among them. */
  readonly rules: readonly Box[];
  readonly links: readonly (Box & { readonly address: string })[];
  readonly pictures: readonly PictureOnPage[];
  /** Pictures that are too large to be taken. */
  readonly leftOut: number;
  /** The tags of the page, where the document has some (ISO 32000-1, 14.8). */
  readonly structure?: StructureNode;
}

/** A rectangle. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A picture of a page, as PNG. */
export interface PictureOnPage extends Box {
  readonly png: Uint8Array;
  /** The marked content that it stands in. */
  readonly mark?: string;
}

/** Text that one operator has shown, or several that follow each other. */
export interface PieceFacts {
  readonly text: string;
  /** Where its base line begins. */
  readonly x: number;
  readonly y: number;
  /** How far it runs along its base line. */
  readonly width: number;
  readonly size: number;
  /** The quarter turns clockwise by which its line is turned from running to the right. */
  readonly turns: 0 | 1 | 2 | 3;
  /** Whether its letters stand below each other. */
  readonly isVertical: boolean;
  readonly isRightToLeft: boolean;
  readonly isBold: boolean;
  readonly isItalic: boolean;
  readonly isMonospace: boolean;
  /** The marked content that it stands in. */
  readonly mark?: string;
  /** Whether tags say that it is no part of what the document says: heads, feet, numbers of pages. */
  readonly isArtifact: boolean;
}

/** An element of the structure that tags give, or a piece of marked content. */
export interface StructureNode {
  readonly role?: string;
  readonly children?: readonly StructureNode[];
  readonly type?: string;
  readonly id?: string;
  readonly alt?: string;
}

/** A title in the outline of a document, and how deep it stands; 1 is the highest. */
export interface OutlineTitle {
  readonly title: string;
  readonly level: number;
}

/** A document whose pages are given one by one. */
export interface PdfPages {
  readonly count: number;
  readonly title?: string;
  readonly outline: readonly OutlineTitle[];
  /**
   * A page by its number, counting from 1.
   * @throws DrawerError `unreadable`, `too-large`
   */
  page(number: number): PageFacts;
}
