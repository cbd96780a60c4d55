/** The attributes of a text that is written in an editor, so that it is a field like any other. */
export const writingIn = (label: string, classes: string): Record<string, string> => ({
  role: 'textbox',
  'aria-multiline': 'true',
  'aria-label': label,
  class: `field rich block h-auto py-2 ${classes}`,
  dir: 'auto',
})
