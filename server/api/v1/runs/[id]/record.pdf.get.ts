import { latestZone } from '../../../../calendars/terms.queries'
import { runAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { recordDocument, recordName } from '../../../../runs/record'
import { recordPdf, type PdfFonts } from '../../../../runs/record-pdf'

let fonts: Promise<PdfFonts> | null = null
/** The fonts that ship with the application, in the order in which letters are looked for. */
async function loadFonts(): Promise<PdfFonts> {
  // What Nitro makes of its assets is there in the built application alone; the routes are also read without it.
  const { useStorage } = await import('nitropack/runtime')
  const storage = useStorage('assets:pdf-fonts')
  const of = (weight: number): Promise<Uint8Array[]> =>
    Promise.all(
      ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'].map(async script => {
        const bytes = await storage.getItemRaw<Uint8Array>(`commissioner-${script}-${weight}-normal.woff`)
        if (!bytes) throw new Error(`the font for ${script} is not there`)
        return bytes
      }),
    )
  return { regular: await of(400), bold: await of(600) }
}
export default route({
  summary: 'The record of a run as a PDF',
  params: runAddress,
  reply: null,
  sends: 'application/pdf',
  may: readsRun,
  run: async ({ event, db, person, params }) => {
    const record = await recordDocument(db, person, params.id)
    const zone = (await latestZone(db)) ?? 'UTC'
    const bytes = await recordPdf(record, await (fonts ??= loadFonts()), zone)
    return replyWithFile(event, `${recordName(record)}.pdf`, 'application/pdf', bytes)
  },
})
