import type Joi from 'joi'

/** What a schema is made with when it is first needed; only who lets data in brings it along. */
export interface Maker {
  joi: Joi.Root
  /** What is looked at next where a sign is there, or where it is not. */
  branch: (then: Joi.Schema, otherwise?: Joi.Schema) => Joi.WhenOptions
  /** The schema of another description. */
  of: (schema: Schema<unknown>) => Joi.Schema
}

/**
 * What a value must look like, with the type of what is let in. It says so without the library that checks it, so that
 * it can stand beside what it describes. What goes in is what comes out: nothing is filled in, and only white space
 * around a line is taken off.
 */
export interface Schema<T> {
  readonly make: (maker: Maker) => Joi.Schema
  /** Never there: the type of what is let in, for the compiler. */
  readonly lets?: { it: T }
}

/** A key that may be missing. */
export interface Maybe<T> {
  readonly optional: Schema<T>
}

type Key = Schema<unknown> | Maybe<unknown>
export type Keys = Record<string, Key>
export type Let<S> = S extends Schema<infer T> ? T : never
/** The keys that describe an object of this type: each with its own schema, and optional where it is. */
export type KeysOf<S extends object> = {
  [K in keyof S]-?: object extends Pick<S, K> ? Maybe<Exclude<S[K], undefined>> : Schema<S[K]>
}
type Flat<T> = { [K in keyof T]: T[K] }
/** What an object with these keys is. */
export type Shape<K extends Keys> = Flat<
  {
    -readonly [N in keyof K as K[N] extends Maybe<unknown> ? never : N]: K[N] extends Schema<infer T>
      ? T
      : never
  } & {
    -readonly [N in keyof K as K[N] extends Maybe<unknown> ? N : never]?: K[N] extends Maybe<infer T>
      ? T
      : never
  }
>

/** A schema whose type is given by hand: for the layer itself, and where a shape is only partly looked at. */
export const byHand = <T>(make: Schema<T>['make']): Schema<T> => ({ make })

export const maybe = <T>(schema: Schema<T>): Maybe<T> => ({ optional: schema })

/** A text of at most so many characters. */
export const text = (most: number): Schema<string> => byHand(({ joi }) => joi.string().allow('').max(most))
/** One line that is not blank; what is around it is taken off. */
export const line = (most = 200): Schema<string> => byHand(({ joi }) => joi.string().trim().min(1).max(most))
/** Words that say something; what is around them is taken off. */
export const said = line
/** A text in one pattern. @param says what is wrong, in words */
export const pattern = (shape: RegExp, most: number, says?: string): Schema<string> =>
  byHand(({ joi }) =>
    joi
      .string()
      .max(most)
      .pattern(shape)
      .messages(says ? { 'string.pattern.base': says } : {}),
  )
export const yes: Schema<boolean> = byHand(({ joi }) => joi.boolean().strict())
export const number = (least: number, most: number): Schema<number> =>
  byHand(({ joi }) => joi.number().strict().min(least).max(most))
export const whole = (least: number, most: number): Schema<number> =>
  byHand(({ joi }) => joi.number().strict().integer().min(least).max(most))
export const anyNumber: Schema<number> = byHand(({ joi }) => joi.number().strict())

/** One of a few values. */
export const one = <const V extends string | number>(...values: readonly V[]): Schema<V> =>
  byHand(({ joi }) => joi.any().valid(...values))

export const list = <T>(item: Schema<T>, most: number, least = 0): Schema<T[]> =>
  byHand(({ joi, of }) => joi.array().items(of(item)).min(least).max(most))

const TWICE = { 'array.unique': '{{#label}} has the same id as an earlier one' }

/** A list of objects none of which has the id of another. */
export const unique = <T extends { id: string }>(item: Schema<T>, most = 500, least = 0): Schema<T[]> =>
  byHand(({ joi, of }) => joi.array().items(of(item)).min(least).max(most).unique('id').messages(TWICE))

/** A list of plain values, none of them twice. */
export const distinct = <T extends string>(item: Schema<T>, most = 500, least = 0): Schema<T[]> =>
  byHand(({ joi, of }) => joi.array().items(of(item)).min(least).max(most).unique())

/** A list of exactly seven: a week. */
export const week = <T>(item: Schema<T>): Schema<[T, T, T, T, T, T, T]> =>
  byHand(({ joi, of }) => joi.array().items(of(item)).length(7))

