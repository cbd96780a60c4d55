import { systemClock } from '../clock.ts'
import { Relay } from '../relay.ts'

/** A relay to be killed: on the file it is given, with no mail host. */
const relay = new Relay(
  {
    file: process.argv[2]!,
    smtp: 'smtp://127.0.0.1:9',
    doorPages: '/none',
    deskPages: '/none',
    requestsPerMinute: 1_000_000,
  },
  systemClock,
)
relay.start({ door: 0, desk: 0 }).then(({ door }) => process.send?.({ door }))
