import type { Component } from 'vue'
import type { EntryKind } from '#core/log'
import ContainsForm from './ContainsForm.vue'
import DiscardForm from './DiscardForm.vue'
import FillForm from './FillForm.vue'
import LookJarForm from './LookJarForm.vue'
import MeasureForm from './MeasureForm.vue'
import MoveJarForm from './MoveJarForm.vue'
import PictureForm from './PictureForm.vue'
import PourForm from './PourForm.vue'
import ReviewForm from './ReviewForm.vue'
import SmellForm from './SmellForm.vue'
import TakeForm from './TakeForm.vue'

/** The forms of a jar's own log. */
export const JAR_FORMS: Partial<Record<EntryKind, { title: string; save: string; form: Component }>> = {
  take: { title: 'Take some', save: 'Take', form: TakeForm },
  moveJar: { title: 'Move the jar', save: 'Log where it stands', form: MoveJarForm },
  discard: { title: 'Discard what is left', save: 'Discard it', form: DiscardForm },
  smell: { title: 'Smell test', save: 'Log the smell', form: SmellForm },
  lookJar: { title: 'Look into the jar', save: 'Log the look', form: LookJarForm },
  measure: { title: 'Weigh a level spoon', save: 'Keep the weight', form: MeasureForm },
  fill: { title: 'Fill a jar from this one', save: 'Fill it', form: FillForm },
  pour: { title: 'Top it up', save: 'Pour it in', form: PourForm },
  picture: { title: 'A picture', save: 'Keep it', form: PictureForm },
  contains: { title: 'What it contains', save: 'Keep it', form: ContainsForm },
  review: { title: 'For next time', save: 'Keep it', form: ReviewForm },
}
