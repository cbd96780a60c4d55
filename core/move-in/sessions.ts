/** Sessions and balances from other places: their tables read and sifted. Calendars are read apart, in a worker. */
export * from './bring-body.ts'
export * from './in-the-way.ts'
export * from './session-columns.ts'
export * from './session-rows.ts'
export * from './sift-sessions.ts'
