// The part of pdf.js that reads, which comes without types: it is handed to the rest as it is.
declare module "pdfjs-dist/legacy/build/pdf.worker.mjs";
