/** What hinders mail, for programs, and what it is and what to do, for people. */
export interface MailProblem {
  code: 'sign-in' | 'certificate' | 'no-tls' | 'unknown-host' | 'away' | 'slow' | 'sender' | 'other'
  said: string
}

interface HostError extends Error {
  code?: string
  responseCode?: number
  command?: string
}

const SAID: Record<Exclude<MailProblem['code'], 'other'>, string> = {
  'sign-in': 'The mail host refuses the name or password. Look at ACOLHIDA_SMTP, and start the relay again.',
  certificate:
    'The mail host’s certificate can’t be trusted, so nothing is handed to it. Look whether ACOLHIDA_SMTP names it as its certificate does.',
  'no-tls':
    'The mail host offers no TLS, so nothing is handed to it. Try smtps:// in ACOLHIDA_SMTP, or another host.',
  'unknown-host': 'The mail host’s name leads nowhere. Look at ACOLHIDA_SMTP.',
  away: 'The mail host can’t be reached. Mail waits, and is tried again; look at its name and port in ACOLHIDA_SMTP.',
  slow: 'The mail host does not answer in time. Mail waits, and is tried again.',
  sender:
    'The mail host does not take mail from this sender. Look at ACOLHIDA_MAIL_FROM and ACOLHIDA_MAIL_ENVELOPE.',
}

function codeOf({ code, responseCode, command, message }: HostError): MailProblem['code'] {
  if (code === 'EAUTH' || responseCode === 535 || responseCode === 530) return 'sign-in'
  if (command === 'MAIL FROM') return 'sender'
  if (/certificate|self[- ]signed|altnames/i.test(message)) return 'certificate'
  if (code === 'ETLS' || /STARTTLS/i.test(message)) return 'no-tls'
  if (code === 'EDNS' || code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'unknown-host'
  if (code === 'ETIMEDOUT') return 'slow'
  if (code === 'ECONNECTION' || code === 'ECONNREFUSED' || code === 'ESOCKET') return 'away'
  return 'other'
}

/** What an error of the mail host's means. */
export function problemAnswer(error: Error): MailProblem {
  const code = codeOf(error)
  const said = code === 'other' ? `The mail host says: ${error.message.slice(0, 300)}` : SAID[code]
  return { code, said }
}
