import type { Practice, Profile as ProfileData } from '@acolhida/core/practice'
import { longWeekdayName } from '@acolhida/core/time'
import { useDesk } from '../data/live.ts'
import { DoorOpening } from '../parts/door-opening.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { CURRENCIES, zonesWith } from '../settings/choices.ts'

const withProfile = (practice: Practice, part: Partial<ProfileData>): Practice => ({
  ...practice,
  profile: { ...practice.profile, ...part },
})

/** Who the practitioner is: name, greeting, addresses, zone and currency. */
export function ProfilePage() {
  const { practice } = useDesk()
  const { profile } = practice
  return (
    <SettingsPage title="Who I am" line="Your door shows it at once.">
      <div className="grid max-w-[980px] gap-5 lg:grid-cols-2">
        <section className="sheet grid h-fit gap-4 p-5">
          <h2>At the door</h2>
          <SavedField
            label="Name"
            what="the name"
            value={profile.name}
            change={(p, name) => withProfile(p, { name })}
          />
          <SavedField
            label="What you do, in a line"
            what="the line"
            value={profile.headline}
            change={(p, headline) => withProfile(p, { headline })}
          />
          <SavedField
            label="Greeting"
            what="the greeting"
            rows={5}
            value={profile.greeting}
            change={(p, greeting) => withProfile(p, { greeting })}
          />
          <SavedField
            label="The last part of the door’s address"
            help="Links you have given out lead nowhere when it changes."
            what="the address of the door"
            value={profile.slug}
            change={(p, slug) => withProfile(p, { slug })}
          />
        </section>
        <div className="grid h-fit gap-5">
          <DoorOpening />
          <section className="sheet grid gap-4 p-5">
            <h2>Where you are</h2>
            <SavedField
              label="Time zone"
              help="Your hours, your days and your weeks are counted there."
              what="the time zone"
              value={profile.zone}
              options={zonesWith(profile.zone)}
              change={(p, zone) => withProfile(p, { zone })}
            />
            <SavedField
              label="Weeks begin on"
              what="the first day of the week"
              value={String(profile.weekStart)}
              options={[1, 2, 3, 4, 5, 6, 7].map((day) => ({
                value: String(day),
                name: longWeekdayName(day),
              }))}
              change={(p, day) => withProfile(p, { weekStart: Number(day) as ProfileData['weekStart'] })}
            />
            <SavedField
              label="Currency"
              help="Amounts already written keep their figures."
              what="the currency"
              value={profile.currency}
              options={CURRENCIES}
              change={(p, currency) => withProfile(p, { currency })}
            />
          </section>
          <section className="sheet grid gap-4 p-5">
            <h2>How clients reach you</h2>
            <SavedField
              label="Mail address for answers"
              type="email"
              what="the mail address"
              value={profile.email}
              change={(p, email) => withProfile(p, { email })}
            />
            <SavedField
              label="Phone, if you like"
              what="the phone"
              value={profile.phone ?? ''}
              change={(p, phone) => {
                const { phone: _, ...rest } = p.profile
                return { ...p, profile: phone.trim() ? { ...rest, phone: phone.trim() } : rest }
              }}
            />
          </section>
        </div>
      </div>
    </SettingsPage>
  )
}
