/** A text as a part of an address; halves of characters, of which no address can be made, as the mark for what can't be read. */
export const asUri = (text: string): string => encodeURIComponent(text.replaceAll(/\p{Cs}/gu, '\ufffd'))
