import type { Page } from 'playwright-core'

/** All pages of the house that is open: what they show is told where a test fails. */
export const openPages = new Set<Page>()
