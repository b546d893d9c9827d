// The library ships no types for its worker, which is only handed on.
declare module 'pdfjs-dist/legacy/build/pdf.worker.mjs'
