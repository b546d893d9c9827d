import { FormatRefusal } from '../../core/formats/findings'
import { cartridgeFolder, readCartridge } from '../../core/formats/cartridge/read'
import { readCalendar, type CalendarOptions } from '../../core/formats/icalendar/read'
import { readLimits, sizeText, type ReadLimits } from '../../core/formats/limits'
import { readOneRoster, rosterFolder } from '../../core/formats/oneroster/read'
import { outlineOf, type FileReport } from '../../core/formats/report'
import { openZip, type Source } from './zip'

export interface ReadFileOptions extends Pick<CalendarOptions, 'from' | 'to' | 'local'> {
  limits?: ReadLimits
  /** Told of parts done and parts in all, in bytes or events. */
  progress?: (done: number, total: number) => void
}

const startsLike = (source: Source, text: string): boolean => source.read(0, Math.min(source.size, text.length)).toString('latin1') === text

/** The report, and what only the application shows of a cartridge: its title, version and size. */
export interface FileRead extends FileReport { detail: { title?: string, version?: string } }

/** Tells what a file is by what is in it, never by its name, and reads it. Nothing is stored; a file that is refused is a report too. */
export async function readFile(file: string, source: Source, { limits = readLimits, progress = () => {}, ...range }: ReadFileOptions = {}): Promise<FileRead> {
  const report: FileRead = { file, format: null, outcome: 'read', findings: [], outline: [], counts: {}, events: [], detail: {} }
  try {
    if (source.size === 0) throw new FormatRefusal(file, 'is empty')
    if (startsLike(source, 'PK')) {
      const archive = await openZip(file, source, limits)
      if (cartridgeFolder(archive) !== null) {
        report.format = 'common-cartridge'
        const read = await readCartridge(archive, { courseKey: file, limits, progress })
        Object.assign(report, { ...outlineOf(read), findings: read.findings, detail: { title: read.content.title, version: read.version } })
      }
      else if (rosterFolder(archive) !== null) {
        report.format = 'oneroster'
        const read = await readOneRoster(archive, limits, progress)
        Object.assign(report, { findings: read.findings, counts: Object.fromEntries(Object.entries(read.roster).filter(([table]) => read.modes[table as keyof typeof read.modes] !== 'absent').map(([table, rows]) => [table, rows.length])) })
      }
      else throw new FormatRefusal(file, 'is a zip archive with neither imsmanifest.xml (a Common Cartridge) nor manifest.csv (a OneRoster bundle) in it')
    }
    else {
      if (source.size > limits.textBytes) throw new FormatRefusal(file, `is larger than ${sizeText(limits.textBytes)}`, true)
      const start = source.read(0, Math.min(source.size, 4096)).toString('latin1').replace(/\0|^(\xEF\xBB\xBF|\xFF\xFE|\xFE\xFF)/g, '')
      if (/^\s*BEGIN:V/i.test(start)) {
        report.format = 'icalendar'
        Object.assign(report, readCalendar(file, source.read(0, source.size), { ...range, limits, progress }))
      }
      else throw new FormatRefusal(file, 'is no Common Cartridge, OneRoster bundle or iCalendar file, by what is in it')
    }
  }
  catch (error) {
    if (!(error instanceof FormatRefusal)) throw error
    report.outcome = 'refused'
    report.findings.push({ severity: 'error', where: error.where, message: error.reason })
  }
  return report
}
