import type { Practice, Profile as ProfileData } from '@acolhida/core/practice'
import { longWeekdayName } from '@acolhida/core/time'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { DoorOpening } from '../parts/door-opening.tsx'
import { Picture } from '../parts/picture.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { CURRENCIES, zonesWith } from '../settings/choices.ts'

const withProfile = (practice: Practice, part: Partial<ProfileData>): Practice => ({
  ...practice,
  profile: { ...practice.profile, ...part },
})

/** The profile with something that it need not have. */
function withOptional(
  practice: Practice,
  key: 'phone' | 'pronouns' | 'about' | 'picture',
  value: string,
): Practice {
  const { [key]: _, ...rest } = practice.profile
  return { ...practice, profile: value.trim() ? { ...rest, [key]: value.trim() } : rest }
}

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
            label="Your pronouns, if you like"
            what="the pronouns"
            value={profile.pronouns ?? ''}
            change={(p, pronouns) => withOptional(p, 'pronouns', pronouns)}
          />
          <SavedField
            label="About you, in some lines, if you like"
            what="the lines about you"
            rows={5}
            value={profile.about ?? ''}
            change={(p, about) => withOptional(p, 'about', about)}
          />
          <section aria-label="A picture of you">
            <p className="ask mb-1">A picture of you, if you like</p>
            <Picture
              picture={profile.picture}
              onChange={async (picture) =>
                changePractice(db, 'the picture of you', (p) => withOptional(p, 'picture', picture ?? ''))
              }
            />
          </section>
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
              change={(p, phone) => withOptional(p, 'phone', phone)}
            />
          </section>
        </div>
      </div>
    </SettingsPage>
  )
}
