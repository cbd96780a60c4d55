import { createServer, type Server } from 'node:http'
import { forward } from '@acolhida/core/contract/schemas'
import { instant, moment, zone } from '@acolhida/core/time'
import express from 'express'
import type { MovableClock } from '../ground/clock.ts'
import { bodyOf, failures, guarded, jsonOf } from '../http/security.ts'
import { listen, urlOf } from '../relay.ts'
import type { StandinCalendar } from './calendar.ts'
import type { Mailbox, Received } from './mailbox.ts'
import { isManner, MANNERS, type Manner } from './manner.ts'
import { EMBLEM, safe, serveStyle } from './style.ts'
import type { StandinTexts, TakenText } from './texts.ts'

/** Text with its web addresses made into links; everything else stays text. */
const linked = (text: string): string =>
  safe(text).replace(
    /https?:\/\/[^\s<]+/g,
    (url) => `<a href="${url}" target="_blank" rel="noopener">${url}</a>`,
  )

/** A calendar entry in words for the letterbox: its lines, unfolded. */
const calendarLines = (calendar: string): string =>
  calendar
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
    .filter((line) => /^(METHOD|UID|SEQUENCE|DTSTART|DTEND|SUMMARY|LOCATION|STATUS)/.test(line))
    .join('\n')

function article(mail: Received): string {
  return `<article id="mail-${mail.id}"><h2>${safe(mail.subject)}</h2>
<div class="s">To ${safe(mail.to)} · from ${safe(mail.from)} · ${moment(instant(mail.at), zone('UTC'))} UTC</div>
<pre>${linked(mail.text)}</pre>${
    mail.calendar
      ? `<details><summary>Calendar entry</summary><pre>${safe(calendarLines(mail.calendar))}</pre></details>`
      : ''
  }</article>`
}

/** A page of the letterbox: what is in it, beside the ways and the clock of the demo. */
function page(title: string, path: '/' | '/calendar', clock: MovableClock, main: string): string {
  const steps = [
    ['10 minutes', 600_000],
    ['1 hour', 3_600_000],
    ['1 day', 86_400_000],
  ]
    .map(([name, ms]) => `<button name="forward" value="${ms}">Forward ${name}</button>`)
    .join('')
  const way = (to: string, name: string): string =>
    `<a href="${to}"${to === path ? ' aria-current="page"' : ''}>${name}</a>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · Acolhida</title><link rel="stylesheet" href="/style.css"></head><body>
<nav class="rail" aria-label="Letterbox"><div class="brand">${EMBLEM} Acolhida</div>${way('/', 'Letterbox')}${way('/calendar', 'Another calendar')}
<form method="post" action="/clock"><span>The demo’s clock:<br>${moment(clock.now(), zone('UTC'))} UTC</span>${steps}</form></nav>
<main><h1>${title}</h1>${main}</main></body></html>`
}

const textArticle = ({ id, to, text, at }: TakenText): string =>
  `<article id="text-${safe(id)}"><h2>Text to ${safe(to)}</h2>
<div class="s">${moment(instant(at), zone('UTC'))} UTC</div><pre>${linked(text)}</pre>
<form method="post" action="/answer"><input type="hidden" name="from" value="${safe(to)}"><label for="answer-${safe(id)}">Answer to it</label><input id="answer-${safe(id)}" name="text" maxlength="200" value="STOP"><button>Answer</button></form></article>`

const SAID: Record<Manner, string> = {
  takes: 'takes everything',
  refuses: 'refuses everything for good',
  slow: 'takes it when the clock is moved',
  down: 'does not answer',
}

/** How one of the stand-ins behaves, to be changed. */
const mannerForm = (name: string, of: 'mail' | 'texts', now: Manner): string =>
  `<form method="post" action="/manner"><input type="hidden" name="of" value="${of}"><label for="manner-${of}">${name}</label><select id="manner-${of}" name="manner">${MANNERS.map((one) => `<option value="${one}"${one === now ? ' selected' : ''}>${SAID[one]}</option>`).join('')}</select><button>Be so</button></form>`

/** The stand-ins that take messages. */
export interface Takers {
  mailbox: Mailbox
  texts?: StandinTexts
}

