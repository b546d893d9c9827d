/** What an error says of itself, whatever was thrown. */
export const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))
