/** The steps from a service to a request. */
export type Step = 'questions' | 'time' | 'terms'
