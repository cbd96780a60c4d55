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
