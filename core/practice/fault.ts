/** What is wrong in a practice beyond the shape of its data. */
export interface PracticeFault {
  path: string
  message: string
  /** An error can't be published; a warning can, and says what follows from it. */
  grade: 'error' | 'warning'
}
