import PDFDocument from 'pdfkit'

/** A PDF drawn by a library that knows nothing of the one that reads it. */
export async function drawnPdf(
  draw: (doc: PDFKit.PDFDocument) => void,
  info: Record<string, string> = {},
): Promise<Uint8Array> {
  const doc = new PDFDocument({ info })
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>(resolve => doc.on('end', () => resolve()))
  draw(doc)
  doc.end()
  await ended
  return new Uint8Array(Buffer.concat(chunks))
}
