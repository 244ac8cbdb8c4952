import { attachmentSchema, MAX_ATTACHED } from '#shared/schemas/fan'

/** A photo as it is kept: small ones as they are, large ones made smaller here, so that a phone's picture goes through. */

/** Up to this size a picture is kept as it came; longest side of one that is made smaller, in dots. Choices of ours. */
const SMALL_BYTES = 1_500_000
const LONGEST = 2000
const QUALITY = 0.85

export type Photo = { ok: true; blob: Blob; mediaType: string } | { ok: false; message: string }

/** @param file as the person chose it; what is no picture is told by its content, not by its name */
export async function photoOf(file: File): Promise<Photo> {
  const refused = (why: string): Photo => ({ ok: false, message: `${file.name}: ${why}` })
  let image: ImageBitmap
  try {
    image = await createImageBitmap(file)
  } catch {
    return refused('this is no picture that can be shown here. PNG, JPEG or WebP is wanted.')
  }
  const kept = attachmentSchema.shape.mediaType.safeParse(file.type).success
  if (kept && file.size <= SMALL_BYTES) {
    image.close()
    return { ok: true, blob: file, mediaType: file.type }
  }
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height))
  const canvas = new OffscreenCanvas(Math.round(image.width * scale), Math.round(image.height * scale))
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
  image.close()
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })
  return blob.size <= MAX_ATTACHED
    ? { ok: true, blob, mediaType: 'image/jpeg' }
    : refused(
        `it has ${(blob.size / 1e6).toFixed(1)} MB even when made smaller; at most ${MAX_ATTACHED / 1e6} MB are kept.`,
      )
}
