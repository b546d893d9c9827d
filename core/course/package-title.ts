/** What a package's title says of its course: `HYD 240-01: Tidal Hydrography`. Without a code all of it is the title. */
export function titleOfPackage(text: string): { code: string; section: string; title: string } {
  const [, code, section, title] =
    /^(\p{Lu}{2,6}[ -]?\d{2,4}\p{Lu}?)(?:[-.](\d{1,3}|\p{Lu}))?[\s:–—-]+(.+)$/u.exec(text.trim()) ?? []
  return code && title
    ? { code, section: section ?? '', title }
    : { code: '', section: '', title: text.trim() }
}
