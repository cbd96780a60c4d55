/** The shape of a mail address, for schemas. */
export const MAIL_SHAPE = /^[^\s@<>"(),:;\\[\]]+@[^\s@<>"(),:;\\[\]]+\.[^\s@<>"(),:;\\[\].]+$/

/** Whether a text has the shape of a mail address; whether it is one shows when the link sent to it is followed. */
export const isMail = (text: string): boolean => text.length <= 254 && MAIL_SHAPE.test(text.trim())
