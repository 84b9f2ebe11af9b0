import { InputError } from '#core/errors'
import type { Context } from '#server/services/context'
import { LABEL_TEMPLATES, templateOf, type LabelTemplate } from './templates'
import { jarLabel, type JarLabel } from './words'

/**
 * The template that was asked for.
 * @throws InputError where there is none of that key
 */
export function templateNamed(key: string | undefined): LabelTemplate {
  const template = templateOf(key)
  if (!template)
    throw new InputError([
      {
        field: 'template',
        code: 'no-template',
        message: `There is no template “${key}”. Choose ${LABEL_TEMPLATES.map(item => item.key).join(', ')}.`,
      },
    ])
  return template
}

/** Labels of some jars, each so many times. */
export function labelsWanted(context: Context, jars: readonly string[], copies: number, origin: string): JarLabel[] {
  return jars.flatMap(jarId => {
    const label = jarLabel(context, jarId, origin)
    return Array.from({ length: copies }, () => label)
  })
}
