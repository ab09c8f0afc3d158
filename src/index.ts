/**
 * Drawer: content, composing, and the drawer itself, with a store in memory. Runs anywhere; loads neither a database
 * nor a document parser.
 *
 * Those who write a format find the toolkit for content in `drawer/format`; those who write a store, in `drawer/engine`.
 */

// What is read and written.
export * from "./content/model.js";
export { safeLink, type Address } from "./content/address.js";
export { runsText } from "./content/runs.js";
export { kindOf, type Kind } from "./content/kind.js";
export { eachFlow, isBlank, picturesOf } from "./content/traverse.js";
export { LIMITS } from "./content/limits.js";
export type { Hash } from "./content/encode.js";
export type { Notice, NoticeCode, Reading } from "./content/notice.js";
export { DrawerError, type ErrorCode } from "./content/error.js";
export type { Flavours } from "./formats/flavours.js";
export { readFlavours } from "./formats/flavours.js";
export { readHtml, type HtmlReadOptions } from "./formats/html/read.js";
export { readMarkdown } from "./formats/markdown/read.js";
export { readText } from "./formats/text/read.js";
export { readDelimited, type DelimitedOptions } from "./formats/delimited/read.js";
export { readPicture } from "./formats/picture/read.js";
export { writeText } from "./formats/text/write.js";
export { writeHtml, type HtmlOptions } from "./formats/html/write.js";
export type { MarkdownOptions } from "./formats/markdown/options.js";
export { writeMarkdown } from "./formats/markdown/write.js";
export { writeDelimited, type Delimited, type DelimitedWriteOptions } from "./formats/delimited/write.js";
export type { Separator } from "./formats/delimited/separator.js";
export {
  findReadFormat,
  findWrittenFormat,
  formatOf,
  READ_FORMATS,
  WRITTEN_FORMATS,
  type FormatName,
} from "./formats/registry.js";
export type { WriteInput, WriteResult } from "./formats/format.js";

// Composing.
export { compose } from "./compose/compose.js";
export { Block } from "./compose/block.js";
export { recipeFor } from "./compose/check-recipe.js";
export { suggest, SUGGESTIONS, type Suggestion, type SuggestionName } from "./compose/suggest.js";
export type { Piece } from "./compose/layout.js";
export { LAYOUTS, type LayoutName } from "./compose/layouts/index.js";
export {
  BETWEENS,
  CITATIONS,
  FITS,
  STYLES,
  TIDYINGS,
  type Citation,
  type Fit,
  type HeaderChoice,
  type StyleName,
  type Tidying,
} from "./compose/options.js";
export type { Recipe } from "./compose/recipe.js";

// The drawer.
export { Drawer } from "./drawer/drawer.js";
export type { FindOptions, Found, ListQuery } from "./drawer/drawer-reader.js";
export type { Incoming } from "./drawer/incoming.js";
export type { Snippet } from "./drawer/snippets.js";
export type { PositionedGone } from "./drawer/gone.js";
export type { LoggedAction } from "./drawer/action-log.js";
export type { Collected } from "./drawer/operations/collect.js";
export type { DealOptions, Dealt, DealReceiver, DealStatus } from "./drawer/operations/deal.js";
export type { Exported } from "./drawer/operations/export.js";
export type { FileLines, ImportOptions } from "./drawer/drawer-file.js";
export { DRAWER_FILE_SCHEMA } from "./drawer/drawer-file-schema.js";
export { DEFAULT_RULES, type Rules } from "./drawer/model/rules.js";
export { describeRules, parseRule, type RuleText } from "./drawer/rule-text.js";
export { looksSecret, type SecretKind } from "./drawer/secret.js";
export { MASK } from "./drawer/mask.js";
export type { Entry, Origin } from "./drawer/model/entry.js";
export type { Change, Edit, OperationName, ValueEdit } from "./drawer/model/change.js";
export { parsePick, pickOf, type Position, type SnippetRef, type Term } from "./drawer/model/pick.js";
export type { Positioned, Store } from "./drawer/store.js";
export { MemoryStore } from "./stores/memory.js";
export { setLanguage, type Language, type SomeSentences } from "./messages/core/language.js";
