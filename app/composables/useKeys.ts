import { tinykeys } from 'tinykeys'

/**
 * Keys that act while the caller's page or panel is open. A single letter does nothing while something
 * is typed, or while a dialog stands in front.
 */
export function useKeys(bindings: Record<string, () => void>) {
  const guarded = Object.fromEntries(
    Object.entries(bindings).map(([key, act]) => [
      key,
      (event: KeyboardEvent) => {
        const combined = key.includes('$mod')
        if (!combined && (isTyping(event.target) || dialogStands())) return
        event.preventDefault()
        act()
      },
    ]),
  )
  let stop: (() => void) | undefined
  onMounted(() => {
    stop = tinykeys(window, guarded)
  })
  onBeforeUnmount(() => stop?.())
}

/** Whether a dialog stands in front; one that is fading away does not count. */
function dialogStands(): boolean {
  return [...document.querySelectorAll('.el-overlay')].some(overlay => overlay.checkVisibility() && !overlay.className.includes('leave'))
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
}
