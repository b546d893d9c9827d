// The few globals of every runtime (Node, browsers, workers) that core may use: text to bytes and back.
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>
}
declare class TextDecoder {
  readonly encoding: string
  readonly encoding: string
  constructor(label?: string, options?: { fatal?: boolean })
  decode(bytes?: Uint8Array): string
}
