import { must, type Attack } from './world'

export const text: Attack[] = [
  {
    name: 'names with line breaks, NUL, control characters and half characters',
    quick: true,
    run: async world => {
      const odd = ['a\nb', 'a\r\nBcc: all@example', 'a\0b', 'a\u001bb', 'a\u2028b', 'a\ud800b']
      for (const title of odd) {
        const make = await world.ask('instructor', 'POST', '/api/v1/courses', {
          body: { term: '2027-spring', code: 'ATK 2', section: '', title },
        })
        const told = make.json() as { errors?: { field: string }[] }
        must(
          make.status === 400 && told.errors?.[0]?.field === 'title',
          `${JSON.stringify(title)} was told ${make.status}`,
        )
        const label = await world.ask('instructor', 'PUT', `/api/v1/courses/${world.ids.OLD}/preferences`, {
          body: { label: title },
        })
        must(label.status === 400, `as a label ${JSON.stringify(title)} was told ${label.status}`)
      }
      return `${odd.length} names, each refused with its field`
    },
  },
  {
    name: 'titles that would end a calendar or begin a formula',
    quick: true,
    run: async world => {
      const items = await world
        .db('items')
        .where({ course_id: world.ids.OLD })
        .whereNotNull('due')
        .limit(2)
        .select('lineage', 'title')
      const hostile = ['x\r\nEND:VCALENDAR\r\nBEGIN:VCALENDAR', '＝HYPERLINK("http://elsewhere.example")']
      for (const [at, item] of items.entries())
        await world
          .db('items')
          .where({ course_id: world.ids.OLD, lineage: item.lineage })
          .update({ title: hostile[at] })
      await world.db('courses').where({ id: world.ids.OLD }).update({ title: hostile[0] })
      const calendar = (
        await world.ask('instructor', 'GET', `/api/v1/courses/${world.ids.OLD}/deadlines.ics`)
      ).text
      must(calendar.match(/^END:VCALENDAR\r?$/gm)?.length === 1, 'the calendar ends twice')
      const table = (await world.ask('instructor', 'GET', `/api/v1/courses/${world.ids.OLD}/dates.csv`)).text
      must(!/(^|,|")[=＝]HYPERLINK/m.test(table), 'a formula stands in the table')
      for (const item of items)
        await world
          .db('items')
          .where({ course_id: world.ids.OLD, lineage: item.lineage })
          .update({ title: item.title })
      await world.db('courses').where({ id: world.ids.OLD }).update({ title: 'Tidal Hydrography' })
      return 'taken as text'
    },
  },
  {
    name: 'a course JSON with half a character',
    quick: true,
    run: async world => {
      const sent = await world.ask('office', 'POST', '/api/v1/uploads?name=c.json', {
        body: '{"format":"northtide-course","version":1,"class":"c\\ud800"}',
        headers: { 'content-type': 'application/octet-stream' },
      })
      const { id } = sent.json() as { id: string }
      for (let attempt = 0; attempt < 100; attempt++) {
        const told = (await world.ask('office', 'GET', `/api/v1/uploads/${id}`)).json() as {
          state: string
          report: { findings: { message: string }[] } | null
        }
        if (told.state === 'refused') {
          must((told.report?.findings.length ?? 0) > 0, 'it was refused without a finding')
          return 'a finding that names the field'
        }
        await new Promise(resolve => setTimeout(resolve, 100))
      }
      throw new Error('it was never refused')
    },
  },
]
