/** What changes a drawer, and what tells what was changed. Who only looks at a drawer need not wait for it: it is loaded when it is first needed. */
export { latestActions } from "./action-log.js";
export { shownGoneFrom } from "./gone.js";
export { shownLogOf } from "./history.js";
export { checkRules } from "./model/rule-check.js";
export * as operations from "./operations/index.js";
export { applyRetention, leavingBy } from "./retention.js";
export { transact } from "./transaction.js";
