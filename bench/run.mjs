// Performance, as ratios against a baseline measured in the same run. `npm run bench`, or `npm run bench -- process`.
const parts = [
  "process",
  "size",
  "content",
  "compose",
  "files",
  "edits",
  "pdf",
  "page",
  "placing",
  "typing",
  "weight",
  "desktop",
  "window",
  "hub",
  "growth",
  "sync",
];
const wanted = process.argv.slice(2);
for (const part of parts)
  if (wanted.length === 0 || wanted.includes(part)) await (await import(`./${part}.mjs`)).run();
