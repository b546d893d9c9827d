/** Settings of items that are known by name, in the order told; each says its value in words. What else a file brings is kept and not told. */
const known = {
  attempts: (value: string) => (value === '1' ? '1 attempt' : `${value} attempts`),
  timeLimitMinutes: (value: string) => `${value} minutes`,
  feedback: (value: string) => `feedback ${value}`,
  help: (value: string) => value,
  groupWork: (value: string) => `work ${value}`,
  access: (value: string) => value,
} satisfies Record<string, (value: string) => string>
export type SettingName = keyof typeof known
export const settingNames = Object.keys(known) as [SettingName, ...SettingName[]]
/** What a setting is about, as the head of a column. */
export const settingTitles: Readonly<Record<SettingName, string>> = {
  attempts: 'Attempts',
  timeLimitMinutes: 'Time limit, minutes',
  feedback: 'Feedback',
  help: 'Help',
  groupWork: 'Group work',
  access: 'Access',
}
/** The settings that are known by name, as text; others are left out. */
export const knownSettings = (
  settings: Readonly<Record<string, unknown>>,
): Partial<Record<SettingName, string>> =>
  Object.fromEntries(
    settingNames.flatMap(name => {
      const value = settings[name]
      return typeof value === 'string' || typeof value === 'number' ? [[name, String(value)]] : []
    }),
  )
/** The settings of an item that people set, in words: `2 attempts`, `20 minutes`. */
export const settingWords = (settings: Readonly<Record<string, unknown>>): string[] =>
  Object.entries(knownSettings(settings)).map(([name, value]) => known[name as SettingName](value))
