import type { Page } from 'playwright-core'
import { afterEach } from 'vitest'
import { openPages } from './open-pages.ts'

const LONGEST = 6_000

/** What a page shows, as text: what is typed, too, and where the focus is. */
const shows = async (page: Page): Promise<string> => {
  const fields = await page.evaluate(() => [
    ...[...document.querySelectorAll('input, textarea, select')].flatMap((field) =>
      'value' in field && field.value ? [`[${field.tagName.toLowerCase()}] ${String(field.value)}`] : [],
    ),
    `Focus: ${document.activeElement?.outerHTML.slice(0, 300) ?? ''}`,
  ])
  // biome-ignore lint/performance/useDomNodeTextContent: what is seen, by its lines, and not what is hidden.
  return [await page.locator('body').innerText(), ...fields].join('\n')
}

// A failure on another machine is told by what stood there: nobody can look at its screen any more.
afterEach(async ({ task }) => {
  if (task.result?.state !== 'fail') return
  for (const page of openPages) {
    if (page.isClosed()) continue
    const text = await shows(page).catch((error: unknown) => String(error))
    console.log(`When “${task.name}” failed, ${page.url()} showed:\n${text.slice(0, LONGEST)}`)
  }
})
