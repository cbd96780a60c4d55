import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import '../theme/theme.css'
import { DeskApp } from './app.tsx'
import { followRestores, sweepOther } from './restore/restore.ts'
import { startSync } from './sync/sync.ts'

startSync()
followRestores()
sweepOther().catch(console.error)

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <DeskApp />
    </BrowserRouter>
  </StrictMode>,
)
