<script setup lang="ts">
import { sameContent } from '~~/core/plan/sources'
import type { PlanReply } from '~~/shared/api/plans'

/** The plan’s sources in their order: add, take away, move, or take another instead. */
const props = defineProps<{ plan: PlanReply; changing: boolean }>()
const emit = defineEmits<{ choose: [ids: string[]] }>()
const sides = computed(() => [props.plan.source, ...props.plan.more])
const isClosed = (id: string): boolean => props.plan.closed.some(each => each.course === id)
/** Sources that hold what an earlier one holds: everything would come twice. */
const doubles = computed(
  () =>
    new Map(
      sameContent(sides.value).map(({ at, as, items, of }) => [
        at,
        `Holds the same as ${codeText(present(sides.value[as]).course)}: ${items} of its ${counted(of, 'item')}. Both would come. Take one out.`,
      ]),
    ),
)
const ids = computed(() => sides.value.map(side => side.course.id))
/** What one is looking for a course for: instead of the only source, or in addition. */
const finding = ref<'instead' | 'add' | null>(null)
function take(id: string): void {
  emit('choose', finding.value === 'add' ? [...ids.value, id] : [id, ...ids.value.slice(1)])
  finding.value = null
}
function up(at: number): void {
  const next = [...ids.value]
  next.splice(at - 1, 2, next[at]!, next[at - 1]!)
  emit('choose', next)
}
</script>

<template>
  <ol class="sources" aria-label="Sources">
    <li v-for="(side, at) in sides" :key="side.course.id">
      <b>{{ codeOf(side.course) }}</b> <bdi>{{ side.course.title }}</bdi>, {{ side.course.term.name }}
      <span class="soft small"
        >{{ isClosed(side.course.id) ? 'not open any more' : counted(side.course.items, 'item')
        }}{{ at > 0 ? ', what is not in those above' : '' }}</span
      >
      <span v-if="doubles.has(at)" class="small settle" role="status">{{ doubles.get(at) }}</span>
      <span v-if="plan.may.edit && sides.length > 1" class="small do"
        ><button
          v-if="at > 0"
          class="link"
          type="button"
          :disabled="changing"
          :aria-label="`Move up ${codeText(side.course)}`"
          @click="up(at)"
        >
          Move up</button
        ><button
          class="link"
          type="button"
          :disabled="changing"
          :aria-label="`Take out ${codeText(side.course)}`"
          @click="
            emit(
              'choose',
              ids.filter(id => id !== side.course.id),
            )
          "
        >
          Take out
        </button></span
      >
    </li>
  </ol>
  <template v-if="plan.may.edit">
    <p v-if="!finding" class="small ways">
      <button class="link" type="button" :disabled="changing" @click="finding = 'instead'">
        {{ sides.length > 1 ? 'Change the first source' : 'Change the source' }} …</button
      ><button class="link" type="button" :disabled="changing || ids.length >= 8" @click="finding = 'add'">
        Add a source …
      </button>
    </p>
    <template v-else>
      <p class="small soft">
        {{
          finding === 'add'
            ? 'It comes after the others: what they hold already is not taken twice.'
            : 'Choosing another source drops your decisions about single items. The rules for dates stay.'
        }}
      </p>
      <SourceChoice
        :label="finding === 'add' ? 'Find a course to add as a source' : 'Find another course to roll from'"
        :not="[...ids, plan.target.course.id]"
        ><template #default="{ course }"
          ><button class="link" type="button" :disabled="changing" @click="take(course.id)">
            {{ finding === 'add' ? 'Add this course' : 'Use this course' }}
          </button></template
        ></SourceChoice
      >
      <p class="small ways">
        <NuxtLink :to="`/fill/${plan.target.course.id}?way=template`"
          >Use a template or a share code instead</NuxtLink
        ><button class="link" type="button" @click="finding = null">Cancel</button>
      </p>
    </template>
  </template>
</template>

<style scoped>
.sources {
  padding-left: 18px;
  margin-bottom: 10px;
}
.sources li {
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.sources .small {
  display: block;
}
.do,
.ways {
  display: flex !important;
  gap: 14px;
}
b {
  font-weight: 600;
}
</style>
