import { spawnSync } from 'node:child_process'
import { SECOND } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ask, freshKey, startRelay, type TestRelay } from './setup.ts'

const PYTHON = 'python3'
/** What another reader of mails finds: Python's `email`, of its standard library. */
const READER = `
import json, sys
from email import message_from_binary_file, policy
mail = message_from_binary_file(sys.stdin.buffer, policy=policy.default)
def part(kind):
    for one in mail.walk():
        if one.get_content_type() == kind:
            return one.get_content().replace('\\r\\n', '\\n').rstrip('\\n')
print(json.dumps({
    'subject': mail['subject'],
    'to': [one.addr_spec for one in mail['to'].addresses],
    'date': mail['date'].datetime.timestamp() * 1000,
    'id': mail['message-id'].strip(),
    'auto': mail['auto-submitted'],
    'text': part('text/plain'),
    'html': part('text/html'),
    'calendar': part('text/calendar'),
    'method': [p.get_param('method') for p in mail.walk() if p.get_content_type() == 'text/calendar'],
    'defects': [str(d) for p in mail.walk() for d in p.defects],
}))
`
interface Read {
  subject: string
  to: string[]
  date: number
  id: string
  auto: string
  text: string
  html: string
  calendar: string | null
  method: string[]
  defects: string[]
}
const hasPython = spawnSync(PYTHON, ['--version']).status === 0

/** A word that plain and HTML must both hold as it is. */
const WORD = `Ação às 8 <b>&amp; "já"</b> — مرحبا 🎻 ${'longo '.repeat(200)}`

let house: TestRelay
beforeAll(async () => {
  house = await startRelay({ demo: demoBackup })
  for (const command of [
    { do: 'welcome', text: WORD },
    { do: 'cancel', by: 'practitioner', text: WORD },
  ]) {
    const { status } = await ask(
      `${house.desk}/api/command`,
      { booking: 'asks-tome', command },
      { bearer: house.key, key: freshKey() },
    )
    expect(status).toBe(200)
    house.clock.forward(10 * SECOND)
    await house.relay.rounds.turn()
  }
})
afterAll(() => house.close())

describe.skipIf(!hasPython)('mails as they go', () => {
  it('are read by another library as by ours, every part of them, without a fault', () => {
    const { received } = house.mailbox
    expect(received.map(({ subject }) => subject)).toEqual([
      expect.stringMatching(/^Confirmed/),
      expect.stringMatching(/^Cancelled/),
    ])
    for (const mail of received) {
      const { stdout, stderr } = spawnSync(PYTHON, ['-c', READER], { input: mail.raw, encoding: 'utf8' })
      expect(stderr).toBe('')
      const read = JSON.parse(stdout) as Read
      expect(read).toMatchObject({
        ...{
          subject: mail.subject,
          to: [mail.to],
          id: mail.messageId,
          defects: [],
          method: [/Conf/.test(mail.subject) ? 'REQUEST' : 'CANCEL'],
        },
        auto: mail.headers['auto-submitted']?.replace(/^Auto-Submitted: /, ''),
        text: mail.text,
      })
      expect(read.text).toContain(WORD.trim())
      expect(read.html).toContain('Ação às 8 &lt;b&gt;&amp;amp; ')
      expect(read.html).not.toContain('<b>')
      expect(read.calendar).toMatch(/^BEGIN:VCALENDAR\n[\s\S]*END:VCALENDAR$/)
      expect(Math.abs(read.date - mail.at)).toBeLessThan(60 * SECOND)
      // RFC 5322 §2.1.1: no line of more than 998 characters.
      for (const line of mail.raw.toString('latin1').split('\r\n')) expect(line.length).toBeLessThan(999)
    }
  })
})
