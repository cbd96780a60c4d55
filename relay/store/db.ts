import type Database from 'libsql'

/** The relay's one file, opened. */
export type Db = Database.Database
