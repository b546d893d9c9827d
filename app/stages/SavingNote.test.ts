import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { item } from '~~/tests/support/outline'
import { somePlan } from '~/testing/plan'
import { usePlan } from './plan/store'
import SavingNote from './SavingNote.vue'

vi.mock('./plan/planned-dates', () => ({
  usePlannedDates: () => ({
    pair: () => {},
    forget: () => {},
    terms: null,
    ledger: null,
    comparison: null,
    planned: { value: new Map() },
  }),
}))
beforeEach(() => setActivePinia(createPinia()))
afterEach(() => vi.unstubAllGlobals())

const radio = {
  name: 'ElRadio',
  props: ['modelValue', 'value'],
  emits: ['update:modelValue'],
  template: '<label><input type="radio" @change="$emit(\'update:modelValue\', value)" /><slot /></label>',
}

describe('the note of a change that could not be saved', () => {
  async function noteAfter(status: number): Promise<ReturnType<typeof mount>> {
    const reply = somePlan({ nodes: [item('a')] })
    const theirs = somePlan({ nodes: [item('a')], revision: 2, savedBy: 'T. Okonjo' })
    theirs.document = { ...theirs.document, names: { ...theirs.document.names, title: 'Theirs' } }
    let loads = 0
    vi.stubGlobal('fetch', (_: string, { method }: RequestInit) => {
      const body = { title: 'It was not saved', status, detail: '', errors: [] }
      if (method === 'PUT') return Promise.resolve(new Response(JSON.stringify(body), { status }))
      return Promise.resolve(new Response(JSON.stringify(loads++ === 0 ? reply : theirs)))
    })
    const store = usePlan()
    await store.load('plan')
    store.changeIn('names', { title: 'Mine' })
    await store.save()
    return mount(SavingNote, { global: { stubs: { ElRadio: radio, ActionProblem: true } } })
  }
  it('offers to save again where the server failed', async () => {
    const note = await noteAfter(500)
    expect(note.findAll('button').map(button => button.text())).toEqual(['Save again'])
  })
  it('names what both changed and offers either', async () => {
    const note = await noteAfter(412)
    expect(note.text()).toContain('T. Okonjo changed the same thing meanwhile.')
    expect(note.find('legend').text()).toBe('The title students see')
    expect(note.text()).toContain('Here: “Mine”')
    expect(note.text()).toContain('T. Okonjo: “Theirs”')
    const save = note.get('button[type=submit]')
    expect(save.attributes('disabled')).toBeDefined()
    await note.findAll('input')[1]?.trigger('change')
    expect(save.attributes('disabled')).toBeUndefined()
    await save.trigger('submit')
    await vi.waitFor(() => expect(usePlan().document?.names.title).toBe('Theirs'))
    await flushPromises()
    expect(note.find('form').exists()).toBe(false)
  })
})
