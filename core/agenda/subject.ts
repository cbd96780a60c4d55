/** What something is about: in the record, the agenda, links and forgetting. */
export interface Subject {
  kind:
    | 'booking'
    | 'enquiry'
    | 'quote'
    | 'visit'
    | 'session'
    | 'calendar'
    | 'waiting'
    | 'freed'
    | 'course'
    | 'house'
  id: string
}

export const bookingSubject = (id: string): Subject => ({ kind: 'booking', id })
export const enquirySubject = (id: string): Subject => ({ kind: 'enquiry', id })
/** A place in line; a time that has come free. */
export const waitingSubject = (id: string): Subject => ({ kind: 'waiting', id })
export const freedSubject = (id: string): Subject => ({ kind: 'freed', id })
export const quoteSubject = (id: string): Subject => ({ kind: 'quote', id })
/** What was given to somebody to do. */
export const courseSubject = (id: string): Subject => ({ kind: 'course', id })
export const visitSubject = (id: string): Subject => ({ kind: 'visit', id })
export const calendarSubject = (id: string): Subject => ({ kind: 'calendar', id })
/** A group date: it is found by this name, which is made and never taken apart. */
export const sessionSubject = (service: string, date: string): Subject => ({
  kind: 'session',
  id: `${service} ${date}`,
})
export const houseSubject: Subject = { kind: 'house', id: '' }

/** A name for a subject that no other has. */
export const nameOf = ({ kind, id }: Subject): string => `${kind}/${id}`
