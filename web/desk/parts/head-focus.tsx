import { useEffect, useRef } from 'react'
import { useNavigationType } from 'react-router'

/**
 * After going to another page, focus stands at its head, unless something in it has taken it: what was pressed is gone,
 * and whoever goes by keyboard or listens goes on from there.
 * A page one goes to begins at its top; one that one comes back to, where one was.
 * @param at which page it is
 */
export function HeadFocus({ at }: { at: string }) {
  const before = useRef(at)
  const way = useNavigationType()
  useEffect(() => {
    if (before.current === at) return
    before.current = at
    const main = document.querySelector('main')
    if (!main) return
    if (way !== 'POP' && !main.contains(document.activeElement)) window.scrollTo({ top: 0 })
    const take = (): boolean => {
      if (main.contains(document.activeElement)) return true
      const head = main.querySelector('h1')
      if (!head) return false
      head.tabIndex = -1
      head.focus({ preventScroll: true })
      return true
    }
    if (take()) return
    // It is there as soon as what it tells of has been read.
    const seen = new MutationObserver(() => take() && seen.disconnect())
    seen.observe(main, { childList: true, subtree: true })
    return () => seen.disconnect()
  }, [at, way])
  return null
}
