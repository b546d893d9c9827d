import { useSessionStorage } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import type { CodeRules, CodesReply } from '~~/shared/api/codes'
import { spelled, spellingsOf } from './reading'

interface Draft {
  /** What the rules were when one began to change them: a save goes over no other. */
  revision: number
  /** Spellings of seasons as one line of text each. */
  patterns: { text: string; spellings: string }[]
  mapped: { from: string; to: string }[]
}
const draftOf = ({ revision, rules }: CodesReply): Draft => ({
  revision,
  patterns: rules.patterns.map(({ text, seasons }) => ({ text, spellings: spelled(seasons) })),
  mapped: rules.mapped.map(entry => ({ ...entry })),
})

/**
 * The rules as they are being written. What is not saved yet waits in this tab of the browser, for one who leaves the page or
 * loads it again.
 */
export function useCodesDraft(data: Ref<CodesReply | null>, personId: string) {
  const kept = useSessionStorage<Draft | null>(`northtide-codes-${personId}`, null, {
    serializer: { read: text => JSON.parse(text) as Draft | null, write: JSON.stringify },
  })
  const draft = ref<Draft>({ revision: 0, patterns: [], mapped: [] })
  /** The rules on the page were written before, and were not saved. */
  const isRestored = ref(false)
  const rules = computed<CodeRules>(() => ({
    patterns: draft.value.patterns.map(({ text, spellings }) => {
      const read = spellingsOf(spellings)
      return { text, seasons: 'seasons' in read ? read.seasons : {} }
    }),
    mapped: draft.value.mapped,
  }))
  const changed = computed(() => {
    if (!data.value) return false
    const { patterns, mapped } = draftOf(data.value)
    return JSON.stringify([patterns, mapped]) !== JSON.stringify([draft.value.patterns, draft.value.mapped])
  })
  function begin(): void {
    if (data.value) draft.value = draftOf(data.value)
    isRestored.value = false
  }
  watch(data, found => {
    if (!found) return
    begin()
    if (!kept.value || !found.may.edit) return
    draft.value = kept.value
    isRestored.value = changed.value
  })
  watch(
    draft,
    () => {
      if (data.value?.may.edit) kept.value = changed.value ? draft.value : null
    },
    { deep: true },
  )
  /** What was written is saved, or not wanted any more. */
  function forget(): void {
    kept.value = null
    begin()
  }
  return { draft, rules, changed, isRestored, forget }
}
