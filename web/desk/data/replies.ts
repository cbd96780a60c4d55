import { normalMail, type Person, type Reply } from '@acolhida/core/people'
import type { DeskDatabase } from './database.ts'

/** The mails that were put beside somebody, the newest first. */
export const repliesOf = async (db: DeskDatabase, { emails }: Pick<Person, 'emails'>): Promise<Reply[]> =>
  (await db.replies.where('mail').anyOf(emails).toArray()).sort((a, b) => b.at - a.at)

/** Puts a mail beside whoever has its address. @throws BadData naming what is wrong */
export async function putReply(db: DeskDatabase, given: Reply): Promise<void> {
  const { letIn, reply } = await import('@acolhida/core/schemas')
  await db.replies.put(letIn<Reply>(reply, { ...given, mail: normalMail(given.mail) }, 'The mail'))
}
