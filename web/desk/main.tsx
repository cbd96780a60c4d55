import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Route, Routes } from 'react-router'
import '../theme/theme.css'
import { Calendars } from './calendars/calendars.tsx'
import { Diary } from './diary/diary.tsx'
import { HoursPage } from './hours/hours.tsx'
import { Frame } from './pages/frame.tsx'
import { Limits } from './pages/limits.tsx'
import { Places } from './pages/places.tsx'
import { Profile } from './pages/profile.tsx'
import { TermsPage } from './pages/terms.tsx'
import { ThisDesk } from './pages/this-desk.tsx'
import { Today } from './pages/today.tsx'
import { TryIt } from './pages/try-it.tsx'
import { People } from './people/people.tsx'
import { Builder } from './questions/builder.tsx'
import { QuestionsPage } from './questions/list.tsx'
import { Arrivals } from './request/arrivals.tsx'
import { RequestPage } from './request/request.tsx'
import { followRestores, sweepOther } from './restore/restore.ts'
import { Codes } from './service/codes.tsx'
import { ServicePage } from './service/service.tsx'
import { Services } from './service/services.tsx'
import { startSync } from './sync/sync.ts'

startSync()
followRestores()
sweepOther().catch(console.error)

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <Routes>
        <Route element={<Frame />}>
          <Route index element={<Today />} />
          <Route path="arrivals" element={<Arrivals />} />
          <Route path="arrivals/:id" element={<RequestPage />} />
          <Route path="diary" element={<Diary />} />
          <Route path="people" element={<People />} />
          <Route path="profile" element={<Profile />} />
          <Route path="hours" element={<HoursPage />} />
          <Route path="calendars" element={<Calendars />} />
          <Route path="places" element={<Places />} />
          <Route path="limits" element={<Limits />} />
          <Route path="services" element={<Services />} />
          <Route path="services/codes" element={<Codes />} />
          <Route path="services/:id" element={<ServicePage />} />
          <Route path="questions" element={<QuestionsPage />} />
          <Route path="questions/:id" element={<Builder />} />
          <Route path="terms" element={<TermsPage />} />
          <Route path="try" element={<TryIt />} />
          <Route path="desk" element={<ThisDesk />} />
          <Route path="*" element={<Today />} />
        </Route>
      </Routes>
    </BrowserRouter>
  </StrictMode>,
)
