import type { Db } from '../relay/store/db.ts'

/** A bare transaction that writes the rows an act has written. */
export interface Bare {
  rows: number
  write(): void
  /** Takes away what it has written. */
  clean(): void
}

interface Column {
  name: string
  pk: number
}
type Row = Record<string, string | number | null>

/** What a bare transaction marks its own rows with. */
const MARK = 'bare~'

/**
 * Watches a file: what it gives, called after an act, writes the same rows as that act has added or replaced, by
 * prepared statements in one transaction, each time under new keys; as a sensible engineer would by hand.
 */
export function bareOf(db: Db): () => Bare {
  const tables = (
    db.prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'`).all() as {
      name: string
    }[]
  ).map(({ name }) => ({ name, columns: db.prepare(`PRAGMA table_info("${name}")`).all() as Column[] }))
  const last = new Map(
    tables.map(({ name }) => [
      name,
      (db.prepare(`SELECT coalesce(max(rowid), 0) AS n FROM "${name}"`).get() as { n: number }).n,
    ]),
  )
  return () => {
    let count = 0
    const writers = tables.flatMap(({ name, columns }) => {
      const rows = db.prepare(`SELECT * FROM "${name}" WHERE rowid > ?`).all(last.get(name)!) as Row[]
      const kept = columns.filter((column) => !(name === 'record' && column.name === 'n'))
      const statement = db.prepare(
        `INSERT OR REPLACE INTO "${name}" (${kept.map((column) => `"${column.name}"`).join(', ')})
         VALUES (${kept.map(() => '?').join(', ')})`,
      )
      const isKey = ({ name: column, pk }: Column): boolean =>
        name !== 'settings' && (name === 'record' ? column === 'subject' : pk > 0)
      return rows.map((row) => () => {
        const values = kept.map((column) => {
          const value = row[column.name]!
          return isKey(column) && typeof value === 'string' ? `${MARK}${count}~${value}` : value
        })
        statement.run(...values)
      })
    })
    const transaction = db.transaction(() => {
      count++
      for (const writer of writers) writer()
    })
    return {
      rows: writers.length,
      write: () => transaction(),
      clean: () => {
        for (const { name, columns } of tables) {
          const key = name === 'record' ? 'subject' : columns.find((column) => column.pk > 0)?.name
          if (key && name !== 'settings')
            db.prepare(`DELETE FROM "${name}" WHERE "${key}" LIKE '${MARK}%'`).run()
        }
      },
    }
  }
}