/** Everything that was sent, or what was sent to one. */
function mailsPage({ mailbox, texts }: Takers, clock: MovableClock, to: string): string {
  const mails = mailbox.received.map((mail) => ({ to: mail.to, at: mail.at, shown: article(mail) }))
  const phones = (texts?.taken ?? []).map((text) => ({ to: text.to, at: text.at, shown: textArticle(text) }))
  const all = [...mails, ...phones].sort((a, b) => b.at - a.at)
  const list = all
    .filter((one) => !to || one.to === to)
    .map(({ shown }) => shown)
    .join('\n')
  const whom = [...new Set(all.map((one) => one.to))].sort()
  const ways = [['', 'everybody'], ...whom.map((one) => [one, one])]
    .map(
      ([key, name]) =>
        `<a href="/${key ? `?to=${encodeURIComponent(key)}` : ''}"${key === to ? ' aria-current="true"' : ''}>${safe(name ?? '')}</a>`,
    )
    .join(' · ')
  return page(
    'Letterbox',
    '/',
    clock,
    `<p class="lead">What the practice sends, newest first. It lies here only in the demo.</p>${all.length > 0 ? `<p>To ${ways}</p>` : ''}${list || '<p>Nothing has been sent yet.</p>'}<details><summary>How mail host and gateway behave</summary>${mannerForm('The mail host', 'mail', mailbox.manner)}${texts ? mannerForm('The text gateway', 'texts', texts.manner) : ''}</details>`,
  )
}

const calendarPage = (text: string, clock: MovableClock): string =>
  page(
    'Another calendar',
    '/calendar',
    clock,
    `<p class="lead">What stands here closes times at the door. The relay reads it every few minutes, and again before it takes a request.</p>
<form method="post" action="/calendar"><label for="text">iCalendar</label><textarea id="text" name="text" rows="22">${safe(text)}</textarea><button>Keep it</button></form>`,
  )

/**
 * The stand-in that shows what was sent, and moves the demo's clock. It never runs in earnest.
 * @param assets the folder of the built desk's files, for its fonts
 */
export async function startLetterbox(
  takers: Takers,
  clock: MovableClock,
  calendar: StandinCalendar,
  onMove: () => void,
  { port = 0, assets = '' }: { port?: number; assets?: string } = {},
): Promise<{ url: string; server: Server }> {
  const app = guarded({ clock, loopbackOnly: true })
  serveStyle(app, assets)
  const { mailbox, texts } = takers
  app.get('/', (req, res) => {
    const { to } = req.query
    res.type('html').send(mailsPage(takers, clock, typeof to === 'string' ? to : ''))
  })
  app.get('/api/mails', (_req, res) => {
    res.json(mailbox.received)
  })
  app.get('/api/texts', (_req, res) => {
    res.json(texts?.taken ?? [])
  })
  const form = express.urlencoded({ extended: false, limit: 5_000 })
  app.post('/manner', form, (req, res) => {
    const { of, manner } = req.body as { of?: unknown; manner?: unknown }
    if (isManner(manner)) {
      if (of === 'texts' && texts) texts.manner = manner
      if (of === 'mail') mailbox.manner = manner
    }
    res.redirect(303, '/')
  })
  app.post('/answer', form, async (req, res) => {
    const { from, text } = req.body as { from?: unknown; text?: unknown }
    if (texts && typeof from === 'string' && typeof text === 'string') await texts.answer(from, text)
    onMove()
    res.redirect(303, '/')
  })
  const move = (value: unknown): void => {
    clock.forward(bodyOf(forward, value).forward)
    mailbox.catchUp()
    texts?.catchUp()
    onMove()
  }
  app.get('/calendar.ics', (_req, res) => {
    res.type('text/calendar').send(calendar.text)
  })
  app.get('/calendar', (_req, res) => {
    res.type('html').send(calendarPage(calendar.text, clock))
  })
  app.post('/calendar', express.urlencoded({ extended: false, limit: 200_000 }), (req, res) => {
    calendar.text = String((req.body as { text?: unknown }).text ?? '')
    res.redirect(303, '/calendar')
  })
  app.post('/api/clock', jsonOf({ largest: 1_000 }), (req, res) => {
    move(req.body)
    res.json({ now: clock.now() })
  })
  app.post('/clock', express.urlencoded({ extended: false, limit: 1_000 }), (req, res) => {
    move({ forward: Number((req.body as { forward?: unknown }).forward) })
    res.redirect(303, '/')
  })
  app.use(failures)
  const server = await listen(createServer(app), port, '127.0.0.1')
  return { url: urlOf(server), server }
}
