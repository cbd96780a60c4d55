import { Route, Routes } from 'react-router'
import { CalendarsPage } from './calendars/calendars.tsx'
import { DiaryPage } from './diary/diary.tsx'
import { FirstSteps } from './first/first-steps.tsx'
import { HandOut } from './hand-out/hand-out.tsx'
import { HoursPage } from './hours/hours.tsx'
import { DeskFrame } from './pages/frame.tsx'
import { LimitsPage } from './pages/limits.tsx'
import { Places } from './pages/places.tsx'
import { PracticePage } from './pages/practice.tsx'
import { ProfilePage } from './pages/profile.tsx'
import { TermsPage } from './pages/terms.tsx'
import { ThisDesk } from './pages/this-desk.tsx'
import { Today } from './pages/today.tsx'
import { TryIt } from './pages/try-it.tsx'
import { People } from './people/people.tsx'
import { Builder } from './questions/builder.tsx'
import { QuestionsPage } from './questions/list.tsx'
import { Arrivals } from './request/arrivals.tsx'
import { RequestPage } from './request/request.tsx'
import { Codes } from './service/codes.tsx'
import { ServicePage } from './service/service.tsx'
import { ServicesPage } from './service/services.tsx'

/** Every page of the desk, by its address. */
export const DeskApp = () => (
  <Routes>
    <Route element={<DeskFrame />}>
      <Route index element={<Today />} />
      <Route path="arrivals" element={<Arrivals />} />
      <Route path="arrivals/:id" element={<RequestPage />} />
      <Route path="diary" element={<DiaryPage />} />
      <Route path="people" element={<People />} />
      <Route path="first/:step?" element={<FirstSteps />} />
      <Route path="practice" element={<PracticePage />} />
      <Route path="profile" element={<ProfilePage />} />
      <Route path="hours" element={<HoursPage />} />
      <Route path="calendars" element={<CalendarsPage />} />
      <Route path="places" element={<Places />} />
      <Route path="limits" element={<LimitsPage />} />
      <Route path="services" element={<ServicesPage />} />
      <Route path="services/codes" element={<Codes />} />
      <Route path="services/:id" element={<ServicePage />} />
      <Route path="questions" element={<QuestionsPage />} />
      <Route path="questions/:id" element={<Builder />} />
      <Route path="terms" element={<TermsPage />} />
      <Route path="hand-out" element={<HandOut />} />
      <Route path="try" element={<TryIt />} />
      <Route path="desk" element={<ThisDesk />} />
      <Route path="*" element={<Today />} />
    </Route>
  </Routes>
)
