/** What the pages' own side of the wire has to say, whatever is asked for. */
export type Saying = 'unreachable' | 'failed' | 'too-many' | 'too-large' | 'clock-moved' | 'clock-off'
type Values = Readonly<Record<string, string | number>>

/** In plain English until a page says it otherwise: so that nothing that reads catalogues need come first. */
const PLAIN: Readonly<Record<Saying, (values: Values) => string>> = {
  unreachable: () => 'No connection just now. Nothing is lost; please try again.',
  failed: () => 'Something went wrong. Nothing is lost; please try again.',
  'too-many': () => 'That was a lot at once. Please wait a minute and try again.',
  'too-large': () => 'That is more than can be sent at once.',
  'clock-moved': () => 'The clock of this demo has been moved; times here follow it.',
  'clock-off': ({ minutes, way }) =>
    `Your device’s clock is ${minutes} min ${way}; times here follow the practice’s.`,
}

let words: ((saying: Saying, values: Values) => string) | undefined

/** Has all of it said in other words from now on. */
export const sayOtherwise = (how: typeof words): void => {
  words = how
}

export const saying = (what: Saying, values: Values = {}): string =>
  words ? words(what, values) : PLAIN[what](values)

/** What is said the same of anything that is asked for. */
export const isSaying = (code: string): code is Saying => Object.hasOwn(PLAIN, code)
