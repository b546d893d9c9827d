import { sizeText } from './limits'

/**
 * Why a file is not read: it is not what it should be (`unlike`), over a limit (`limit`), or as nothing honest makes it (`hostile`).
 * For the last two a whole package is refused, whichever part of it is so.
 */
export type Unreadable = 'unlike' | 'limit' | 'hostile'
const wayOn: Record<Unreadable, string> = {
  unlike: 'Export it again where it came from, and send that.',
  limit: 'If it is meant to be so, whoever runs Northtide can raise the limit.',
  hostile: 'Do not open it elsewhere: ask for a new export, and show this one to the help desk.',
}

const told =
  (why: Unreadable) =>
  <Known extends unknown[]>(says: (...known: Known) => string) => ({ why, says })
const unlike = told('unlike')
const limit = told('limit')
const hostile = told('hostile')

const shownPath = (path: string): string =>
  JSON.stringify(path.length > 120 ? `${path.slice(0, 120)}…` : path)
const quoted = (text: string): string => JSON.stringify(text)

/** Everything for which a file is refused, by its code: the one place where it becomes a sentence, which follows the name of the place. */
const refusalKinds = {
  // Any file.
  empty: unlike(() => 'is empty'),
  'too-large': limit((of: { bytes: number }) => `is larger than ${sizeText(of.bytes)}`),
  'nothing-known': unlike((of: { looksLike: string | null }) =>
    of.looksLike
      ? `is ${of.looksLike}. Northtide reads Common Cartridges, OneRoster bundles, iCalendar files and tables of dates`
      : 'is no Common Cartridge, OneRoster bundle, iCalendar file or table of dates, by what is in it',
  ),
  'not-utf8': unlike(() => 'is not UTF-8 text; save it as UTF-8 and try again'),
  'not-its-encoding': unlike((of: { encoding: string }) => `says it is in ${of.encoding}, and is not`),
  'not-its-mark': unlike(() => 'is not text in the encoding its first bytes announce'),
  'zero-bytes': unlike(() => 'holds zero bytes: it is no text'),

  'no-sheet-of-dates': unlike(
    () => 'has no column that names items beside one of dates, such as “Item” and “Due”',
  ),
  'no-plan-sheet': unlike(
    () => 'has no column “Key” beside “Opens”, “Due” or “Closes”: it is no sheet of a plan’s dates',
  ),

  // Archives.
  'not-a-zip': unlike(() => 'is not a zip archive'),
  'zip-of-neither': unlike((of: { looksLike: string | null }) =>
    of.looksLike
      ? `is ${of.looksLike}. Northtide reads Common Cartridges, OneRoster bundles, iCalendar files and tables of dates`
      : 'is a zip archive with neither imsmanifest.xml (a Common Cartridge) nor manifest.csv (a OneRoster bundle) in it',
  ),
  'zip-damaged': unlike((of: { why: string }) => `the zip archive is damaged (${of.why})`),
  'zip-cut-off': unlike(
    (of: { path: string }) => `the entry ${quoted(of.path)} reaches past the end of the file: it is cut off`,
  ),
  'entry-damaged': unlike((of: { why: string }) => `is damaged in the archive (${of.why}); it was left out`),
  'too-many-files': limit((of: { most: number }) => `holds more than ${of.most} files`),
  'unpacks-too-large': limit((of: { bytes: number }) => `unpacks to more than ${sizeText(of.bytes)}`),
  'unpacks-too-often': hostile((of: { ratio: number }) => `unpacks to over ${of.ratio} times its size`),
  'entry-zero-byte': hostile(
    (of: { path: string }) => `an entry has a zero byte in its name: ${shownPath(of.path)}`,
  ),
  'entry-unnamed': hostile(() => 'an entry has no name'),
  'entry-name-long': hostile((of: { most: number }) => `an entry has a name of over ${of.most} characters`),
  'entry-absolute': hostile((of: { path: string }) => `an entry has an absolute path: ${shownPath(of.path)}`),
  'entry-outside': hostile(
    (of: { path: string }) => `an entry leads outside the archive: ${shownPath(of.path)}`,
  ),
  'entry-encrypted': hostile(
    (of: { path: string }) =>
      `the entry ${shownPath(of.path)} is encrypted; pack it again without a password`,
  ),
  'entry-no-file': hostile(
    (of: { path: string; isLink: boolean }) =>
      `the entry ${shownPath(of.path)} is a ${of.isLink ? 'symbolic link' : 'device or pipe'}, not a file`,
  ),
  'entry-packed-otherwise': hostile(
    (of: { path: string; method: number }) =>
      `the entry ${shownPath(of.path)} is packed by a method (${of.method}) that is not read; pack it again as an ordinary zip`,
  ),
  'entry-two-sizes': hostile(
    (of: { path: string }) => `the entry ${shownPath(of.path)} gives two sizes for the same bytes`,
  ),
  'entry-unpacks-too-often': hostile(
    (of: { path: string; ratio: number }) =>
      `the entry ${shownPath(of.path)} unpacks to over ${of.ratio} times its size`,
  ),
  'entries-of-one-name': hostile((of: { path: string }) => `two entries have the name ${quoted(of.path)}`),
  'file-and-folder': hostile((of: { path: string }) => `the name ${quoted(of.path)} is a file and a folder`),
  'entries-overlap': hostile(
    (of: { paths: readonly [string, string] }) =>
      `the entries ${quoted(of.paths[0])} and ${quoted(of.paths[1])} lie over one another`,
  ),
  'entry-without-header': hostile(
    (of: { path: string }) => `the entry ${quoted(of.path)} has no header where the directory says`,
  ),
  'entry-named-otherwise': hostile(
    (of: { path: string }) => `the entry ${quoted(of.path)} has another name in its own header`,
  ),
  'entry-described-otherwise': hostile(
    (of: { path: string }) => `the entry ${quoted(of.path)} is described otherwise in its own header`,
  ),
  'entry-size-lies': hostile(
    (of: { path: string }) => `the entry ${quoted(of.path)} does not unpack to the size it gives`,
  ),

  // XML.
  'not-well-formed': unlike(
    (of: { line: number; why: string }) => `line ${of.line}: is not well-formed XML (${of.why})`,
  ),
  'document-type': hostile(
    (of: { line: number }) =>
      `line ${of.line}: has a document type declaration (DTD), which is never read; take it out and pack the file again`,
  ),
  'elements-too-deep': limit(
    (of: { line: number; most: number }) => `line ${of.line}: elements nest more than ${of.most} deep`,
  ),
  'xml-too-long': unlike((of: { bytes: number }) => `is an XML document of more than ${sizeText(of.bytes)}`),
  'starts-otherwise': unlike(
    (of: { found: string; wanted: string }) => `starts with <${of.found}>, not <${of.wanted}>`,
  ),

  // Common Cartridge.
  'no-cartridge': unlike(
    (of: { manifest: string }) => `holds no ${of.manifest}: it is not a Common Cartridge`,
  ),
  'schema-unread': unlike(
    (of: { schema: string }) =>
      `its manifest says it is “${of.schema.slice(0, 80)}”; a Common Cartridge 1.0 to 1.3 is read here`,
  ),
  'cartridge-version': unlike(
    (of: { stated: string | null }) =>
      `is Common Cartridge ${of.stated === null ? 'of no stated version' : of.stated.slice(0, 40)}; versions 1.0 to 1.3 are read here`,
  ),
  'title-too-long': limit(
    (of: { length: number; most: number }) =>
      `has a title of ${of.length} characters; at most ${of.most} are read`,
  ),
  'outside-package': hostile(
    (of: { resource: string; address: string }) =>
      `the resource ${of.resource} names ${quoted(of.address.slice(0, 200))}, which lies outside the package`,
  ),
  'items-too-deep': limit((of: { most: number }) => `items nest more than ${of.most} deep`),
  'no-questions': unlike(() => 'holds neither an <assessment> nor an <objectbank>'),

  // OneRoster.
  'no-bundle': unlike((of: { manifest: string }) => `holds no ${of.manifest}: it is not a OneRoster bundle`),
  'roster-version': unlike(
    (of: { stated: string | undefined }) =>
      `is OneRoster ${of.stated ? of.stated.slice(0, 40) : 'of no stated version'}; version 1.1 is read here`,
  ),
  'column-twice': unlike((of: { column: string }) => `has the column ${of.column} twice`),
  'column-absent': unlike((of: { column: string }) => `has no column ${of.column}`),
  'no-header': unlike(() => 'is empty; it needs a row of column names'),

  // iCalendar.
  'no-calendar': unlike(() => 'is not an iCalendar stream: it holds no BEGIN:VCALENDAR'),
  'not-begun': unlike(
    (of: { line: number }) =>
      `line ${of.line}: is not an iCalendar stream: it does not begin with BEGIN:VCALENDAR`,
  ),
  'begins-otherwise': unlike(
    (of: { line: number; found: string }) =>
      `line ${of.line}: begins with ${of.found.slice(0, 40)}, not VCALENDAR`,
  ),
  'ends-otherwise': unlike(
    (of: { line: number; found: string }) =>
      `line ${of.line}: ends ${of.found.slice(0, 40)}, which is not what was open`,
  ),
  'components-too-deep': limit(
    (of: { line: number; most: number }) => `line ${of.line}: components nest more than ${of.most} deep`,
  ),
  'line-too-long': limit(
    (of: { line: number; most: number }) => `line ${of.line}: a line is longer than ${of.most} characters`,
  ),
  'calendar-cut-off': unlike(
    (of: { component: string; line: number }) =>
      `ends before the ${of.component} of line ${of.line} does: it is cut off`,
  ),
  'too-many-events': limit((of: { most: number }) => `holds more than ${of.most} events`),
  'makes-too-many-events': limit((of: { most: number }) => `makes more than ${of.most} events`),
  'rules-too-long': limit(() => 'its rules take too long to work out'),

  // Tables, workbooks and JSON.
  'quotation-open': unlike(
    (of: { row: number }) => `row ${of.row}: a quotation mark is not closed or stands inside a value`,
  ),
  'too-many-rows': limit((of: { most: number }) => `has more than ${of.most} rows`),
  'table-too-large': limit(
    (of: { bytes: number }) => `is larger than ${sizeText(of.bytes)}, which no table of dates is`,
  ),
  'no-dates': unlike(
    () => 'no column holds dates with a year (like 2027-02-15, 15/2/2027 or 15 February 2027)',
  ),
  'no-names': unlike(() => 'no column could be the names of its days'),
  'workbook-too-large': limit(
    (of: { bytes: number }) => `unpacks to more than ${sizeText(of.bytes)}, which no table of dates does`,
  ),
  'workbook-document-type': hostile(() => 'has a document type declaration (DTD), which is never read'),
  'cell-far-off': limit(() => 'has a cell beyond row 99 999 or column ZZ, where no table of dates lies'),
  'no-sheet': unlike(() => 'holds no sheet with anything in it'),
  'sheet-too-long': unlike(
    (of: { sheet: string; most: number }) =>
      `the sheet “${of.sheet}” has more than ${of.most} rows, which no table of dates has`,
  ),
  'workbook-unreadable': unlike(
    (of: { why: string }) => `the workbook cannot be read (${of.why.slice(0, 200)})`,
  ),
  'not-json': unlike((of: { why: string }) => `is not JSON (${of.why})`),
  'field-wrong': unlike((of: { field: string; fault: string }) => `${of.field}: ${of.fault}`),
}
export type FormatRefusalCode = keyof typeof refusalKinds
type Known<Code extends FormatRefusalCode> = Parameters<(typeof refusalKinds)[Code]['says']>

/** A file that is refused; nothing of it is used. */
export class FormatRefusal<Code extends FormatRefusalCode = FormatRefusalCode> extends Error {
  override readonly name = 'FormatRefusal'
  readonly why: Unreadable
  /** The sentence, which follows the name of the place. */
  readonly reason: string
  /** `where`: the file, and the line or entry in it. */
  constructor(
    readonly code: Code,
    readonly where: string,
    ...known: Known<Code>
  ) {
    const { why, says } = refusalKinds[code] as unknown as {
      why: Unreadable
      says: (...known: Known<Code>) => string
    }
    const reason = says(...known)
    super(`${where}: ${reason}`)
    this.why = why
    this.reason = reason
  }
  /** What to do about it, as a sentence. */
  get wayOn(): string {
    return wayOn[this.why]
  }
}
