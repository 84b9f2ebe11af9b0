import { defineAsyncComponent, type Component } from 'vue'
import type { EntryKind } from '#core/log'
import AirForm from './AirForm.vue'
import ContainsForm from './ContainsForm.vue'
import CycleForm from './CycleForm.vue'
import FeelForm from './FeelForm.vue'
import FinishForm from './FinishForm.vue'
import GrindForm from './GrindForm.vue'
import HeatForm from './HeatForm.vue'
import HeatThroughForm from './HeatThroughForm.vue'
import HoldForm from './HoldForm.vue'
import IntakeForm from './IntakeForm.vue'
import JarAirForm from './JarAirForm.vue'
import LookForm from './LookForm.vue'
import PictureForm from './PictureForm.vue'
import NoteForm from './NoteForm.vue'
import OutlookForm from './OutlookForm.vue'
import PowderDryForm from './PowderDryForm.vue'
import PrepForm from './PrepForm.vue'
import RestEndForm from './RestEndForm.vue'
import RestForm from './RestForm.vue'
import RestOutForm from './RestOutForm.vue'
import ReviewForm from './ReviewForm.vue'
import SplitForm from './SplitForm.vue'
import UnloadForm from './UnloadForm.vue'
import WeighForm from './WeighForm.vue'

/** The two largest are fetched on their own: the page of a batch asks for them where its stage comes to them. */
const LoadForm = defineAsyncComponent(() => import('./LoadForm.vue'))
const PackForm = defineAsyncComponent(() => import('./PackForm.vue'))

/** The form of each kind of entry, with the words of its frame. */
export const FORMS: Partial<Record<EntryKind, { title: string; save: string; form: Component; props?: object }>> = {
  intake: { title: 'What came in', save: 'Save', form: IntakeForm },
  prep: { title: 'Prepare', save: 'Log this step', form: PrepForm },
  load: { title: 'Load the trays', save: 'Load', form: LoadForm },
  heat: { title: 'Heat', save: 'Set the heat', form: HeatForm },
  air: { title: 'Air', save: 'Log the air', form: AirForm },
  cycleHours: { title: 'Hours added to the cycle', save: 'Log the hours', form: CycleForm, props: { told: 'added' } },
  cycleShows: { title: 'What the machine shows', save: 'Log it', form: CycleForm },
  weigh: { title: 'Weight', save: 'Save', form: WeighForm },
  feel: { title: 'Feel', save: 'Log what was felt', form: FeelForm },
  unload: { title: 'Take the trays out', save: 'Take out', form: UnloadForm },
  heatThrough: { title: 'Heat it through', save: 'Log the heat', form: HeatThroughForm },
  hold: { title: 'Keep it for now', save: 'Log where it is', form: HoldForm },
  split: { title: 'A part of it', save: 'Log this part', form: SplitForm },
  outlook: { title: 'Dusk and rain', save: 'Log the weather', form: OutlookForm },
  powderDry: { title: 'Dry the powder', save: 'Log the drying', form: PowderDryForm },
  rest: { title: 'Rest in a jar', save: 'Begin the rest', form: RestForm },
  look: { title: 'Look at the jar', save: 'Log the look', form: LookForm },
  jarAir: { title: 'Air in a closed jar', save: 'Log the reading', form: JarAirForm },
  restEnd: { title: 'End the rest', save: 'End the rest', form: RestEndForm },
  grind: { title: 'Grind', save: 'Log the grinding', form: GrindForm },
  pack: { title: 'Pack a jar', save: 'Pack', form: PackForm },
  finish: { title: 'Finish the batch', save: 'Finish', form: FinishForm },
  note: { title: 'Note', save: 'Keep the note', form: NoteForm },
  picture: { title: 'A picture', save: 'Keep it', form: PictureForm },
  restOut: { title: 'Throw a jar away', save: 'Log it', form: RestOutForm },
  contains: { title: 'What it contains', save: 'Keep it', form: ContainsForm },
  review: { title: 'For next time', save: 'Keep it', form: ReviewForm },
}
