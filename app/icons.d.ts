declare module '@tabler/icons-vue/dist/esm/icons/*.mjs' {
  import type { Icon } from '@tabler/icons-vue'

  const icon: Icon
  export default icon
}
