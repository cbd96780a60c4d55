import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { ruleCases } from './calendar-cases.ts'

const ask = (cases: object[]) =>
  spawnSync('/usr/bin/python3', ['/work/main/core/tests/readers.py'], {
    input: cases.map((c) => JSON.stringify(c)).join('\n') + '\n',
    maxBuffer: 1e9,
    stdio: ['pipe', 'pipe', 'inherit'],
  })
    .stdout.toString()
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l))
const cases = ruleCases(2400)
// the first moment each rule names
const firsts = ask(
  cases.map((c) => ({
    ...c,
    rule: c.rule.replace(/;COUNT=\d+/, ''),
    from: c.start,
    readers: ['dateutil'],
    to: c.start.replace(/^\d{4}/, (y) => String(+y + 9)),
  })),
)
const good = cases.flatMap((c, i) => {
  const d = firsts[i].dateutil
  return Array.isArray(d) && d.length ? [{ ...c, start: d[0] }] : []
})
const said = ask(good)
const out = good.map((c, i) => ({ ...c, ...said[i] }))
writeFileSync('/tmp/rules.json', JSON.stringify(out))
console.log(
  cases.length,
  good.length,
  out.filter((o) => JSON.stringify(o.dateutil) === JSON.stringify(o.libical)).length,
)
