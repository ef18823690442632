import core from 'tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url'
import worker from 'tesseract.js/dist/worker.min.js?url'
import { cellsOf } from './pictureCells'
import { folder, scriptsIn } from './pictureScripts'

/** Small letters are read far better three times as large. */
const enlarged = 3
/** More points than this are not drawn: 24 million, some 100 MB. */
const mostPoints = 24_000_000

/** The lines of a picture of a list of people, as text with tabs between columns. It is read here in the browser and goes nowhere. */
export async function linesIn(picture: Blob, names: string[], progress: (share: number) => void, stop: AbortSignal) {
  const { createWorker, OEM, PSM } = await import('tesseract.js')
  const image = await drawn(picture)
  const reader = await createWorker(scriptsIn(names), OEM.LSTM_ONLY, {
    langPath: folder,
    workerPath: worker,
    corePath: core,
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: (message) => message.status === 'recognizing text' && progress(message.progress),
  })
  const stopped = new Promise<never>((_, reject) =>
    stop.addEventListener('abort', () => reject(new Error('Reading the picture was stopped.'))),
  )
  try {
    await reader.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_BLOCK })
    const { data } = await Promise.race([reader.recognize(image, {}, { blocks: true }), stopped])
    return cellsOf((data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines.map((l) => l.words))))
  } finally {
    void reader.terminate()
  }
}

async function drawn(picture: Blob) {
  const image = await createImageBitmap(picture).catch(() => {
    throw new Error('This picture cannot be read. Save it as PNG or JPEG, or paste the names.')
  })
  const scale = Math.min(enlarged, Math.sqrt(mostPoints / (image.width * image.height)))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(image.width * scale)
  canvas.height = Math.round(image.height * scale)
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  context.imageSmoothingQuality = 'high'
  context.drawImage(image, 0, 0, canvas.width, canvas.height)
  if (isDark(context, canvas)) {
    context.globalCompositeOperation = 'difference'
    context.fillStyle = 'white'
    context.fillRect(0, 0, canvas.width, canvas.height)
  }
  return canvas
}

/** Whether letters are light on dark, by every hundredth point. */
function isDark(context: CanvasRenderingContext2D, { width, height }: HTMLCanvasElement) {
  const { data } = context.getImageData(0, 0, width, height)
  let [sum, count] = [0, 0]
  for (let at = 0; at < data.length; at += 400, count++) sum += data[at]! + data[at + 1]! + data[at + 2]!
  return sum / count < 3 * 110
}
