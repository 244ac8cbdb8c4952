/** Hands a file to the browser to keep. */
export function saveBlob(blob: Blob, name: string) {
  const url = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}
export const saveText = (text: string, name: string, type: string) => saveBlob(new Blob([text], { type }), name)
