/** A fragment of HTML as a whole page, calm to read and to print. */
export function wholePage(fragment: string, name: string): string {
  const title = name.replace(/[&<>]/g, "");
  return `<!DOCTYPE html>
<html>
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${title}</title>
<style>
  body { max-width: 40rem; margin: 3rem auto; padding: 0 1.25rem; font: 1.05rem/1.55 Georgia, "Liberation Serif", serif; color: #1f2a30; }
  table { border-collapse: collapse; margin: 1rem 0; font-size: 0.95em; }
  th, td { border-bottom: 1px solid #c9d2d4; padding: 0.3rem 0.6rem; vertical-align: top; }
  th { text-align: left; }
  blockquote { margin: 1rem 0; padding-left: 1rem; border-left: 3px solid #c9d2d4; }
</style>
</head>
<body>
${fragment}
</body>
</html>
`;
}
