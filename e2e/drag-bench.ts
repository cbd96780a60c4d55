import type { BookingEvent } from '@acolhida/core/booking'
import { HOUR, type Instant, instant, zone } from '@acolhida/core/time'
import { bookingsOf, letHappen } from '@acolhida/relay/tests/inside'
import type { Page } from 'playwright-core'
import { eventually, type House, openHouse } from './house.ts'

/**
 * How smoothly a session is dragged over a diary of four weeks with 400 sessions, by the browser's own tracing:
 * frames drawn a second while the pointer moves, and how long the main thread was busy in each.
 */
const SESSIONS = 400

/** Four hundred short sessions, sixteen or so a day from Monday to Saturday, beside what the demo holds. */
function fill(house: House): Instant {
  const pattern = bookingsOf(house.relay).find((booking) => booking.status === 'booked')!
  const home = zone('Europe/Lisbon')
  const { day } = home.toWall(house.clock.now())
  const monday = ((day - ((day + 3) % 7)) as typeof day) + 7
  const now = house.clock.now()
  let n = 0
  for (let d = 0; n < SESSIONS; d++) {
    if (d % 7 === 6) continue
    for (let i = 0; i < 17 && n < SESSIONS; i++, n++) {
      const start = home.toInstant((monday + (d % 28)) as typeof day, 8 * 60 + i * 40)
      const asked: BookingEvent = {
        ...pattern.asked,
        at: now,
        start,
        minutes: 30,
        service: 'coaching',
        person: { name: `Person ${n}`, email: `person.${n}@example.org`, zone: 'Europe/Lisbon' },
      }
      const id = `bench-${String(n).padStart(6, '0')}`
      letHappen(house.relay, id, asked, { type: 'welcomed', at: now, by: 'practitioner', settles: now })
    }
  }
  return instant(home.toInstant(monday as typeof day, 0))
}

interface TraceEvent {
  name: string
  ts: number
  dur?: number
  ph: string
}

/** How long the pointer moves, in ms. */
const LASTS = 4_000

/** Moves the pointer over a page and tells how it was drawn. */
async function trace(house: House, page: Page, what: string): Promise<void> {
  await house.browser.startTracing(page, {
    categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline.frame'],
  })
  // A mouse tells where it is some 125 times a second and waits for nobody; Playwright's own would.
  const mouse = await page.context().newCDPSession(page)
  const began = Date.now()
  for (let i = 0; Date.now() - began < LASTS; i++) {
    const turn = i / 90
    mouse
      .send('Input.dispatchMouseEvent', {
        type: 'mouseMoved',
        x: 640 + Math.sin(turn) * 350,
        y: 700 + Math.sin(turn * 1.7) * 450,
        button: 'left',
        buttons: 1,
      })
      .catch(() => undefined)
    await new Promise((resolve) => setTimeout(resolve, 8))
  }
  const { traceEvents } = JSON.parse((await house.browser.stopTracing()).toString()) as {
    traceEvents: TraceEvent[]
  }
  const named = (name: string): TraceEvent[] => traceEvents.filter((traceEvent) => traceEvent.name === name)
  const drawn = named('DrawFrame').map((event) => event.ts / 1_000)
  const scripts = named('FireAnimationFrame')
    .filter((event) => event.ph === 'X')
    .map((event) => (event.dur ?? 0) / 1_000)
  const gaps = drawn.slice(1).map((at, i) => at - drawn[i]!)
  const seconds = (drawn.at(-1)! - drawn[0]!) / 1_000
  const spread = (list: number[]): string => {
    const sorted = [...list].sort((a, b) => a - b)
    const at = (share: number) => (sorted[Math.floor((sorted.length - 1) * share)] ?? 0).toFixed(1)
    return `median ${at(0.5)} ms, 95 % ${at(0.95)} ms, longest ${at(1)} ms`
  }
  console.log(`  ${what}`)
  console.log(
    `    ${(drawn.length / seconds).toFixed(1)} frames a second, ${named('DroppedFrame').length} of ${drawn.length} dropped`,
  )
  console.log(`    between two frames: ${spread(gaps)}`)
  console.log(`    own script in a frame: ${spread(scripts)}`)
}

/** One box that follows the pointer and nothing else: what this machine can draw at all. */
const BARE = `<div id="a" style="position:absolute;width:60px;height:18px;background:green;will-change:transform"></div>
<script>addEventListener('pointermove', (e) => requestAnimationFrame(() => {
  a.style.transform = 'translate(' + e.clientX + 'px,' + e.clientY + 'px)'
}))</script>`

async function main(): Promise<void> {
  const house = await openHouse()
  const bare = await house.visitor({ viewport: { width: 1280, height: 1300 } })
  await bare.setContent(BARE)
  await trace(house, bare, 'a bare box')
  await bare.close()
  const monday = fill(house)
  const desk = await house.openDesk()
  await desk.setViewportSize({ width: 1280, height: 1300 })
  const day = new Date(monday + 12 * HOUR).toISOString().slice(0, 10)
  await desk.goto(`${house.desk}/diary?view=weeks&day=${day}`)
  await eventually(
    '400 sessions',
    async () => (await desk.locator('[data-lane] a').count()) >= SESSIONS,
    30_000,
  )
  await desk.waitForTimeout(1_000)
  const box = (await desk
    .getByRole('link', { name: /Person 3\b/ })
    .first()
    .boundingBox())!
  await desk.mouse.move(box.x + 6, box.y + 6)
  await desk.mouse.down()
  await desk.mouse.move(box.x + 30, box.y + 30, { steps: 4 })
  await trace(house, desk, `a session over four weeks with ${SESSIONS} sessions`)
  await desk.keyboard.press('Escape')
  await desk.mouse.up()
  await house.close()
}

main().catch((error) => {
  console.error(error)
  process.exit(1)
})
