/**
 * Keys struck between the opening of a dialog and the moment its field has the cursor. Nothing that a
 * quick hand types is lost: the dialog takes it over when it is ready.
 */
export function useTypeAhead() {
  let typed = ''
  let listening = false

  function hear(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (event.key.length !== 1 && event.key !== 'Enter' && event.key !== 'Backspace') return
    event.preventDefault()
    event.stopPropagation()
    typed = event.key === 'Backspace' ? typed.slice(0, -1) : typed + (event.key === 'Enter' ? '\n' : event.key)
  }
  function begin() {
    if (listening) return
    typed = ''
    listening = true
    window.addEventListener('keydown', hear, true)
  }
  /** Ends the listening and gives what was typed; a line feed stands for Enter. */
  function take(): string {
    listening = false
    window.removeEventListener('keydown', hear, true)
    return typed
  }
  onScopeDispose(take)
  return { begin, take }
}
