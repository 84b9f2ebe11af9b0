/** A new page is read from its heading on: keys and screen readers begin there, not at the end of the last one. */
export function usePageFocus(): void {
  const router = useRouter()
  onMounted(() => {
    router.afterEach((to, from) => {
      if (to.path === from.path) return
      // Within a place the tabs keep the hand.
      if (to.matched[0]?.path === from.matched[0]?.path && to.matched.length > 1) return
      setTimeout(() => {
        if (document.querySelector('.el-overlay [role=dialog]')?.checkVisibility()) return
        const heading = document.querySelector<HTMLElement>('main h1')
        if (!heading) return
        heading.tabIndex = -1
        heading.focus({ preventScroll: true })
      }, 50)
    })
  })
}
