/** Settings of items that are known by name, in the order told; each says its value in words. What else a file brings is kept and not told. */
const known: Readonly<Record<string, (value: string) => string>> = {
  attempts: value => (value === '1' ? '1 attempt' : `${value} attempts`),
  timeLimitMinutes: value => `${value} minutes`,
  feedback: value => `feedback ${value}`,
  help: value => value,
  groupWork: value => `work ${value}`,
  access: value => value,
}
/** The settings of an item that people set, in words: `2 attempts`, `20 minutes`. */
export const settingWords = (settings: Readonly<Record<string, unknown>>): string[] =>
  Object.entries(known).flatMap(([name, say]) => {
    const value = settings[name]
    return typeof value === 'string' || typeof value === 'number' ? [say(String(value))] : []
  })
