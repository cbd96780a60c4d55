import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import '../theme/theme.css'
import { RelayError } from '../relay-client/client.ts'
import { Emblem } from '../theme/mark.tsx'
import { DayPage } from './day-page.tsx'
import { WordPage } from './word-page.tsx'

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => count < 2 && error instanceof RelayError && error.unreachable },
  },
})

/** The practitioner away from the desk: one request by its word link, or the day on a paired phone. */
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <div className="mx-auto max-w-[640px] px-4 pt-4 pb-16">
        <header className="mb-4 flex items-center gap-2 font-serif text-[17px]">
          <Emblem size={22} /> Acolhida
        </header>
        <main>{location.pathname === '/day' ? <DayPage /> : <WordPage />}</main>
      </div>
    </QueryClientProvider>
  </StrictMode>,
)
