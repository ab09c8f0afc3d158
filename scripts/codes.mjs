// Makes docs/codes.md: every code of errors and notices, with what it means and its sentences, from src/messages/en.
// `node scripts/codes.mjs --check` only tells whether the page is as it should be.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import ts from "typescript";

const PAGE = "docs/codes.md";

/** The reasons of some catalogues of sentences in a file: each with its code, its doc comment and what its sentences say. */
function reasonsOf(file, isWanted) {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const found = [];
  source.forEachChild((node) => {
    if (!ts.isVariableStatement(node)) return;
    for (const { name, initializer } of node.declarationList.declarations) {
      if (!isWanted(name.getText()) || !initializer || !ts.isObjectLiteralExpression(initializer)) continue;
      for (const property of initializer.properties) {
        const reason = property.name.text;
        const [comment] = ts.getJSDocCommentsAndTags(property);
        if (!comment) throw new Error(`${file}: the reason “${reason}” has no doc comment.`);
        found.push({
          reason,
          code: reason.split("/")[0],
          means: String(comment.comment),
          says: sentencesIn(property),
        });
      }
    }
  });
  return found;
}

/** The reasons of all rooms' catalogues of a kind: `Errors` or `Notices`. */
function reasonsIn(kind) {
  return readdirSync("src/messages/en").flatMap((file) =>
    reasonsOf(`src/messages/en/${file}`, (name) => name.endsWith(kind)),
  );
}

/** The literal sentences of a function that makes them; what is filled in is `…`. */
function sentencesIn(node) {
  const sentences = [];
  const visit = (child) => {
    if (ts.isTemplateExpression(child)) {
      const text = child.head.text + child.templateSpans.map(({ literal }) => `…${literal.text}`).join("");
      if (/\s/.test(text.trim()) && /[.?!:]$/.test(text.trim())) sentences.push(text.trim());
    } else if (ts.isStringLiteral(child) || ts.isNoSubstitutionTemplateLiteral(child)) {
      if (/\s.*[.]$/s.test(child.text)) sentences.push(child.text);
    } else child.forEachChild(visit);
  };
  node.forEachChild(visit);
  return [...new Set(sentences)];
}

function section(title, about, reasons) {
  const codes = [...new Set(reasons.map(({ code }) => code))].sort();
  const lines = [`## ${title}`, "", about, ""];
  for (const code of codes) {
    lines.push(`### \`${code}\``, "");
    for (const { reason, means, says } of reasons.filter((one) => one.code === code)) {
      const shown = says.map((text) => `*${text.replace(/\s+/g, " ")}*`).join(" · ");
      lines.push(`- \`${reason}\`: ${means}${shown === "" ? "" : ` ${shown}`}`);
    }
    lines.push("");
  }
  return lines;
}

const page = [
  "# Codes",
  "",
  "Errors and notices carry a code, which is stable and meant for programs; a reason, which says which sentence they are",
  "told by; and the plain data that the sentence is made from. In a sentence, `…` stands for what is filled in. This page",
  "is made from the sentences themselves (`node scripts/codes.mjs`).",
  "",
  ...section(
    "Errors",
    "A `DrawerError` is thrown when something is refused; nothing has changed then. Its sentence says what is wrong, where, and the way out.",
    reasonsIn("Errors"),
  ),
  ...section(
    "Refusals of the command line",
    "These are about what was typed. With `bad-pick`, `bad-spot` and `bad-option` the exit code is 2, otherwise 1.",
    reasonsOf("src/messages/en/cli-answers.ts", (name) => name === "usage"),
  ),
  ...section(
    "Notices",
    "A notice is no error: something was done, or rightly not done.",
    reasonsIn("Notices"),
  ),
].join("\n");

if (!process.argv.includes("--check")) writeFileSync(PAGE, page);
else if (readFileSync(PAGE, "utf8") !== page) {
  console.error(`${PAGE} is stale: run node scripts/codes.mjs.`);
  process.exit(1);
}