const keysOf = (keys: Keys, of: Maker['of']): Joi.SchemaMap =>
  Object.fromEntries(
    Object.entries(keys).map(([name, key]) => [
      name,
      'optional' in key ? of(key.optional) : of(key).required(),
    ]),
  )

/** An object with these keys and no others. */
export const object = <K extends Keys>(keys: K): Schema<Shape<K>> =>
  byHand(({ joi, of }) => joi.object(keysOf(keys, of)))

/** What is let in under names that are not known beforehand. */
export const record = <T>(name: Schema<string>, value: Schema<T>, most: number): Schema<Record<string, T>> =>
  byHand(({ joi, of }) => joi.object().pattern(of(name), of(value)).max(most))

/** How messages name their place: by its last key, unadorned. */
export const LABELS = { label: 'key', wrap: { label: '' } } as const

/** What tells that a value means to be of a shape: the keys it has, or the values they have. */
type Sign = Record<string, true | string>

/**
 * One of several shapes, told apart by a sign. Only the shape that is meant is looked at, so the faults are its own,
 * and shapes within shapes cost no more than their size.
 */
export function oneOf<S extends readonly Schema<unknown>[]>(
  ...cases: { [I in keyof S]: readonly [Sign, S[I]] }
): Schema<Let<S[number]>> {
  return byHand(({ joi, branch, of }) => {
    let all = joi.alternatives()
    for (const [sign, shape] of cases) {
      const signs = Object.entries(sign).map(([key, value]) => [
        key,
        (value === true ? joi.any() : joi.valid(value)).required(),
      ])
      all = all.conditional(joi.object(Object.fromEntries(signs)).unknown().required(), branch(of(shape)))
    }
    return all
  })
}

/** One of several shapes that share no sign: told apart by trying. For plain values. */
export const anyOf = <S extends readonly Schema<unknown>[]>(...branches: S): Schema<Let<S[number]>> =>
  byHand(({ joi, of }) => joi.alternatives().try(...branches.map(of)))

type Tagged<G extends string, B extends Record<string, Keys>> = {
  [N in keyof B & string]: Shape<{ [T in G]: Schema<N> } & B[N]>
}[keyof B & string]

/** One of several shapes told apart by a tag, as `kind`. */
export function tagged<const G extends string, B extends Record<string, Keys>>(
  tag: G,
  branches: B,
): Schema<Tagged<G, B>> {
  const names = Object.keys(branches)
  const cases = Object.entries(branches).map(([name, keys]): [Sign, Schema<unknown>] => [
    { [tag]: name },
    object({ [tag]: one(name), ...keys }),
  ])
  return byHand(({ of }) =>
    of(oneOf(...cases)).messages({
      'alternatives.any': `{{#label}} must have a ${tag}: one of ${names.join(', ')}`,
      'alternatives.match': `{{#label}} must have a ${tag}: one of ${names.join(', ')}`,
    }),
  )
}

/** A schema that refers to itself by a name. */
export const named = <T>(name: string, schema: Schema<T>): Schema<T> =>
  byHand(({ of }) => of(schema).id(name))
/** Such a reference; its type is given by hand. */
export const link = <T>(name: string): Schema<T> => byHand(({ joi }) => joi.link(`#${name}`))

type Same<A, B> = (<X>() => X extends A ? 1 : 2) extends <X>() => X extends B ? 1 : 2 ? true : false
/** A type with its intersections and interfaces written out, down to what is named in `S`. */
type Written<T, S> = T extends S
  ? T
  : T extends string | number | boolean | undefined | null
    ? T
    : T extends readonly unknown[]
      ? { -readonly [I in keyof T]: Written<T[I], S> }
      : { -readonly [K in keyof T]: Written<T[K], S> }

/**
 * Holds a schema to a type: they must be the same, key by key, or the compiler says so.
 * @typeParam S what is left as it is named: types that refer to themselves
 */
export const exactly =
  <T, S = never>() =>
  <U>(
    schema: Schema<U> &
      (Same<Written<U, S>, Written<T, S>> extends true
        ? unknown
        : { differs: [Written<U, S>, Written<T, S>] }),
  ): Schema<T> =>
    byHand(({ of }) => of(schema))

/** What our own names of things are. */
export const id = pattern(
  /^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/,
  64,
  '{{#label}} must be letters, digits, dots and dashes, 64 at most',
)
/** How many there are of something. */
export const count = whole(1, 10_000)
