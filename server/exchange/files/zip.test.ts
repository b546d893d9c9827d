import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomBytes } from 'node:crypto'
import { strFromU8, unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readLimits, type ReadLimits } from '../../../core/formats/limits'
import { zipOf, zipOfFiles, type ZipEntry } from '../../../tests/support/archives'
import { limitsFromEnvironment } from './limits'
import { readFile } from './read'
import { bufferSource, fileSource, openZip } from './zip'

const open = (entries: readonly ZipEntry[], limits: Partial<ReadLimits> = {}) =>
  openZip('a.zip', bufferSource(zipOf(entries)), { ...readLimits, ...limits })
/** Opens and unpacks everything. */
async function drain(entries: readonly ZipEntry[], limits: Partial<ReadLimits> = {}): Promise<void> {
  const archive = await open(entries, limits)
  for (const path of archive.entries.keys()) for await (const chunk of archive.chunks(path)) void chunk
}

describe('a zip archive', () => {
  it('gives back what was packed, stored or deflated, small or large, from memory or a file', async () => {
    const large = Buffer.concat([randomBytes(5_000_000), Buffer.alloc(3_000_000, 'tide ')])
    const bytes = zipOf([
      { name: 'a.txt', content: 'A' },
      { name: 'd/', content: '', method: 0 },
      { name: 'd/b.bin', content: large },
      { name: 'd/ü.bin', content: large, method: 0 },
      { name: 'empty', content: '' },
    ])
    // fflate as the reader from outside.
    expect(strFromU8(unzipSync(bytes)['a.txt']!)).toBe('A')
    const folder = mkdtempSync(join(tmpdir(), 'nt-zip-'))
    try {
      writeFileSync(join(folder, 'x.zip'), bytes)
      for (const source of [bufferSource(bytes), fileSource(join(folder, 'x.zip'))]) {
        const archive = await openZip('x.zip', source, readLimits)
        expect([...archive.entries.keys()]).toEqual(['a.txt', 'd/b.bin', 'd/ü.bin', 'empty'])
        expect(Buffer.from(await archive.bytes('a.txt')).toString()).toBe('A')
        for (const path of ['d/b.bin', 'd/ü.bin']) expect(large.equals(await archive.bytes(path))).toBe(true)
        expect((await archive.bytes('empty')).length).toBe(0)
        source.close()
      }
    } finally {
      rmSync(folder, { recursive: true })
    }
  })
  const bomb = Buffer.alloc(4_000_000)
  it.each<[string, ZipEntry[], RegExp, Partial<ReadLimits>?]>([
    ['a path out of the archive', [{ name: '../x' }], /leads outside/],
    ['a path out of it with backslashes', [{ name: 'a\\..\\..\\x' }], /leads outside/],
    ['an absolute path', [{ name: '/etc/passwd' }], /absolute path/],
    ['a drive letter', [{ name: 'C:\\x' }], /absolute path/],
    ['a symbolic link', [{ name: 'link', content: '/etc/passwd', mode: 0o120777 }], /symbolic link/],
    ['a device', [{ name: 'dev', mode: 0o020666 }], /device or pipe/],
    ['an encrypted entry', [{ name: 'a', content: 'x', flags: 0x801 }], /encrypted/],
    ['strong encryption', [{ name: 'a', content: 'x', flags: 0x841 }], /encryption/],
    ['a zero byte in a name', [{ name: 'a\0.html' }], /zero byte/],
    ['no name', [{ name: '' }], /no name/],
    [
      'a name twice',
      [
        { name: 'a', content: '1' },
        { name: 'a', content: '2' },
      ],
      /two entries have the name "a"/,
    ],
    [
      'a name twice, once with a backslash',
      [
        { name: 'd/a', content: '1' },
        { name: 'd\\a', content: '2' },
      ],
      /two entries have the name/,
    ],
    [
      'a file that is a folder too',
      [
        { name: 'a', content: '1' },
        { name: 'a/b', content: '2' },
      ],
      /a file and a folder/,
    ],
    [
      'entries over one another',
      [
        { name: 'a', content: 'x' },
        { name: 'b', content: 'x', over: 0 },
      ],
      /lie over one another/,
    ],
    [
      'another name in its own header',
      [{ name: 'a', content: 'x', localName: 'b' }],
      /another name in its own header/,
    ],
    ['another method', [{ name: 'a', content: 'x', method: 12 }], /method \(12\)/],
    ['a bomb', [{ name: 'a', content: bomb }], /over 200 times its size/],
    [
      'a bomb in parts',
      Array.from({ length: 30 }, (_, at) => ({ name: `${at}`, content: Buffer.alloc(1_000_000) })),
      /a.zip: unpacks to over 200 times/,
    ],
    ['too many entries', [{ name: 'a' }, { name: 'b' }, { name: 'c' }], /more than 2 files/, { entries: 2 }],
    [
      'too many bytes',
      [{ name: 'a', content: randomBytes(3000) }],
      /more than 1000 bytes/,
      { unpackedBytes: 1000 },
    ],
    [
      'a size that is too small',
      [{ name: 'a', content: 'xxxxxxxxxx', size: 3 }],
      /does not unpack to the size/,
    ],
    ['a size that is too large', [{ name: 'a', content: 'xxx', size: 10 }], /does not unpack to the size/],
    [
      'a size that is too small, of a large entry',
      [{ name: 'a', content: randomBytes(6_000_000), size: 5_500_000 }],
      /does not unpack to the size/,
    ],
    ['a stored size that differs', [{ name: 'a', content: 'xxx', size: 10, method: 0 }], /two sizes/],
  ])('refuses %s', async (_name, entries, reason, limits = {}) => {
    await expect(drain(entries, limits)).rejects.toThrow(reason)
    await expect(drain(entries, limits)).rejects.toMatchObject({ name: 'FormatRefusal' })
  })
  it('tells damage from lies: one damaged file is left out, a damaged archive is refused', async () => {
    await expect(drain([{ name: 'a', content: 'x', sum: 1 }])).rejects.toMatchObject({
      why: 'unlike',
      reason: expect.stringContaining('checksum'),
    })
    const sound = zipOfFiles({ 'a.txt': 'A'.repeat(1000), 'b.txt': 'B' })
    for (const bytes of [
      sound.subarray(0, sound.length - 30),
      sound.subarray(0, 60),
      Buffer.from('PK'),
      Buffer.concat([sound, Buffer.from('x')]),
    ])
      await expect(openZip('a.zip', bufferSource(bytes), readLimits)).rejects.toMatchObject({
        name: 'FormatRefusal',
      })
    const manifest = (count: number) => zipOf([{ name: 'a', content: 'x' }], count)
    await expect(openZip('a.zip', bufferSource(manifest(5)), readLimits)).rejects.toThrow(/damaged/)
  })
  it('takes its limits from the environment', () => {
    expect(
      limitsFromEnvironment({ NORTHTIDE_LIMIT_ENTRIES: '7', NORTHTIDE_LIMIT_UNPACKED_BYTES: '9' }),
    ).toMatchObject({ entries: 7, unpackedBytes: 9, ratio: readLimits.ratio })
    expect(() => limitsFromEnvironment({ NORTHTIDE_LIMIT_RATIO: 'many' })).toThrow(
      'NORTHTIDE_LIMIT_RATIO is "many"; it must be a whole number above 0',
    )
  })
})

