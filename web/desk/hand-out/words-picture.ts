/** Dots of the picture: 160 × 40 mm at about 250 an inch. */
const WIDTH = 1_600
const HEIGHT = 400

/** A name with a line below it as a PNG, in the house's own fonts, each as large as its line allows. */
export async function wordsPicture(name: string, line: string): Promise<Uint8Array> {
  await document.fonts.ready
  const canvas = document.createElement('canvas')
  canvas.width = WIDTH
  canvas.height = HEIGHT
  const paper = canvas.getContext('2d')
  if (!paper) throw new Error('This browser can’t draw a picture of your name.')
  paper.fillStyle = '#fff'
  paper.fillRect(0, 0, WIDTH, HEIGHT)
  paper.fillStyle = '#000'
  paper.textAlign = 'center'
  const write = (text: string, font: (px: number) => string, px: number, y: number): void => {
    paper.font = font(px)
    const fits = Math.min(px, (px * (WIDTH - 40)) / Math.max(1, paper.measureText(text).width))
    paper.font = font(fits)
    paper.fillText(text, WIDTH / 2, y)
  }
  write(name, (px) => `600 ${px}px "Fraunces Variable", serif`, 150, 190)
  write(line, (px) => `${px}px "Atkinson Hyperlegible Next Variable", sans-serif`, 70, 310)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (!blob) throw new Error('This browser can’t draw a picture of your name.')
  return new Uint8Array(await blob.arrayBuffer())
}
