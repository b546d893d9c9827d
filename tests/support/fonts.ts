import { readFileSync } from 'node:fs'
import type { PdfFonts } from '../../server/runs/record-pdf'

const font = (script: string, weight: number): Uint8Array =>
  readFileSync(
    new URL(
      `../../node_modules/@fontsource/commissioner/files/commissioner-${script}-${weight}-normal.woff`,
      import.meta.url,
    ),
  )
const scripts = ['latin', 'latin-ext', 'greek', 'cyrillic']
/** The fonts that a record is set in. */
export const pdfFonts = (): PdfFonts => ({
  regular: scripts.map(script => font(script, 400)),
  bold: scripts.map(script => font(script, 600)),
})
