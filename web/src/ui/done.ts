/** Something that was done, in words, and how to take it back. */
export interface Done {
  said: string
  undo?: () => Promise<unknown>
}
