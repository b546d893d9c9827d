<script setup lang="ts">
import type { UploadReply } from '~~/shared/api/uploads'

/** What was noticed while reading: how grave, where, and what came of it. The gravest come first. */
type Found = NonNullable<UploadReply['report']>['findings'][number]
const props = defineProps<{ findings: Found[] }>()
const grave = ['error', 'warning', 'note'] as const
const words: Record<Found['severity'], [string, string]> = {
  error: ['error', 'errors'],
  warning: ['warning', 'warnings'],
  note: ['note', 'notes'],
}
const sorted = computed(() =>
  [...props.findings].sort((a, b) => grave.indexOf(a.severity) - grave.indexOf(b.severity)),
)
const whole = ref(false)
const shown = computed(() => (whole.value ? sorted.value : sorted.value.slice(0, 12)))
const total = (list: readonly Found[]): number => list.reduce((sum, finding) => sum + (finding.count ?? 1), 0)
const sum = computed(() =>
  grave
    .map(
      severity => [severity, total(props.findings.filter(finding => finding.severity === severity))] as const,
    )
    .filter(([, n]) => n > 0)
    .map(([severity, n]) => counted(n, ...words[severity]))
    .join(', '),
)
</script>

<template>
  <section>
    <h2>
      What was noticed <span class="soft small">{{ sum || 'nothing' }}</span>
    </h2>
    <p v-if="!findings.length" class="soft">The whole file could be read.</p>
    <table v-else class="ruled findings">
      <thead>
        <tr>
          <th scope="col">Kind</th>
          <th scope="col">Where</th>
          <th scope="col">What happened</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(finding, at) in shown" :key="at" :class="`is-${finding.severity}`">
          <td class="grave">{{ finding.severity }}</td>
          <td class="where">{{ finding.where }}</td>
          <td>{{ finding.message }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="findings.some(finding => finding.severity === 'error')" class="soft small">
      An error costs only the part it names. To get that part too, correct it where the file was made and send
      the file again.
    </p>
    <button v-if="sorted.length > shown.length" class="link" type="button" @click="whole = true">
      Show the other {{ sorted.length - shown.length }} lines
    </button>
  </section>
</template>

<style scoped>
.findings td {
  font-size: 13px;
  padding-top: 5px;
  padding-bottom: 5px;
  overflow-wrap: anywhere;
}
.grave {
  width: 82px;
  font-weight: 600;
}
.where {
  width: 32%;
}
tr.is-error .grave {
  color: var(--buoy);
}
tr.is-warning .grave {
  color: var(--brass-text);
}
tr.is-note .grave {
  font-weight: 400;
  color: var(--ink-soft);
}
h2 .small {
  font: 400 12.5px var(--sans);
  margin-left: 8px;
}
</style>
