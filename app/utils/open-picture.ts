/** Longest side that a picture is worked on at, pixels; larger ones are made smaller first. */
const LONGEST = 3000
/** Larger files are not opened. */
const MAX_BYTES = 40e6

export interface OpenedPicture {
  url: string
  width: number
  height: number
  data: Uint8ClampedArray
}

/**
 * A picture's pixels, on white where it is clear.
 * @param what the picture should show, for the message
 * @returns a sentence where it cannot be read
 */
export async function openPicture(file: Blob, what: string): Promise<OpenedPicture | string> {
  if (!file.type.startsWith('image/')) return `This is not a picture: a PNG or JPEG of ${what} is wanted.`
  if (file.size > MAX_BYTES) return 'This picture is too large: 40 MB at most.'
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return 'The picture cannot be read: is it damaged?'
  const shrink = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * shrink))
  canvas.height = Math.max(1, Math.round(bitmap.height * shrink))
  const pen = canvas.getContext('2d', { willReadFrequently: true })!
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  const { data } = pen.getImageData(0, 0, canvas.width, canvas.height)
  return { url: URL.createObjectURL(file), width: canvas.width, height: canvas.height, data }
}
