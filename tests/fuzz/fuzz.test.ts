import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { tryInput } from './check'
import { inputAt, inputsOf, targets } from './inputs'
import { fuzz } from './run'

const cases = new URL('./cases/', import.meta.url)

describe('every reader, whatever it is given', () => {
  it.each(readdirSync(cases))('what once went wrong does not: %s', async file => {
    const bytes = readFileSync(new URL(file, cases))
    await tryInput(file.endsWith('.html') ? { html: bytes.toString() } : { name: file, bytes })
  })
  it('makes an input of a number, the same each time, for every target', () => {
    const [one, two] = [inputsOf(), inputsOf()]
    for (const target of targets)
      expect(inputAt(one[target], 7, 11), target).toEqual(inputAt(two[target], 7, 11))
  })
  it('for a while: nothing crashes, hangs, writes, reaches out or breaks a promise', async () => {
    const { tried, found } = await fuzz({
      seed: Number(process.env.NORTHTIDE_FUZZ_SEED ?? 4),
      inputs: 1_000_000,
      // `npm run fuzz` goes on for as long as one likes.
      seconds: 10,
    })
    console.log(`${tried} inputs tried`)
    expect(found).toEqual([])
    // How many depends on what else the machine does; each target has had its turn.
    expect(tried).toBeGreaterThan(targets.length)
  }, 120_000)
})
