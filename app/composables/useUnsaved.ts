/**
 * A form that was typed in and not saved is not dropped by a tap beside it, by Esc or by Back: it is asked first. What closes it in so
 * many words does not ask.
 * @param dirty whether something was typed that nobody has saved
 * @param close closes the form
 */
export function useUnsaved(dirty: () => boolean, close: () => void) {
  const asking = ref(false)
  /** For the dialog: Esc, the cross and a tap beside it. */
  const beforeClose = (done: () => void) => {
    if (dirty()) asking.value = true
    else done()
  }
  const letGo = useRouter().beforeEach(() => {
    if (!dirty()) return true
    asking.value = true
    return false
  })
  onScopeDispose(letGo)
  useEventListener('beforeunload', event => {
    if (dirty()) event.preventDefault()
  })
  return {
    asking,
    beforeClose,
    throwAway: () => {
      asking.value = false
      close()
    },
  }
}
