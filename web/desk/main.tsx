import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import '../theme/theme.css'
import { DeskApp, fetchPages } from './app.tsx'
import { keepOffline } from './offline/offline.ts'
import { followRestores, sweepOther } from './restore/restore.ts'

followRestores()
sweepOther().catch(console.error)

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <DeskApp />
    </BrowserRouter>
  </StrictMode>,
)

// The relay comes once the page is there: what is shown is the desk's own.
import('./sync/sync.ts').then(({ startSync }) => startSync()).catch(console.error)
fetchPages()
if (import.meta.env.PROD) keepOffline().catch(console.error)
