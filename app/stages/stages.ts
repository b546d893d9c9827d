/** The stages that are there, with their fixed numbers. Run writes; what comes after works on the shell. */
export const stages = [
  { number: 1, key: 'pair', name: 'Pair' },
  { number: 2, key: 'carry', name: 'Carry' },
  { number: 3, key: 'clear', name: 'Clear' },
  { number: 4, key: 'date', name: 'Date' },
  { number: 6, key: 'run', name: 'Run' },
] as const
export type StageKey = (typeof stages)[number]['key']
/** Pages within a stage that have an address of their own. */
const within: Readonly<Record<string, StageKey>> = {
  grades: 'carry',
  find: 'carry',
  around: 'carry',
  settings: 'carry',
  worth: 'carry',
}
/** The stage that a page of a plan belongs to. */
export const stageAt = (path: string) => {
  const last = path.split('/').at(-1) ?? ''
  return stages.find(stage => stage.key === (within[last] ?? last))
}
