/** The steps from a service to a request. */
export type DoorStep = 'questions' | 'time' | 'terms' | 'line'
