/** What hinders the relay, and what to do about it, for whoever minds it: at the desk, and in a terminal. */
export const TROUBLES = {
  'mail.sign-in':
    'The mail host refuses the name or the password. Mail waits. Put it right in ACOLHIDA_SMTP, and start the relay again.',
  'mail.certificate':
    'The mail host’s certificate can’t be trusted, so nothing is handed to it, and mail waits. Look whether ACOLHIDA_SMTP names the host as its certificate does.',
  'mail.no-tls':
    'The mail host offers no TLS, so nothing is handed to it, and mail waits. Write smtps:// in ACOLHIDA_SMTP, or take another host.',
  'mail.unknown-host': 'The name of the mail host leads nowhere. Mail waits. Look at ACOLHIDA_SMTP.',
  'mail.away':
    'The mail host can’t be reached. Mail waits, and is tried again by itself. If it lasts, look at the name and the port in ACOLHIDA_SMTP.',
  'mail.slow': 'The mail host does not answer in time. Mail waits, and is tried again by itself.',
  'mail.sender':
    'The mail host takes no mail from this sender. Mail waits. Look at ACOLHIDA_MAIL_FROM and ACOLHIDA_MAIL_ENVELOPE.',
  'mail.other': 'The mail host does not take what is handed to it. The outbox shows what it says.',
  'file.full':
    'The relay’s disk is full. It takes nothing in and sends nothing until there is room again: make some on its machine.',
  'file.locked':
    'Another program holds the relay’s file. It takes nothing in and sends nothing until that has ended.',
  'file.read-only':
    'The relay’s file can’t be written. It takes nothing in and sends nothing: look at whose the file and its folder are.',
  'file.broken':
    'The relay’s file is damaged. End the relay, and begin from a copy; this desk gives back what that lacks.',
  'file.other': 'The relay can’t write its file. It takes nothing in and sends nothing; its log says why.',
} as const

/** What hinders the relay now, as a word for programs. */
export type Trouble = keyof typeof TROUBLES

/** What a word stands for that the relay has sent; a newer relay may know of more. */
export const troubleWords = (said: string): string =>
  Object.hasOwn(TROUBLES, said)
    ? TROUBLES[said as Trouble]
    : 'Something hinders the relay; its log says what.'
