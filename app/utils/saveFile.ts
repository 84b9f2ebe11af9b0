/** Hands a file over to be saved, as the browser does with any download. */
export function saveFile(name: string, url: string): void {
  const link = document.createElement('a')
  link.href = url
  link.download = name.replace(/[\\/:*?"<>|]/g, ' ')
  link.click()
}
