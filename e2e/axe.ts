import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'
import { expect } from 'vitest'

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** Everything axe finds on a page, in words. WCAG 2.2 AA and axe's own good practice. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE)
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: {
        run(
          options: object,
        ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>
      }
    }
    const { violations } = await axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    })
    return violations.flatMap((violation) =>
      violation.nodes.map(
        (node) => `${violation.id}: ${node.html.slice(0, 160)} ${node.failureSummary.slice(0, 200)}`,
      ),
    )
  })
}

/**
 * Focus rings with less than 3:1 against the ground they lie on (WCAG 2.2, 1.4.11; relative luminance as in its
 * glossary), and ids that are there twice.
 */
export const edges = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const canvas = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!
    const rgba = (colour: string): number[] => {
      canvas.clearRect(0, 0, 1, 1)
      canvas.fillStyle = colour
      canvas.fillRect(0, 0, 1, 1)
      return [...canvas.getImageData(0, 0, 1, 1).data]
    }
    const luminance = (colour: string): number => {
      const [r, g, b] = rgba(colour)
        .slice(0, 3)
        .map((value) => value / 255)
        .map((value) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4)) as [
        number,
        number,
        number,
      ]
      return 0.2126 * r + 0.7152 * g + 0.0722 * b
    }
    const groundOf = (element: Element | null): string => {
      for (let at = element; at; at = at.parentElement) {
        const { backgroundColor } = getComputedStyle(at)
        if (rgba(backgroundColor)[3]! > 250) return backgroundColor
      }
      return 'white'
    }
    const found: string[] = []
    const focusable =
      'a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex="0"], summary'
    for (const element of document.querySelectorAll<HTMLElement>(focusable)) {
      if (!element.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
      element.focus({ focusVisible: true, preventScroll: true } as FocusOptions)
      if (document.activeElement !== element) continue
      const { outlineColor, outlineStyle, outlineWidth } = getComputedStyle(element)
      const ground = groundOf(element.parentElement)
      const [a, b] = [luminance(outlineColor), luminance(ground)]
      const ratio = (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05)
      if (outlineStyle === 'none' || Number.parseFloat(outlineWidth) < 2 || ratio < 3)
        found.push(
          `focus ring ${outlineStyle} ${outlineColor} on ${ground}, ${ratio.toFixed(2)}: ${element.outerHTML.slice(0, 120)}`,
        )
    }
    const ids = [...document.querySelectorAll('[id]')].map(({ id }) => id)
    return [...new Set(found), ...ids.filter((id, i) => ids.indexOf(id) !== i).map((id) => `id ${id} twice`)]
  })

/** All of that, in both themes, and whether the page scrolls sideways on a phone and at 400 %. */
export async function faultsOf(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme })
    for (const fault of [...(await violations(page)), ...(await edges(page))])
      found.push(`${colorScheme}: ${fault}`)
  }
  await page.emulateMedia({ colorScheme: 'light' })
  const size = page.viewportSize()
  for (const width of [320, 640]) {
    await page.setViewportSize({ width, height: 700 })
    const drawn = await page.evaluate(() => document.documentElement.scrollWidth)
    if (drawn > width) found.push(`${drawn} px wide at ${width}`)
  }
  if (size) await page.setViewportSize(size)
  return found
}

/**
 * Looks at a page: nothing on it keeps anybody out. With LOOK in the environment a picture is kept in /tmp, of the whole
 * page on a phone.
 */
export async function look(page: Page, name: string): Promise<void> {
  const fullPage = (page.viewportSize()?.width ?? 0) < 500
  if (process.env.LOOK) await page.screenshot({ path: `/tmp/look-${name}.png`, fullPage })
  expect.soft(await faultsOf(page), name).toEqual([])
}
