/** What a run may set of the shell itself: its names, and when students may enrol and enter. */
export interface ShellFacts {
  title: string | null
  label: string | null
  enrolFrom: string | null
  enrolTo: string | null
  openFrom: string | null
  openTo: string | null
}
