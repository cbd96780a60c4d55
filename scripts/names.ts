import { isTest, type Plan } from './walls.ts'

const EXPORT = /^export (?:async )?(?:const|function|class|interface|type|enum) ([A-Za-z_$][\w$]*)/gm

/** Names that the code exports from more than one file, with their homes: one word is to mean one thing. */
export function namesWithTwoHomes({ text }: Pick<Plan, 'text'>): [name: string, homes: string[]][] {
  const homes = new Map<string, Set<string>>()
  for (const [path, source] of text) {
    if (isTest(path)) continue
    for (const [, name] of source.matchAll(EXPORT)) {
      const known = homes.get(name!)
      if (known) known.add(path)
      else homes.set(name!, new Set([path]))
    }
  }
  return [...homes]
    .filter(([, paths]) => paths.size > 1)
    .map(([name, paths]): [string, string[]] => [name, [...paths].sort()])
    .sort(([a], [b]) => (a < b ? -1 : 1))
}
