// npm run demo:make : writes the demo as open-format files into demo/files. The files are committed and are what is loaded.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { cartridge, pack } from './cartridge'
import { courseWorks } from './course'
import { courseJson, rosterBundle } from './roster'
import { lightsClass, lightsJson, lightsShellJson, lightsUnits } from './lights'
import { templateCartridge } from './template'
import { birdJson, birdShellJson, breadJson, weaveShellJson } from './small-json'
import { birdUnits, breadUnits, weaveTemplate } from './small'
import { weaveCartridge, weaveJson } from './weave'

const files = new URL('../files/', import.meta.url)
mkdirSync(files, { recursive: true })
const write = (name: string, content: string | Uint8Array): void =>
  writeFileSync(new URL(name, files), content)

interface Case {
  case: { source: { id: string }; target: { id: string } }
}
const worked = (name: string): Case =>
  JSON.parse(readFileSync(new URL(`../../tests/cases/${name}`, import.meta.url), 'utf8'))
/** Grades are reported twice in the spring. */
const gradingPeriods = [
  { name: 'First half', from: '2027-01-06', to: '2027-02-21' },
  { name: 'Second half', from: '2027-02-22', to: '2027-04-21' },
]
for (const calendar of [
  worked('01-same-week-and-weekday.json').case.source,
  { ...worked('01-same-week-and-weekday.json').case.target, gradingPeriods },
  worked('05-thirteen-weeks-into-seven.json').case.target,
])
  write(`term-${calendar.id}.json`, `${JSON.stringify(calendar, null, 2)}\n`)

const works = courseWorks()
write('hyd-240-01-autumn-2026.imscc', cartridge(works))
write('hyd-240-02-spring-2027.imscc', templateCartridge())
write('port-ellery.oneroster.zip', rosterBundle(works))
write('hyd-240-01-autumn-2026.course.json', courseJson(works))
write('wvg-201-01-autumn-2026.imscc', weaveCartridge())
write('wvg-201-01-autumn-2026.course.json', weaveJson())
write('bkg-115-autumn-2026.imscc', pack('Bread Science', 'bkg115-01-2026a', breadUnits))
write('bkg-115-01-autumn-2026.course.json', breadJson('01'))
write('bkg-115-02-autumn-2026.course.json', breadJson('02'))
write('orn-130-01-autumn-2026.imscc', pack('Field Ornithology', 'orn130-01-2026a', birdUnits))
write('orn-130-01-autumn-2026.course.json', birdJson())
write('orn-130-01-spring-2027.course.json', birdShellJson())
write('lth-220-01-autumn-2026.imscc', pack('Lights and Fog Signals', lightsClass, lightsUnits))
write('lth-220-01-autumn-2026.course.json', lightsJson())
write('lth-220-01-spring-2027.course.json', lightsShellJson())
write('wvg-201-01-spring-2027.imscc', pack('Weave Structures', 'wvg201-01-2027s', weaveTemplate))
write('wvg-201-01-spring-2027.course.json', weaveShellJson())
for (const [section, start, end] of [
  ['01', '09:30', '10:20'],
  ['02', '13:00', '13:50'],
] as const) {
  write(
    `hyd-240-${section}-spring-2027.course.json`,
    `${JSON.stringify(
      {
        format: 'northtide-course',
        version: 2,
        class: `hyd240-${section}-2027s`,
        // The second section's shell holds what the department put there before anyone touched it.
        ...(section === '02' && { madeBy: 'template' }),
        meetings: [1, 3, 5].map(weekday => ({
          weekday,
          start,
          end,
          room: section === '01' ? 'Tide room' : 'Chart room',
        })),
      },
      null,
      2,
    )}\n`,
  )
}
write(
  'hyd-235-01-summer-2027.course.json',
  `${JSON.stringify(
    {
      format: 'northtide-course',
      version: 1,
      class: 'hyd235-01-2027u',
      meetings: [1, 2, 3, 4, 5].map(weekday => ({
        weekday,
        start: '09:30',
        end: '10:50',
        room: 'Tide room',
      })),
    },
    null,
    2,
  )}\n`,
)
