import { labelPdf, labelSheet } from '#server/labels/pdf'
import { labelsWanted, templateNamed } from '#server/labels/request'
import { labelSvg } from '#server/labels/svg'
import { LABEL_TEMPLATES } from '#server/labels/templates'
import { jarLabel } from '#server/labels/words'
import { kitchenPage } from '#server/services/kitchen'
import { recipeList, recipesOnce, removeRecipe, saveRecipe } from '#server/services/recipes'
import { jarPage, recallPage, saveWish, shelfPage, shelfPlaces } from '#server/services/shelf'
import { logOnJar } from '#server/services/writeLog'
import type { Handlers } from '../utils/route'

/** Jars, their labels, and what a cook makes of them. */
export const shelf = {
  jar: ({ context, params }) => jarPage(context, params.jarId),
  logOnJar: ({ context, event, params, body }) => logOnJar(writing(context, event), params.jarId, body),
  jarRecall: ({ context, params }) => {
    jarPage(context, params.jarId)
    return recallPage(context, params.jarId)
  },
  labelSvg: async ({ context, event, params, query }) => {
    const template = templateNamed(query.template)
    const label = jarLabel(context, params.jarId, getRequestURL(event).origin)
    const svg = labelSvg(label, await useLabelFonts(), template)
    giveFile(event, 'image/svg+xml; charset=utf-8')
    return svg
  },
  labelPdf: async ({ context, event, params, query }) => {
    const template = templateNamed(query.template)
    const label = jarLabel(context, params.jarId, getRequestURL(event).origin)
    const pdf = await labelPdf(label, await useLabelFonts(), template)
    giveFile(event, 'application/pdf', { name: `jar-${label.jarNumber}.pdf`, shown: true })
    return pdf
  },
  labelSheet: async ({ context, event, query }) => {
    const template = templateNamed(query.template)
    const labels = labelsWanted(context, query.jars, query.copies, getRequestURL(event).origin)
    const pdf = await labelSheet(labels, await useLabelFonts(), template, { skip: query.skip, cut: query.cut })
    giveFile(event, 'application/pdf', { name: 'labels.pdf', shown: true })
    return pdf
  },
  labelTemplates: () => [...LABEL_TEMPLATES],
  shelf: ({ context }) => shelfPage(context),
  places: ({ context }) => shelfPlaces(context),
  wish: ({ context, body }) => saveWish(context, body),

  kitchen: ({ context }) => kitchenPage(context),
  recipes: ({ context }) => recipeList(context),
  saveRecipe: ({ context, body }) => saveRecipe(context, body),
  pastRecipes: ({ context }) => recipesOnce(context),
  removeRecipe: ({ context, params }) => removeRecipe(context, params.recipeId),
} satisfies Partial<Handlers>
