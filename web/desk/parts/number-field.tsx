/** A labelled whole number in a form that is sent as a whole. */
export const NumberField = ({
  label,
  value,
  most,
  onChange,
}: {
  label: string
  value: number
  most?: number
  onChange: (value: number) => void
}) => (
  <label className="ask">
    {label}
    <input
      type="number"
      min={1}
      max={most}
      className="field mt-1"
      value={value || ''}
      onChange={(event) => onChange(Number(event.target.value))}
    />
  </label>
)
