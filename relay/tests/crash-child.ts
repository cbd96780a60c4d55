import { MovableClock } from '../ground/clock.ts'
import { Relay } from '../relay.ts'
import { BEGINNING, pairAnew } from './setup.ts'

/** A relay to be killed: on the file and with the hosts for mail and texts it is given, its clock as far ahead as it is told. */
const [, , file = '', smtp = '', url = '', secret = '', ahead = '0'] = process.argv
const clock = new MovableClock(Number(ahead), undefined, () => BEGINNING)
const relay = new Relay(
  {
    file,
    smtp,
    texts: { url, secret },
    doorPages: '/none',
    deskPages: '/none',
    requestsPerMinute: 1_000_000,
    memoryDays: 400,
    steady: false,
    held: { byOne: 100_000, inAll: 1_000_000 },
  },
  clock,
)
process.on('message', ({ forward }: { forward: number }) => {
  clock.forward(forward)
  void relay.rounds.turn()
  const { house } = relay.here.keeper
  const first = [...house.agenda()].find(({ doing }) => doing.do === 'message')
  const idle = (first === undefined || first.at > clock.now()) && relay.store.handed().length === 0
  process.send?.({ now: clock.now(), idle })
})
void relay.start({ door: 0, desk: 0 }).then(({ door, desk }) => {
  const key = pairAnew(relay)
  process.send?.({ door, desk, key })
})
