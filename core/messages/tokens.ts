/**
 * What stands in a rendered text for addresses that only the relay can write. Nothing that anybody types holds these:
 * control characters are refused from outside, so `{link}` in a name is text.
 */
export const LINK_TOKEN = '\u0001link\u0001'
export const WORD_TOKEN = '\u0001word\u0001'
/** The page of everything that is theirs, by the same link. */
export const YOURS_TOKEN = '\u0001yours\u0001'
export const DOOR_TOKEN = '\u0001door\u0001'
