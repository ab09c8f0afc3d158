/**
 * A PDF of many pages, a line and a number on each, made by hand (ISO 32000-1).
 * @param {number} count
 * @returns {Uint8Array}
 */
export function manyPages(count) {
  const objects = [
    "<< /Type /Catalog /Pages 2 0 R >>",
    `<< /Type /Pages /Count ${count} /Kids [${Array.from({ length: count }, (_, at) => `${4 + 2 * at} 0 R`).join(" ")}] >>`,
    "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>",
  ];
  for (let number = 1; number <= count; number++) {
    const stream = `BT /F1 11 Tf 72 700 Td (Wheatear ${number} was seen on the seawall.) Tj ET BT /F1 9 Tf 290 30 Td (${number}) Tj ET`;
    objects.push(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Resources << /Font << /F1 3 0 R >> >> /Contents ${objects.length + 2} 0 R >>`,
      `<< /Length ${stream.length} >>\nstream\n${stream}\nendstream`,
    );
  }
  let text = "%PDF-1.4\n";
  const places = objects.map((object, at) => {
    const place = text.length;
    text += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return place;
  });
  const table = places.map((place) => `${String(place).padStart(10, "0")} 00000 n \n`).join("");
  const start = text.length;
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return new TextEncoder().encode(text);
}
