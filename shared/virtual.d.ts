declare module '#migrations' {
  export const migrations: readonly { name: string; sql: string }[]
}
declare module '#reference' {
  export const reference: import('#core/foods').ReferenceSource
}
