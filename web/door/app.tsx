import type { Language } from '@acolhida/core/time'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, useMemo } from 'react'
import { Route, Routes } from 'react-router'
import { RelayError } from '../relay-client/client.ts'
import { CameBack } from './pages/came-back.tsx'
import { Door } from './pages/door.tsx'
import { Flow } from './pages/flow.tsx'
import { MyBooking } from './pages/my-booking.tsx'
import { NotThisAddress } from './pages/nowhere.tsx'
import { Services } from './pages/services.tsx'
import { Write } from './pages/write.tsx'
import { useTongue } from './parts/tongue.ts'

// Few come here, and none first.
const Yours = lazy(() => import('./pages/yours.tsx'))
const InLine = lazy(() => import('./pages/in-line.tsx'))

const newQueries = (_: Language): QueryClient =>
  new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        // A refusal stays a refusal; only a lost connection is worth another try.
        retry: (count, error) => count < 2 && error instanceof RelayError && error.unreachable,
      },
    },
  })

/** Every page of the door, by its address. */
export function DoorApp() {
  const language = useTongue()
  // In another language everything is asked for, and said, anew.
  const queries = useMemo(() => newQueries(language), [language])
  return (
    <QueryClientProvider client={queries} key={language}>
      <Routes>
        <Route path="/:slug" element={<Door />}>
          <Route index element={<Services />} />
          <Route path="write" element={<Write />} />
          <Route path="my" element={<CameBack />} />
          <Route path="my/:secret" element={<MyBooking />} />
          <Route path="yours/:secret" element={<Yours />} />
          <Route path="in-line/:secret" element={<InLine />} />
          <Route path=":service" element={<Flow />} />
        </Route>
        <Route path="*" element={<NotThisAddress />} />
      </Routes>
    </QueryClientProvider>
  )
}
