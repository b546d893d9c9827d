/**
 * A path as packages write it, made plain: percent signs decoded, `./` and `../` resolved against a folder, backslashes taken
 * for slashes. Null if it leads outside.
 */
export function resolvePath(folder: string, path: string, decode = true): string | null {
  let plain = path
  if (decode) {
    try {
      plain = decodeURIComponent(path)
    } catch {
      /* a stray percent sign stands for itself */
    }
  }
  const parts = folder ? folder.split('/') : []
  for (const part of plain.replaceAll('\\', '/').split('/')) {
    if (part === '..') {
      if (parts.pop() === undefined) return null
    } else if (part !== '.' && part !== '') parts.push(part)
  }
  return parts.join('/')
}
export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')))
export const fileNameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1)

/** Finds a file by a path that may differ from its own in case or in how its letters are composed. */
export function pathFinder(paths: Iterable<string>): (path: string) => string | null {
  const exact = new Set(paths)
  const loose = new Map<string, string>()
  const loosened = (path: string): string => path.normalize('NFC').toLowerCase()
  for (const path of exact) if (!loose.has(loosened(path))) loose.set(loosened(path), path)
  return path => (exact.has(path) ? path : (loose.get(loosened(path)) ?? null))
}

const fileBase = /^(?:\$|%24)IMS-CC-FILEBASE(?:\$|%24)\/?/i
/** Has a scheme, names a host, or leads only within its own page. */
const elsewhere = /^(?:[a-z][a-z0-9+.-]*:|\/\/|\\\\|#|\?|$)/i

/**
 * The paths an address in the HTML of a package may mean, best first, and what follows the path (`?…#…`). Null for an address
 * that leads out of the package. `$IMS-CC-FILEBASE$` stands for the root of the package; packages are found that mean the
 * folder of the file by it (Common Cartridge 1.1 implementation guide, from memory).
 */
export function pathsMeant(from: string, address: string): { paths: string[]; rest: string } | null {
  const trimmed = address.trim()
  if (elsewhere.test(trimmed)) return null
  const cut = trimmed.search(/[?#]/)
  const path = cut < 0 ? trimmed : trimmed.slice(0, cut)
  const folder = folderOf(from)
  const based = fileBase.test(path)
  const bare = path.replace(fileBase, '')
  const bases = based ? ['', folder] : path.startsWith('/') ? [''] : [folder]
  const paths = bases
    .flatMap(base =>
      (bare.includes('%') ? [true, false] : [false]).map(decode => resolvePath(base, bare, decode)),
    )
    .filter(found => found !== null && found !== '') as string[]
  return { paths: [...new Set(paths)], rest: cut < 0 ? '' : trimmed.slice(cut) }
}
