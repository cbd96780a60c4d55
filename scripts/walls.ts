import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'

/** What the code imports, read from its files: to hold the walls between the rooms. */
export interface Plan {
  /** Every file of ours, by its path from the root, with the paths of ours that it imports. */
  imports: Map<string, string[]>
  text: Map<string, string>
}

const OURS = ['core', 'relay', 'web', 'demo', 'terminal', 'e2e', 'bench', 'scripts']
const IMPORT =
  /(?:^|\n)\s*(?:import|export)\s(?:[^'"]*?\sfrom\s)?['"]([^'"]+)['"]|import\(\s*['"]([^'"]+)['"]/g

/** Reads the plan of a checkout. */
export function readPlan(root: string): Plan {
  const text = new Map<string, string>()
  for (const folder of OURS) {
    for (const entry of readdirSync(join(root, folder), { recursive: true, withFileTypes: true })) {
      const path = relative(root, join(entry.parentPath, entry.name))
      if (!entry.isFile() || !/\.tsx?$/.test(path) || /node_modules|(^|\/)dist\//.test(path)) continue
      text.set(path, readFileSync(join(root, path), 'utf8'))
    }
  }
  const imports = new Map<string, string[]>()
  for (const [path, source] of text) {
    const found = [...source.matchAll(IMPORT)].flatMap(([, a, b]) => whereIs(path, a ?? b ?? '', text) ?? [])
    imports.set(path, [...new Set(found)])
  }
  return { imports, text }
}

/** The file of ours that a specifier means; nothing for packages. */
function whereIs(from: string, specifier: string, text: Map<string, string>): string | undefined {
  const own = specifier.startsWith('@acolhida/') ? specifier.slice('@acolhida/'.length) : undefined
  if (own === undefined && !specifier.startsWith('.')) return undefined
  const path = own ?? join(dirname(from), specifier)
  return [path, `${path}.ts`, `${path}.tsx`, `${path}/index.ts`].find((file) => text.has(file))
}

export const isTest = (path: string): boolean =>
  /\.test\.tsx?$|(^|\/)tests\/|^e2e\/|^bench\/|(^|\/)bench\.ts$/.test(path)

/** Groups of files that import one another in a circle (Tarjan 1972, strongly connected components). */
export function circles(imports: Plan['imports']): string[][] {
  const index = new Map<string, number>()
  const low = new Map<string, number>()
  const stack: string[] = []
  const found: string[][] = []
  const visit = (file: string): void => {
    index.set(file, index.size)
    low.set(file, index.get(file)!)
    stack.push(file)
    for (const next of imports.get(file) ?? []) {
      if (!index.has(next)) visit(next)
      if (stack.includes(next)) low.set(file, Math.min(low.get(file)!, low.get(next)!))
    }
    if (low.get(file) !== index.get(file)) return
    const group = stack.splice(stack.indexOf(file))
    if (group.length > 1) found.push(group.sort())
  }
  for (const file of imports.keys()) if (!index.has(file)) visit(file)
  return found
}

/** The room that a file lies in: the first two folders. */
export const roomOf = (path: string): string => path.split('/').slice(0, 2).join('/')

/** What a file brings with it, all the way down. */
export function importsBehind(imports: Plan['imports'], from: string): Set<string> {
  const seen = new Set<string>()
  const queue = [from]
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    if (seen.has(next)) continue
    seen.add(next)
    queue.push(...(imports.get(next) ?? []))
  }
  return seen
}
