import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import '../theme/theme.css'
import { DoorApp } from './app.tsx'

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <DoorApp />
    </BrowserRouter>
  </StrictMode>,
)
