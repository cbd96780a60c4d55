import { TROUBLES, type Trouble } from '@acolhida/core/contract'

/** What hinders mail. */
export type MailTrouble = Extract<Trouble, `mail.${string}`>

interface HostError extends Error {
  code?: string
  responseCode?: number
  command?: string
}

/** What an error of the mail host's means. */
export function mailTrouble({ code, responseCode, command, message }: HostError): MailTrouble {
  if (code === 'EAUTH' || responseCode === 535 || responseCode === 530) return 'mail.sign-in'
  if (command === 'MAIL FROM') return 'mail.sender'
  if (/certificate|self[- ]signed|altnames/i.test(message)) return 'mail.certificate'
  if (code === 'ETLS' || /STARTTLS/i.test(message)) return 'mail.no-tls'
  if (code === 'EDNS' || code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'mail.unknown-host'
  if (code === 'ETIMEDOUT') return 'mail.slow'
  if (code === 'ECONNECTION' || code === 'ECONNREFUSED' || code === 'ESOCKET') return 'mail.away'
  return 'mail.other'
}

/** The same in a sentence; what has none of its own, as the host says it. */
export function mailTroubleSaid(error: Error): string {
  const trouble = mailTrouble(error)
  return trouble === 'mail.other' ? `The mail host says: ${error.message.slice(0, 300)}` : TROUBLES[trouble]
}
