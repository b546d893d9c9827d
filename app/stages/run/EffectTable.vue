<script setup lang="ts">
import { itemKinds } from '~~/core/course/model'
import { hundredPoints } from '~~/core/grading/points'
import { graceText } from '~~/core/grading/grace'
import { settleBesideDates, settleTexts } from '~~/core/plan/to-settle'
import { gradesText, leftText, lostCount, removedText, updatedText } from '~~/core/plan/effect-text'
import type { CourseLine } from '~~/shared/api/courses'
import type { EffectView } from '~~/shared/api/plans'

/** The whole effect of a run in numbers. */
const props = defineProps<{
  effect: EffectView
  source: CourseLine
  target: CourseLine
  /** Links that lead nowhere then, and to how many things that stay behind: known while one plans. */
  lostLinks?: { links: number; things: number }
  /** There are several sources. */
  several?: boolean
  /** The run is done: it is told as it was. */
  done?: boolean
}>()
const oldText = computed(() => {
  if (props.source.origin === 'file') return 'the file'
  return props.several ? 'the old courses' : 'the old course'
})
const asItStood = computed(() => `in the order of ${oldText.value}`)
const kinds = computed(() =>
  itemKinds
    .flatMap(kind => {
      const n = props.effect.added.byKind[kind]
      return n ? [counted(n, ...kindWords(kind))] : []
    })
    .join(', '),
)
const dates = computed(() => {
  const { straight, moved, held, none } = props.effect.dates
  return [
    `${straight} straight across`,
    moved && `${moved} moved off closures or to keep their order`,
    held && `${held} held by hand`,
    props.effect.settle.dates && `${props.effect.settle.dates} to settle`,
    none && `${none} taken away`,
  ]
    .filter(Boolean)
    .join(', ')
})
const periodsText = computed(() =>
  [
    ...props.effect.periods.map(({ name, items }) => `${counted(items, 'item')} in ${name}`),
    props.effect.settle.periods && `${props.effect.settle.periods} in none yet`,
  ]
    .filter(Boolean)
    .join(', '),
)
const rosterText = computed(() => {
  const { students } = props.target
  if (students === 0) return 'nobody is on its roster'
  return `the ${counted(students, 'student')} on its roster ${students === 1 ? 'stays' : 'stay'}`
})
const keptText = computed(() => `items it holds now; ${rosterText.value}`)
const emptyText = computed(() => `it holds no items; ${rosterText.value}`)
const unseenText = computed(() => {
  const { unseen: agreed } = props.effect.traces
  const { unseen: open } = props.effect.settle
  return [
    agreed && `${agreed} ${agreed === 1 ? 'comes' : 'come'} because somebody said so`,
    open && `${open} to settle`,
  ]
    .filter(Boolean)
    .join(', ')
})
/** Weights that do not make 100 stand out: it may be meant, and it may be a slip. */
const isOdd = computed(() => {
  const { by, categories, sum } = props.effect.grades
  return by === 'weights' && categories > 0 && sum !== hundredPoints
})
/** All that a person has still to say, but for dates: these stand with the dates. */
const settleText = computed(() => settleTexts({ ...props.effect.settle, dates: 0 }).join(', '))
const changesNothing = computed(() => lostCount(props.effect) === 0)
</script>

