/** Hands a file to the browser to keep. */
export function saveBlob(blob: Blob, name: string) {
  const url = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}
/** The same for what the server makes. */
export function saveFrom(address: string, name: string) {
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
}
/** A name as part of a file's: letters and digits. */
export const fileWords = (name: string) => name.replaceAll(/[^\p{L}\p{N}]+/gu, '-')
export const saveText = (text: string, name: string, type: string) => saveBlob(new Blob([text], { type }), name)
