import { useEffect } from 'react'
import { useLocation, useNavigate } from 'react-router'

/** What the way back from the till is kept as, for as long as this tab is open. */
const KEPT = 'acolhida-way-back'

/** Says on a page's address that one has come back from the till. */
const BACK = 'back'

/** Keeps where one is, for coming back from the till; with the key to what is half done, which stands in the fragment. */
export const keepWayBack = (): void => {
  const search = new URLSearchParams(location.search)
  search.set(BACK, '1')
  sessionStorage.setItem(KEPT, `${location.pathname}?${search}${location.hash}`)
}

/** Where one was before going to the till; nothing in another browser. */
export const wayBack = (): string | undefined => sessionStorage.getItem(KEPT) ?? undefined

/**
 * Says once that one has come back from the till, which proves nothing: the relay asks it.
 * @param ready whether the page has what it shows
 */
export function useCameBack(ready: boolean, comeBack: () => void): void {
  const { search, hash } = useLocation()
  const go = useNavigate()
  useEffect(() => {
    const left = new URLSearchParams(search)
    if (!ready || !left.has(BACK)) return
    comeBack()
    left.delete(BACK)
    void go({ search: String(left), hash }, { replace: true, preventScrollReset: true })
  }, [ready, search, hash, comeBack, go])
}
