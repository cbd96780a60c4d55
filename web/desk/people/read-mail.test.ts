// @vitest-environment happy-dom
import { expect, it } from 'vitest'
import { LARGEST_MAIL, readMail } from './read-mail.ts'

const bytes = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text)
const mail = (...lines: string[]) => bytes(lines.join('\r\n'))

it('reads a mail: from whom, when, and its words in whatever way they are written (RFC 5322, 2045, 2047)', async () => {
  const found = await readMail(
    'a.eml',
    mail(
      'From: =?iso-8859-1?Q?Tom=E9?= Arrais <Tome.Arrais@example.org>',
      'Date: Fri, 27 Nov 2026 08:15:00 +0100',
      'Subject: =?UTF-8?B?UmU6IEF0w6kgYW1hbmjDow==?=',
      'MIME-Version: 1.0',
      'Content-Type: multipart/mixed; boundary="b"',
      '',
      '--b',
      'Content-Type: text/plain; charset=iso-8859-1',
      'Content-Transfer-Encoding: quoted-printable',
      '',
      'Ol=E1,=20',
      'l=E1 estarei.',
      '--b',
      'Content-Type: application/pdf; name="receita.pdf"',
      'Content-Disposition: attachment; filename="receita.pdf"',
      'Content-Transfer-Encoding: base64',
      '',
      'JVBERi0=',
      '--b--',
    ),
  )
  expect(found).toMatchObject({
    ...{ from: 'tome.arrais@example.org', at: Date.UTC(2026, 10, 27, 7, 15), subject: 'Re: Até amanhã' },
    attached: ['receita.pdf'],
  })
  expect(found.text).toMatch(/^Olá, ?\r?\nlá estarei\.$/)
})

it('makes words of HTML, and runs nothing in it', async () => {
  const { text } = await readMail(
    'a.eml',
    mail(
      'From: x@example.org',
      'Content-Type: text/html; charset=utf-8',
      '',
      '<div>Hello,<br>I am <b>coming</b> &amp;  glad.</div><script>alert(1)</script><img src="https://example.org/spy.png">',
    ),
  )
  expect(text).toBe('Hello,\nI am coming & glad.')
})

it('takes no date that cannot be, and no sender that is no address', async () => {
  for (const date of ['never', 'Thu, 1 Jan 1970 00:00:00 +0000', '']) {
    const found = await readMail('a.eml', mail('From: me', `Date: ${date}`, 'Subject: Hm', '', 'Yes.'))
    expect(found).toEqual({ subject: 'Hm', text: 'Yes.', attached: [] })
  }
})

it('says what is wrong with what is none', async () => {
  await expect(readMail('a.eml', mail('hello there'))).rejects.toThrow('is no mail')
  await expect(readMail('a.eml', mail('From: x@example.org', '', '  '))).rejects.toThrow('holds no words')
  await expect(readMail('a.eml', new Uint8Array(LARGEST_MAIL + 1))).rejects.toThrow('larger than 25 MB')
  let deep = 'hello'
  for (let i = 0; i < 60; i++)
    deep = `Content-Type: multipart/mixed; boundary="b${i}"\r\n\r\n--b${i}\r\n${deep}\r\n--b${i}--`
  await expect(readMail('deep.eml', bytes(`From: x@example.org\r\n${deep}`))).rejects.toThrow(
    "can't be read as a mail",
  )
})

it('cuts what is longer than is kept', async () => {
  const { text } = await readMail('a.eml', mail('From: x@example.org', '', 'x'.repeat(60_000)))
  expect(text).toHaveLength(50_000)
  expect(text.endsWith(' …')).toBe(true)
})