describe('telling what a file is', () => {
  it.each<[string, Buffer, RegExp]>([
    ['nothing', Buffer.alloc(0), /is empty/],
    ['a picture', Buffer.from('89504E470D0A1A0A', 'hex'), /is a picture \(PNG\)\. Northtide reads/],
    ['a PDF document', Buffer.from('%PDF-1.7\n%âãÏÓ\n'), /is a PDF document/],
    ['a JSON document', Buffer.from('{"a": "2027-01-05"}'), /is a JSON document/],
    ['bytes of no known kind', Buffer.from('0102030405', 'hex'), /by what is in it/],
    ['a letter', Buffer.from('Dear all,\nsee you on Monday.'), /no column holds dates/],
    ['a page', Buffer.from('<!doctype html><p>'), /is a web page/],
    ['a letter in an archive', zipOfFiles({ 'word/document.xml': '<w/>' }), /is a text document \(DOCX\)/],
    ['an archive of other things', zipOfFiles({ 'a.txt': 'a' }), /neither imsmanifest.xml/],
  ])('refuses %s', async (_name, bytes, reason) => {
    expect(await readFile('x', bufferSource(bytes))).toMatchObject({
      format: null,
      outcome: 'refused',
      findings: [{ severity: 'error', message: expect.stringMatching(reason) }],
    })
  })
  it('reads a calendar by its first line, whatever it is called', async () => {
    const calendar =
      '\uFEFFBEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20270105\nSUMMARY:A\nEND:VEVENT\nEND:VCALENDAR'
    expect(await readFile('x.zip', bufferSource(Buffer.from(calendar)))).toMatchObject({
      format: 'icalendar',
      outcome: 'read',
      events: [{ title: 'A', firstDay: '2027-01-05', lastDay: '2027-01-05' }],
    })
  })
})
