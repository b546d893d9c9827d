<script setup lang="ts">
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { usePreferredDark } from '@vueuse/core'
import { Bar } from 'vue-chartjs'

/** What is due day by day or week by week, as it stands and as it would be eased. */
const props = defineProps<{
  labels: readonly string[]
  now: readonly number[]
  eased: readonly number[] | null
  limit: number | null
  told: string
}>()
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip, Legend)
const isDark = usePreferredDark()
const frame = ref<HTMLElement>()
/** Colours of the page, as the theme has them. */
const colour = (name: string): string =>
  frame.value ? getComputedStyle(frame.value).getPropertyValue(name).trim() : ''
interface Paint {
  now: string
  over: string
  eased: string
  ink: string
  rule: string
  sans: string
}
const colours = shallowRef<Paint | null>(null)
const mode = useTheme()
// A theme is there once the page has its attribute.
watch(
  [frame, mode, isDark],
  () => {
    colours.value = frame.value
      ? {
          now: colour('--ink-soft'),
          over: colour('--brass'),
          eased: colour('--tide'),
          ink: colour('--ink'),
          rule: colour('--rule'),
          sans: getComputedStyle(frame.value).fontFamily,
        }
      : null
  },
  { flush: 'post', immediate: true },
)
const data = computed((): ChartData<'bar'> | null => {
  const paint = colours.value
  if (!paint) return null
  const isOver = (n: number): boolean => props.limit !== null && n > props.limit
  return {
    labels: [...props.labels],
    datasets: [
      {
        label: 'as it stands',
        data: [...props.now],
        backgroundColor: props.now.map(n => (isOver(n) ? paint.over : paint.now)),
      },
      ...(props.eased ? [{ label: 'eased', data: [...props.eased], backgroundColor: paint.eased }] : []),
    ],
  }
})
const options = computed((): ChartOptions<'bar'> => {
  const paint = colours.value
  const font = { family: paint?.sans, size: 12 }
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        ticks: { color: paint?.ink, font, maxRotation: 0, autoSkipPadding: 12 },
        grid: { display: false },
      },
      y: {
        beginAtZero: true,
        ticks: { color: paint?.ink, font, precision: 0 },
        grid: { color: paint?.rule },
      },
    },
    plugins: { legend: { display: false } },
  }
})
</script>

<template>
  <div ref="frame" class="chart">
    <Bar v-if="data" :data="data" :options="options" :aria-label="told" />
  </div>
</template>

<style scoped>
.chart {
  height: 190px;
  position: relative;
  font-family: var(--sans);
}
</style>
