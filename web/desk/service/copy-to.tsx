import { copySettings, type Practice, type Service, type SettingsGroup } from '@acolhida/core/practice'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { Tick } from '../parts/tick.tsx'

const NAMES: Record<SettingsGroup, string> = {
  waitlist: 'Waitlist',
  when: 'When: starts, edges of the day, notice, reach',
  clear: 'Time kept clear',
  limits: 'Limits a day and a week',
  price: 'The price',
  extras: 'What a client can add',
  whom: 'For whom, and who is asked about',
  questions: 'The questions',
  terms: 'The terms',
  rules: 'The house rules of its own',
  places: 'The places',
  messages: 'What is sent when',
  preparations: 'What clients prepare',
}

const toggled = <T,>(list: readonly T[], one: T, on: boolean): T[] =>
  on ? [...list, one] : list.filter((other) => other !== one)

/** Copies some settings of a service to others. */
export function CopyTo({ practice, service }: { practice: Practice; service: Service }) {
  const [open, setOpen] = useState(false)
  const [groups, setGroups] = useState<SettingsGroup[]>([])
  const [to, setTo] = useState<string[]>([])
  const copy = (): Promise<void> =>
    changePractice(db, `settings of ${service.name} copied`, (p) =>
      copySettings(p, service.id, to, groups, relayNow()),
    )
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Copy settings to other services
      </button>
      {open && (
        <Dialog title={`Copy settings of ${service.name}`} close={() => setOpen(false)}>
          <fieldset>
            <legend className="ask mb-1">What</legend>
            {Object.entries(NAMES).map(([group, name]) => (
              <Tick
                key={group}
                label={name}
                on={groups.includes(group as SettingsGroup)}
                onChange={(on) => setGroups(toggled(groups, group as SettingsGroup, on))}
              />
            ))}
          </fieldset>
          <fieldset className="mt-3">
            <legend className="ask mb-1">To</legend>
            {practice.services
              .filter((other) => other.id !== service.id)
              .map((service) => (
                <Tick
                  key={service.id}
                  label={service.name}
                  on={to.includes(service.id)}
                  onChange={(on) => setTo(toggled(to, service.id, on))}
                />
              ))}
          </fieldset>
          <ActButton
            className="press press-go mt-3"
            disabled={groups.length === 0 || to.length === 0}
            onAct={copy}
            then={() => setOpen(false)}
          >
            Copy these settings
          </ActButton>
        </Dialog>
      )}
    </>
  )
}
