declare module 'linebreak' {
  /** The places where a line may end, one after another; the last is the end of the text. */
  export default class LineBreaker {
    constructor(text: string)
    nextBreak(): { position: number; required: boolean } | null
  }
}
