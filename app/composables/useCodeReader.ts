/** So wide a picture is looked at, px: a label at arm's length is read, and an old phone keeps up. */
const WIDTH_PX = 900

let canvas: HTMLCanvasElement | undefined

/** What a code in a picture says; undefined where none can be read. The reader is fetched when somebody scans first. */
async function codeIn(picture: HTMLVideoElement | ImageBitmap): Promise<string | undefined> {
  const { default: jsQR } = await import('jsqr')
  const [wide, high] = 'videoWidth' in picture ? [picture.videoWidth, picture.videoHeight] : [picture.width, picture.height]
  if (wide === 0 || high === 0) return undefined
  const scale = Math.min(1, WIDTH_PX / wide)
  canvas ??= document.createElement('canvas')
  canvas.width = Math.round(wide * scale)
  canvas.height = Math.round(high * scale)
  const paint = canvas.getContext('2d', { willReadFrequently: true })!
  paint.drawImage(picture, 0, 0, canvas.width, canvas.height)
  const { data, width, height } = paint.getImageData(0, 0, canvas.width, canvas.height)
  return jsQR(data, width, height)?.data || undefined
}

/** Between two looks through the camera, ms: quick to the hand, and easy on an old phone. */
const LOOK_MS = 180
/** A code that was not seen for so long has left the sight; before that a frame was blurred, or a hand in the way, ms. */
const GONE_MS = 1500

/** The camera as a reader of codes. @param found what a code says, once for each that comes into sight */
export function useCodeReader(found: (text: string) => void) {
  const video = ref<HTMLVideoElement>()
  const problem = ref('')
  const looking = ref(false)
  let stream: MediaStream | undefined
  let last = ''
  let seenAt = 0

  async function start() {
    problem.value = ''
    if (!navigator.mediaDevices?.getUserMedia) {
      problem.value = 'This browser gives no camera here: over the house it needs the address with https. A picture of the label does too.'
      return
    }
    try {
      stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1280 } }, audio: false })
    } catch (error) {
      // What was said of a picture meanwhile stands.
      problem.value ||=
        (error as Error).name === 'NotAllowedError'
          ? 'The camera was not allowed. Allow it for this page, or take a picture of the label.'
          : 'No camera was found. A picture of the label does too.'
      return
    }
    if (!video.value) return stop()
    video.value.srcObject = stream
    await video.value.play().catch(() => undefined)
    looking.value = true
    void look()
  }
  async function look() {
    while (looking.value && video.value) {
      try {
        if (video.value.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA) {
          const text = await codeIn(video.value)
          if (text) tell(text)
          else if (performance.now() - seenAt > GONE_MS) last = ''
        }
      } catch {
        stop()
        problem.value = 'What reads codes could not be fetched: the server is out of touch.'
        return
      }
      await new Promise(resolve => setTimeout(resolve, LOOK_MS))
    }
  }
  function tell(text: string) {
    seenAt = performance.now()
    if (text === last) return
    last = text
    found(text)
  }
  /** From a picture. */
  async function read(file: Blob) {
    problem.value = ''
    const bitmap = await createImageBitmap(file).catch(() => undefined)
    if (!bitmap) {
      problem.value = 'This file is no picture that the browser can read.'
      return
    }
    const text = await codeIn(bitmap)
    bitmap.close()
    // A picture is always a new look.
    last = ''
    if (text) tell(text)
    else problem.value = 'There is no code to be read in this picture. Nearer, straight on, without a shine.'
  }
  function stop() {
    looking.value = false
    for (const track of stream?.getTracks() ?? []) track.stop()
    stream = undefined
  }
  onScopeDispose(stop)
  return { video, problem, looking, start, stop, read }
}
