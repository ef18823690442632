import core from 'tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url'
import worker from 'tesseract.js/dist/worker.min.js?url'
import { joined, partedIn, textOf, type Box, type Written } from './pictureCells'
import { folder, isIn, scriptsIn, type Script } from './pictureScripts'

/** Small letters are read far better three times as large. */
const enlarged = 3
/** More points than this are not drawn: 24 million, some 100 MB. */
const mostPoints = 24_000_000
/** So many points around a name are read with the name. */
const margin = 12

/**
 * The lines of a picture of a list of people, as text with tabs between columns. It is read here in the browser and goes nowhere.
 * All is read with the letters that most names of the class are written in; only what is no name of the class is read anew with each other script, for all scripts at once are slow and take one for the other.
 */
export async function linesIn(picture: Blob, names: string[], progress: (share: number) => void, stop: AbortSignal) {
  const image = await drawn(picture)
  const [first, ...others] = scriptsIn(names)
  const passes = 1 + others.length
  const reader = await readerOf(first!, (share) => progress(share / passes))
  const stopped = new Promise<never>((_, reject) =>
    stop.addEventListener('abort', () => reject(new Error('Reading the picture was stopped.'))),
  )
  const read = async () => {
    const rows = partedIn(await reader.lines(image))
    const isKnown = knownIn(names)
    for (const [i, script] of others.entries()) {
      const doubtful = rows.flat().filter((cell) => !isKnown(cell.text))
      if (doubtful.length) await reader.change(script)
      for (const [at, cell] of doubtful.entries()) {
        progress((1 + i + at / doubtful.length) / passes)
        const words = (await reader.lines(cut(image, cell.bbox))).flat().filter((word) => isIn(script, word.text))
        if (!words.length) continue
        const { text, confidence } = joined(words)
        if (confidence > cell.confidence || isKnown(text)) Object.assign(cell, { text, confidence })
      }
    }
    return textOf(rows)
  }
  try {
    return await Promise.race([read(), stopped])
  } finally {
    void reader.end()
  }
}

async function readerOf({ languages }: Script, progress: (share: number) => void) {
  const { createWorker, OEM, PSM } = await import('tesseract.js')
  let isFirst = true
  const reader = await createWorker(languages, OEM.LSTM_ONLY, {
    langPath: folder,
    workerPath: worker,
    corePath: core,
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: ({ status, progress: share }) => isFirst && status === 'recognizing text' && progress(share),
  })
  await reader.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_BLOCK })
  return {
    async change(script: Script) {
      isFirst = false
      await reader.reinitialize(script.languages.join('+'), OEM.LSTM_ONLY)
      await reader.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_LINE })
    },
    async lines(image: HTMLCanvasElement): Promise<Written[][]> {
      const { data } = await reader.recognize(image, {}, { blocks: true })
      return (data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines.map((l) => l.words)))
    },
    end: () => reader.terminate(),
  }
}

/** A text is known if half of its words are words of names of the class. */
function knownIn(names: string[]) {
  const wordsOf = (text: string) => folded(text).match(/\p{L}{2,}/gu) ?? []
  const all = new Set(names.flatMap(wordsOf))
  return (text: string) => {
    const words = wordsOf(text)
    return words.length > 0 && 2 * words.filter((word) => all.has(word)).length >= words.length
  }
}

const folded = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

function cut(image: HTMLCanvasElement, { x0, y0, x1, y1 }: Box) {
  const [width, height] = [x1 - x0 + 2 * margin, y1 - y0 + 2 * margin]
  const part = canvasOf(width, height)
  const context = part.getContext('2d')!
  context.fillStyle = 'white'
  context.fillRect(0, 0, width, height)
  context.drawImage(image, x0 - margin, y0 - margin, width, height, 0, 0, width, height)
  return part
}

function canvasOf(width: number, height: number) {
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width)
  canvas.height = Math.round(height)
  return canvas
}

async function drawn(picture: Blob) {
  const image = await createImageBitmap(picture).catch(() => {
    throw new Error('This picture cannot be read. Save it as PNG or JPEG, or paste the names.')
  })
  const scale = Math.min(enlarged, Math.sqrt(mostPoints / (image.width * image.height)))
  const canvas = canvasOf(image.width * scale, image.height * scale)
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
