import { createServer, type Server } from 'node:http'
import { forward } from '@acolhida/core/contract/schemas'
import { instant, moment, zone } from '@acolhida/core/time'
import express from 'express'
import type { MovableClock } from '../ground/clock.ts'
import { bodyOf, failures, guarded, jsonOf } from '../http/security.ts'
import { listen, urlOf } from '../relay.ts'
import type { StandinCalendar } from './calendar.ts'
import type { Mailbox, Received } from './mailbox.ts'

const safe = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

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

const STYLE = `
:root{color-scheme:light}
body{margin:0;background:#faf6ee;color:#22302b;font:16px/1.5 system-ui,sans-serif}
header{background:#2c5f4f;color:#fff;padding:18px 24px;display:flex;gap:16px;align-items:center;flex-wrap:wrap}
h1{font:600 24px Georgia,serif;margin:0;margin-right:auto}
form{display:flex;gap:8px;align-items:center;flex-wrap:wrap;margin:0}
button{font:600 14px system-ui;border:1.5px solid #fff;border-radius:9px;background:transparent;color:#fff;padding:7px 12px;min-height:32px;cursor:pointer}
button:focus-visible,a:focus-visible,summary:focus-visible{outline:3px solid #d9982a;outline-offset:2px}
main{max-width:860px;margin:24px auto;padding:0 20px}
article{background:#fffdf8;border:1px solid #e3dac8;border-radius:14px;padding:14px 18px;margin-bottom:14px}
h2{font:600 18px Georgia,serif;margin:0}
.s{color:#5d6a63;font-size:14px}
pre{white-space:pre-wrap;overflow-wrap:anywhere;font:inherit;margin:10px 0 0}
details pre{font:13px/1.5 ui-monospace,monospace;background:#efe8da;border-radius:8px;padding:10px}
a{color:#2d5a8a}
header a{color:#fff}
textarea{width:100%;box-sizing:border-box;font:13px/1.5 ui-monospace,monospace;border:1px solid #8a8578;border-radius:9px;padding:10px;background:#fffdf8;color:#22302b}
main form{display:grid;gap:10px}
main button{border-color:#2c5f4f;color:#2c5f4f;justify-self:start}
`

function article(mail: Received): string {
  return `<article id="mail-${mail.id}"><h2>${safe(mail.subject)}</h2>
<div class="s">To ${safe(mail.to)} · from ${safe(mail.from)} · ${moment(instant(mail.at), zone('UTC'))} UTC</div>
<pre>${linked(mail.text)}</pre>${
    mail.calendar
      ? `<details><summary>Calendar entry</summary><pre>${safe(calendarLines(mail.calendar))}</pre></details>`
      : ''
  }</article>`
}

function page(mails: readonly Received[], clock: MovableClock): string {
  const steps = [
    ['10 minutes', 600_000],
    ['1 hour', 3_600_000],
    ['1 day', 86_400_000],
  ]
    .map(([name, ms]) => `<button name="forward" value="${ms}">Forward ${name}</button>`)
    .join('')
  const list = [...mails].reverse().map(article).join('\n')
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Letterbox</title><link rel="stylesheet" href="/style.css"></head><body>
<header><h1>Letterbox</h1><a href="/calendar">Another calendar</a><form method="post" action="/clock"><span>The relay's clock: ${moment(clock.now(), zone('UTC'))} UTC</span>${steps}</form></header>
<main>${list || '<p>What the practice sends to clients will lie here.</p>'}</main></body></html>`
}

function calendarPage(text: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Another calendar</title><link rel="stylesheet" href="/style.css"></head><body>
<header><h1>Another calendar</h1><a href="/">Letterbox</a></header>
<main><p>What stands here closes times at the door. The relay reads it every few minutes, and again before it takes a request.</p>
<form method="post" action="/calendar"><label for="text">iCalendar</label><textarea id="text" name="text" rows="22">${safe(text)}</textarea><button>Keep it</button></form></main></body></html>`
}

/** The stand-in that shows what was sent, and moves the demo's clock. It never runs in earnest. */
export async function startLetterbox(
  mailbox: Mailbox,
  clock: MovableClock,
  calendar: StandinCalendar,
  onMove: () => void,
  port = 0,
): Promise<{ url: string; server: Server }> {
  const app = guarded(clock)
  app.get('/style.css', (_req, res) => {
    res.type('css').send(STYLE)
  })
  app.get('/', (_req, res) => {
    res.type('html').send(page(mailbox.received, clock))
  })
  app.get('/api/mails', (_req, res) => {
    res.json(mailbox.received)
  })
  const move = (value: unknown): void => {
    clock.forward(bodyOf(forward, value).forward)
    onMove()
  }
  app.get('/calendar.ics', (_req, res) => {
    res.type('text/calendar').send(calendar.text)
  })
  app.get('/calendar', (_req, res) => {
    res.type('html').send(calendarPage(calendar.text))
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
