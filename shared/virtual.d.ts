declare module '#migrations' {
  export const migrations: readonly { name: string, sql: string }[]
}
