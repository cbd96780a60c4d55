/** The shape of a mail address, for schemas. */
export const MAIL_SHAPE = /^[^\s@<>"(),:;\\[\]]+@[^\s@<>"(),:;\\[\]]+\.[^\s@<>"(),:;\\[\].]+$/

/** Whether a text has the shape of a mail address; whether it is one shows when the link sent to it is followed. */
export const isMail = (text: string): boolean => text.length <= 254 && MAIL_SHAPE.test(text.trim())

/** The shape of a phone number, for schemas. */
export const PHONE_SHAPE = /^[0-9+()\-.\s/]*$/

/** Whether a text can be a phone number as people write them. */
export const isPhone = (text: string): boolean => text.length <= LONGEST_PHONE && PHONE_SHAPE.test(text)

/** Characters of a phone number at most. */
export const LONGEST_PHONE = 40
