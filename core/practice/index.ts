export * from './begin.ts'
export * from './check.ts'
export { aheadOf, lateSteps } from './check-messages.ts'
export * from './clock-changes.ts'
export * from './codes.ts'
export * from './copy-settings.ts'
export * from './fault.ts'
export * from './find.ts'
export * from './for-door.ts'
export * from './hours-of-day.ts'
export * from './languages.ts'
export * from './messaging.ts'
export * from './missing.ts'
export * from './offered.ts'
export * from './path.ts'
export * from './paying.ts'
export * from './preparation.ts'
export * from './preparing.ts'
export * from './ready-sequences.ts'
export * from './sequences.ts'
export {
  type DoorPart,
  doorPart,
  SERVICE_SETTINGS,
  SETTINGS_GROUPS,
  type SettingsGroup,
  settingsIn,
} from './service-settings.ts'
export * from './tax.ts'
export { oddFigures, rulesFor, termsValues } from './terms-values.ts'
export * from './text-fields.ts'
export * from './travel.ts'
export * from './types.ts'
export * from './waitlist.ts'
export * from './without.ts'
