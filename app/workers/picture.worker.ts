import { expose } from 'comlink'

/** Longest side of what is kept, pixels: a jar's label can still be read. */
const LONGEST = 1280
/** What is sent weighs less than the server takes. */
const MOST_BYTES = 290 * 1024
const QUALITIES = [0.84, 0.74, 0.62, 0.5, 0.38]

/**
 * Makes a picture small, upright, and without what the camera wrote about place and time: only its pixels are drawn anew.
 * @returns JPEG, under 290 kB
 * @throws where the browser cannot read it as a picture
 */
async function makeSmall(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const { width, height } = picture
  let longest = Math.min(LONGEST, Math.max(width, height))
  try {
    for (;;) {
      const scale = longest / Math.max(width, height)
      const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)))
      const ink = canvas.getContext('2d')!
      // What is clear in a drawing is paper.
      ink.fillStyle = '#fff'
      ink.fillRect(0, 0, canvas.width, canvas.height)
      ink.imageSmoothingQuality = 'high'
      ink.drawImage(picture, 0, 0, canvas.width, canvas.height)
      for (const quality of QUALITIES) {
        const small = await canvas.convertToBlob({ type: 'image/jpeg', quality })
        if (small.size <= MOST_BYTES) return small
      }
      longest *= 0.7
    }
  } finally {
    picture.close()
  }
}

const small = { makeSmall }
export type PictureWorker = typeof small
expose(small)
