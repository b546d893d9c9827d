import { check, standingItems } from './check'

/** A year from 1990 to 2099 that stands by itself. */
const yearIn = /(?<!\d)(19[9]\d|20\d\d)(?!\d)/g

/** A file, a recording or an address that names a year which neither term touches; a page may tell of any year. */
export const contentYear = check({
  title: 'Of another year',
  short: 'another year',
  grave: 'look',
  mends: 'Replace it, or say that it is meant',
  knows: ['content'],
  find: ({ nodes, content: { years, addresses } }) =>
    standingItems({ nodes }).flatMap(({ lineage, kind, title, holds }) => {
      if (holds !== null) return []
      const address = addresses.get(lineage)
      const isNamed = kind === 'file' || kind === 'recording' || address !== undefined
      const said = { name: isNamed ? title : '', address: address ?? '' }
      return (['name', 'address'] as const).flatMap(where => {
        const found = [...said[where].matchAll(yearIn)].map(match => Number(match[0]))
        const [year] = found
        if (year === undefined || found.some(each => years.has(each))) return []
        return [{ lineage, sentence: `Its ${where} says ${year}.` }]
      })
    }),
})
