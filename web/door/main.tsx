import type { DoorView } from '@acolhida/core/contract'
import { FIRST_LANGUAGE } from '@acolhida/core/time'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import '../theme/theme.css'
import { DoorApp } from './app.tsx'
import { chosen, speakHere } from './parts/tongue.ts'

/** What the relay has written into the page: in the language that the browser wants, where the practice speaks it. */
const block = document.getElementById('door')?.textContent
const view = block ? (JSON.parse(block) as DoorView) : undefined

await speakHere(chosen() ?? view?.language ?? FIRST_LANGUAGE, view?.words)
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <DoorApp />
    </BrowserRouter>
  </StrictMode>,
)
