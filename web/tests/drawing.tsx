import '@acolhida/core/words/all'
import { cleanup, render } from '@testing-library/react'
import { type ReactNode, StrictMode } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, vi } from 'vitest'

/** What a browser has and the one in these tests has not: sizes, dialogs, streams. */
export function furnishWindow(): void {
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, get: () => 52 })
  HTMLElement.prototype.scrollIntoView = () => undefined
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true
  }
  vi.stubGlobal(
    'EventSource',
    class {
      addEventListener = () => undefined
      close = () => undefined
    },
  )
  vi.stubGlobal(
    'Worker',
    class {
      addEventListener = () => undefined
      postMessage = () => undefined
      terminate = () => undefined
    },
  )
}

afterEach(cleanup)

/** Draws an application at one of its addresses. */
export const drawAt = (address: string, app: ReactNode) =>
  render(
    <StrictMode>
      <MemoryRouter initialEntries={[address]}>{app}</MemoryRouter>
    </StrictMode>,
  )
