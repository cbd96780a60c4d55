import Joi from 'joi'

/** How messages name their place: by its last key, unadorned. */
export const LABELS = { label: 'key', wrap: { label: '' } } as const

/**
 * One of several shapes. When none fits, the faults are those of the shape the value means to be, as `meant`
 * tells; without that, Joi would list the faults of all of them.
 */
export const oneOf = (
  meant: (value: object) => Joi.ObjectSchema | undefined,
  branches: Joi.ObjectSchema[],
): Joi.AlternativesSchema =>
  Joi.alternatives()
    .try(...branches)
    .error((errors) => {
      for (const report of errors) {
        const { value } = report as { value?: unknown }
        const branch = value && typeof value === 'object' ? meant(value) : undefined
        if (branch)
          report.local.meant = branch.validate(value, { abortEarly: false, errors: LABELS }).error?.details
      }
      // Joi's types allow one report only, its documentation several.
      return errors as never
    })

/** One of several shapes told apart by a tag, as `kind`. */
export const tagged = (tag: string, branches: Record<string, Joi.ObjectSchema>): Joi.AlternativesSchema => {
  const known = Joi.object({ [tag]: Joi.valid(...Object.keys(branches)).required() }).unknown()
  return oneOf(
    (value) => branches[String((value as Record<string, unknown>)[tag])] ?? known,
    Object.values(branches),
  )
}
