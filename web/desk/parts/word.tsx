/** What the practitioner writes with a decision, if they like. */
export const WordWithIt = ({
  label = 'A word with it',
  text,
  onChange,
}: {
  label?: string
  text: string
  onChange: (text: string) => void
}) => (
  <label className="ask mt-3 block">
    {label} <span className="font-normal text-soft">if you like</span>
    <textarea
      className="field mt-1 min-h-20"
      maxLength={5_000}
      value={text}
      onChange={(event) => onChange(event.target.value)}
    />
  </label>
)

/** What goes with an act: a word, or nothing at all, not even the mail. */
export interface GoesWith {
  text: string
  silent?: true
}

/** What of it is sent: in silence, what was written stays in the field. */
export const goingWith = ({ text, silent }: GoesWith): GoesWith => (silent ? { text: '', silent } : { text })

/** Lets an act be done in silence: whoever it is about is told by the practitioner, or not. */
export const Silently = ({ said, onChange }: { said: GoesWith; onChange: (said: GoesWith) => void }) => (
  <label className="mt-3 flex min-h-[32px] cursor-pointer items-center gap-3">
    <input
      type="checkbox"
      className="checkbox checkbox-primary checkbox-sm"
      checked={said.silent ?? false}
      onChange={(event) =>
        onChange({ text: said.text, ...(event.target.checked ? { silent: true as const } : {}) })
      }
    />
    Silently: nothing is sent about it
  </label>
)

/** A word with an act, or silence. */
export const WordOrSilence = ({
  label,
  ...props
}: {
  label?: string
  said: GoesWith
  onChange: (said: GoesWith) => void
}) => (
  <>
    {!props.said.silent && (
      <WordWithIt
        {...(label === undefined ? {} : { label })}
        text={props.said.text}
        onChange={(text) => props.onChange({ ...props.said, text })}
      />
    )}
    <Silently {...props} />
  </>
)
