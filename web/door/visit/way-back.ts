/** What the way back from the till is kept as, for as long as this tab is open. */
const KEPT = 'acolhida-way-back'

/** Says on a page's address that one has come back from the till. */
export const BACK = 'back'

/** Keeps where one is, for coming back from the till. */
export const keepWayBack = (): void => {
  const search = new URLSearchParams(location.search)
  search.set(BACK, '1')
  sessionStorage.setItem(KEPT, `${location.pathname}?${search}`)
}

/** Where one was before going to the till; nothing in another browser. */
export const wayBack = (): string | undefined => sessionStorage.getItem(KEPT) ?? undefined
