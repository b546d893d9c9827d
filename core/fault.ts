type Sentences = Readonly<Record<string, (details: never) => string>>
type Details<S extends Sentences, Code extends keyof S> = Parameters<S[Code]>
/** Something wrong, by its code, with what is known of it and the sentence made from that. */
export type FaultOf<S extends Sentences> = {
  [Code in keyof S]: {
    readonly code: Code
    readonly details: Details<S, Code>[0]
    readonly message: string
  }
}[keyof S]

/** Makes the faults of a subject from its list of sentences: the one place where a code becomes words. */
export const faultsFrom =
  <S extends Sentences>(sentences: S) =>
  <Code extends keyof S>(code: Code, ...details: Details<S, Code>): FaultOf<S> => {
    // Which details belong to which code is checked where a fault is made.
    const say = sentences[code] as unknown as (...details: Details<S, Code>) => string
    return { code, details: details[0], message: say(...details) }
  }