<template>
  <table class="ruled">
    <thead>
      <tr>
        <th scope="col">What</th>
        <th scope="col" class="number">How many</th>
        <th scope="col">Which</th>
      </tr>
    </thead>
    <tbody>
      <tr>
        <td>Units added</td>
        <td class="number">{{ effect.added.units }}</td>
        <td>
          {{ effect.kept.units || effect.kept.items ? 'below what the shell holds' : asItStood }}
        </td>
      </tr>
      <tr>
        <td>Items added</td>
        <td class="number">{{ effect.added.items }}</td>
        <td>{{ kinds || 'none' }}</td>
      </tr>
      <tr v-if="effect.added.categories">
        <td>Grade categories added</td>
        <td class="number">{{ effect.added.categories }}</td>
        <td>with their weights</td>
      </tr>
      <tr>
        <td>Grade rules</td>
        <td class="number">{{ effect.grades.categories }}</td>
        <td :class="{ settle: isOdd }">{{ gradesText(effect.grades) }}</td>
      </tr>
      <tr v-if="effect.ownAdded.made">
        <td>Made in the plan</td>
        <td class="number">{{ effect.ownAdded.made }}</td>
        <td>units and items that {{ oldText }} {{ several ? 'do' : 'does' }} not have, counted above</td>
      </tr>
      <tr v-if="effect.ownAdded.found">
        <td>From other courses</td>
        <td class="number">{{ effect.ownAdded.found }}</td>
        <td>items you found and took, counted above; their courses stay as they are</td>
      </tr>
      <tr v-if="effect.frames">
        <td>Frames</td>
        <td class="number">{{ effect.frames }}</td>
        <td>title, dates, points and category come; the content stays behind</td>
      </tr>
      <tr v-if="effect.given">
        <td>Settings given</td>
        <td class="number">{{ effect.given }}</td>
        <td>items with other settings than in {{ oldText }}</td>
      </tr>
      <tr v-if="effect.around.comes || effect.around.replaced">
        <td>Around the units</td>
        <td class="number">{{ effect.around.comes }}</td>
        <td>
          home page, contact card, materials and the like{{
            effect.around.replaced ? `; ${effect.around.replaced} of the shell replaced` : ''
          }}
        </td>
      </tr>
      <tr v-if="effect.filled">
        <td>Places filled</td>
        <td class="number">{{ effect.filled }}</td>
        <td>empty places of the shell’s template</td>
      </tr>
      <tr v-if="effect.keptBoth">
        <td>Kept both</td>
        <td class="number">{{ effect.keptBoth }}</td>
        <td>what comes stands beside the shell’s own</td>
      </tr>
      <tr v-if="effect.renamed">
        <td>Renamed</td>
        <td class="number">{{ effect.renamed }}</td>
        <td>units and items that come under another name</td>
      </tr>
      <tr v-if="effect.moved">
        <td>Moved</td>
        <td class="number">{{ effect.moved }}</td>
        <td>into another unit than before, or in another order</td>
      </tr>
      <tr v-if="effect.texts.made">
        <td>Texts put together</td>
        <td class="number">{{ effect.texts.made }}</td>
        <td>of one heading, several items, chosen passages or chosen questions</td>
      </tr>
      <tr v-if="effect.texts.joined">
        <td>Text alone</td>
        <td class="number">{{ effect.texts.joined }}</td>
        <td>goes into another item’s; points, dates, category and settings do not come</td>
      </tr>
      <tr v-if="effect.traces.out">
        <td>Traces of students</td>
        <td class="number">{{ effect.traces.out }}</td>
        <td>taken out of texts, titles, files or settings, or become “a student”</td>
      </tr>
      <tr v-if="effect.traces.kept">
        <td>Traces kept</td>
        <td class="number">{{ effect.traces.kept }}</td>
        <td>each for a reason that somebody gave</td>
      </tr>
      <tr v-if="effect.traces.passed">
        <td>Names only to look at</td>
        <td class="number">{{ effect.traces.passed }}</td>
        <td>words that are a student’s name too; they stay, and Clear lists them</td>
      </tr>
      <tr v-if="effect.traces.unseen + effect.settle.unseen">
        <td>Files not looked into</td>
        <td class="number">{{ effect.traces.unseen + effect.settle.unseen }}</td>
        <td :class="{ settle: effect.settle.unseen }">{{ unseenText }}</td>
      </tr>
      <tr>
        <td>Dates written</td>
        <td class="number">{{ effect.dates.dates }}</td>
        <td>{{ dates }}</td>
      </tr>
      <tr v-if="periodsText">
        <td>Grading periods</td>
        <td class="number">{{ effect.periods.length }}</td>
        <td :class="{ settle: effect.settle.periods }">{{ periodsText }}</td>
      </tr>
      <tr v-if="settleText">
        <td>Also to settle</td>
        <td class="number">{{ settleBesideDates(effect.settle) }}</td>
        <td class="settle">{{ settleText }}</td>
      </tr>
      <tr v-if="effect.grace">
        <td>Grace allowances</td>
        <td class="number">{{ effect.grace.count }}</td>
        <td>{{ graceText(effect.grace) }}</td>
      </tr>
      <tr v-if="changesNothing">
        <td>Overwritten or removed</td>
        <td class="number">0</td>
        <td>nothing in the shell is overwritten or removed</td>
      </tr>
      <tr v-if="effect.replaced">
        <td>Replaced</td>
        <td class="number">{{ effect.replaced }}</td>
        <td>{{ effect.replaced === 1 ? 'item' : 'items' }} of the shell, written over whole</td>
      </tr>
      <tr v-if="effect.updated.things">
        <td>Brought up to date</td>
        <td class="number">{{ effect.updated.things }}</td>
        <td>{{ updatedText(effect.updated) }}</td>
      </tr>
      <tr v-if="removedText(effect.removed)">
        <td>Removed</td>
        <td class="number">{{ effect.removed.things + effect.removed.places }}</td>
        <td>{{ removedText(effect.removed) }} of the shell</td>
      </tr>
      <tr v-if="effect.beside">
        <td>Removed beside it</td>
        <td class="number">{{ effect.beside.things }}</td>
        <td>
          from {{ listText(effect.beside.sections) }}, which
          {{ effect.beside.sections.length === 1 ? 'shows' : 'show' }} this content then
        </td>
      </tr>
      <tr v-if="effect.kept.items || effect.kept.units">
        <td>Stay in the shell</td>
        <td class="number">{{ effect.kept.items }}</td>
        <td>{{ keptText }}</td>
      </tr>
      <tr v-else>
        <td>Stay in the shell</td>
        <td class="number">0</td>
        <td>{{ emptyText }}</td>
      </tr>
      <tr v-if="effect.already">
        <td>There already</td>
        <td class="number">{{ effect.already }}</td>
        <td>came with an earlier run or file; what changes of it is listed below</td>
      </tr>
      <tr v-if="effect.deletedThere">
        <td>Stay deleted</td>
        <td class="number">{{ effect.deletedThere }}</td>
        <td>somebody deleted them in the shell</td>
      </tr>
      <tr v-if="lostLinks?.links">
        <td>Links to nowhere</td>
        <td class="number">{{ lostLinks.links }}</td>
        <td class="settle">
          they lead to {{ counted(lostLinks.things, 'thing that stays', 'things that stay') }} behind; each is
          listed below
        </td>
      </tr>
      <tr>
        <td>Left behind</td>
        <td class="number">{{ effect.leftBehind }}</td>
        <td>{{ leftText(effect, done ? 'did' : 'does') }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.ruled {
  max-width: 860px;
}
.ruled td:first-child {
  width: 190px;
  font-weight: 600;
}
.ruled .number {
  width: 100px;
  white-space: nowrap;
  padding-right: 26px;
}
</style>
