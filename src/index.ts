/**
 * Drawer: content, composing, and the drawer itself, with a store in memory. Runs anywhere; loads neither a database
 * nor a document parser.
 */
export type { CodeOf, ErrorData, ErrorReason, NoticeData, NoticeReason } from "./messages/core/sentence.js";
export { setLanguage, type Language, type SomeSentences } from "./messages/core/language.js";
export * from "./content/model.js";
export { safeLink, type Address } from "./content/address.js";
export { runsText, sameMarks } from "./content/runs.js";
export * from "./content/error.js";
export * from "./content/notice.js";
export { beginning } from "./content/beginning.js";
export { type Kind, kindOf } from "./content/kind.js";
export { columnsOf, placeCells } from "./content/spans.js";
export { eachFlow, isBlank, picturesOf } from "./content/traverse.js";
export { decodeContent, encodeContent, hashBytes, type Hash } from "./content/encode.js";
export { LIMITS } from "./content/limits.js";
export type { Declaration, HtmlTreeAdapter, StyleRule } from "./formats/html/tree-adapter.js";
export { readHtml, type HtmlReadOptions } from "./formats/html/read.js";
export { readMarkdown } from "./formats/markdown/read.js";
export { readText } from "./formats/text/read.js";
export { readDelimited, type DelimitedOptions } from "./formats/delimited/read.js";
export { readFlavours, type Flavours } from "./formats/flavours.js";
export { readPicture } from "./formats/picture/read.js";
export { writeText } from "./formats/text/write.js";
export { writeHtml, type HtmlOptions } from "./formats/html/write.js";
export type { MarkdownOptions } from "./formats/markdown/options.js";
export { writeMarkdown } from "./formats/markdown/write.js";
export {
  writeDelimited,
  type Delimited,
  type DelimitedWriteOptions,
  type Separator,
} from "./formats/delimited/write.js";
export { compose } from "./compose/compose.js";
export type { Piece } from "./compose/layout.js";
export {
  FORMATS,
  findReadFormat,
  findWrittenFormat,
  formatOf,
  formatOfName,
  READ_FORMATS,
  WRITTEN_FORMATS,
  type FormatName,
} from "./formats/registry.js";
export type { Format, ReadDocument, ReadFile, WriteInput, WriteResult } from "./formats/format.js";
export { Block } from "./compose/block.js";
export {
  BETWEENS,
  CITATIONS,
  FITS,
  HEADERS,
  STYLES,
  TIDYINGS,
  type Citation,
  type Fit,
  type HeaderChoice,
  type StyleName,
  type Tidying,
} from "./compose/options.js";
export { LAYOUTS, type LayoutName } from "./compose/layouts/index.js";
export { layoutName, recipeFor } from "./compose/check-recipe.js";
export { type Recipe } from "./compose/recipe.js";
export { Drawer, type FindOptions, type Found, type ListQuery } from "./drawer/drawer.js";
export type { Incoming } from "./drawer/incoming.js";
export type { Snippet } from "./drawer/selection.js";
export type { PositionedGone } from "./drawer/gone.js";
export type { Collected } from "./drawer/operations/collect.js";
export type { DealOptions, Dealt, DealReceiver, DealStatus } from "./drawer/operations/deal.js";
export type { Exported } from "./drawer/operations/export.js";
export type { ImportOptions } from "./drawer/drawer-file.js";
export type { Context, Operation, Plan, Procedure, Transaction } from "./drawer/transaction.js";
export { DEFAULT_RULES, type Rules } from "./drawer/model/rules.js";
export { describeRules, parseRule, type RuleText } from "./drawer/rule-text.js";
export { DRAWER_FILE_SCHEMA } from "./drawer/drawer-file-schema.js";
export { MASK } from "./drawer/mask.js";
export { looksSecret, type SecretKind } from "./drawer/secret.js";
export { fold } from "./content/fold.js";
export { contextOf, searchTerms, type FoundContext } from "./drawer/find.js";
export type { Entry, Origin } from "./drawer/model/entry.js";
export {
  isLeaving,
  type Change,
  type Edit,
  type OperationName,
  type ValueEdit,
} from "./drawer/model/change.js";
export { parsePick, parsePlace, pickOf, type Place, type Position, type Term } from "./drawer/model/pick.js";
export {
  Conflict,
  type ChangeQuery,
  type Commit,
  type DrawerSize,
  type EntryQuery,
  type FindQuery,
  type Forgetting,
  type Gone,
  type OldestQuery,
  type Positioned,
  type Reverted,
  type Secret,
  type Store,
} from "./drawer/store.js";
export { MemoryStore } from "./stores/memory.js";
