import type { Entry } from '#core/log'
import type { SchoolQuestion } from '#core/foods'
import type { Alternative, BoughtIn, Forecast } from '#core/planning'
import type {
  AlarmsAnswer,
  BatchAnswer,
  BatchSummary,
  CodeAnswer,
  ComparedRun,
  DeviceAnswer,
  FlowAnswer,
  FoodHoursAnswer,
  FoodPageAnswer,
  FoodPartsAnswer,
  FoodSummary,
  FoundItem,
  HomeAnswer,
  HouseholdAnswer,
  HygrometerAnswer,
  ImportAnswer,
  InsightAnswer,
  JarAnswer,
  KitchenAnswer,
  LabelTemplateAnswer,
  LearnedAnswer,
  LessonAnswer,
  MachineAnswer,
  MachinePageAnswer,
  NowAnswer,
  PastRecipe,
  PictureAnswer,
  PlanAnswer,
  PlanBookAnswer,
  PlanCheckAnswer,
  PlanYearAnswer,
  ReadingSeries,
  ReadingsAnswer,
  RecallAnswer,
  Recipe,
  ShelfAnswer,
  StageCount,
  StockAnswer,
  ToolAnswer,
  TrialAnswer,
  WhoAnswer,
} from '../contracts'

/** The entry as it stands in the log. `repeated`: it was there already with the same content, and was not written again. */
export interface Written {
  entry: Entry
  repeated: boolean
}

/** What became of a backup that was put in the logbook's place. */
export interface Restored {
  batches: number
  entries: number
  /** The file in which the logbook that stood there is kept. */
  aside: string
  /** Pictures that its log names and that are nowhere to be had. */
  picturesMissing: number
}

/** A copy of the logbook that Dulse made by itself; its name has the day. */
export interface Copy {
  name: string
  madeAt: number
  bytes: number
}

/** What putting a copy back would lose. */
export interface CopyLoss {
  entries: number
  batches: number
  /** When the newest entry of the copy was written. */
  lastAt: number | null
}

/** What each route answers in JSON, by the route's name. Routes that are not here give a file. */
export interface Answers {
  now: NowAnswer
  clearTodo: NowAnswer
  /** `damaged`: what is said of the file, where it is read only. */
  health: { damaged: string | null; now: number }
  /** `apart`: in a folder of one's choice, else beside the logbook. */
  copies: { apart: boolean; copies: Copy[] }
  makeCopy: Copy
  copyLoss: CopyLoss
  restoreCopy: Restored
  stages: StageCount[]
  find: FoundItem[]
  byNumber: { id: string }
  savePicture: { name: string; bytes: number }
  batches: { batches: BatchSummary[]; more: boolean }
  startBatch: Written & { number: number }
  batch: BatchAnswer
  logOnBatch: Written
  batchRecall: RecallAnswer
  batchFlow: FlowAnswer
  logOnRun: Written
  logTogether: { written: Written[] }
  compare: ComparedRun[]
  trial: TrialAnswer
  insight: InsightAnswer
  learned: LearnedAnswer
  lessons: LessonAnswer[]
  readLesson: LessonAnswer
  jar: JarAnswer
  logOnJar: Written
  jarRecall: RecallAnswer
  labelTemplates: LabelTemplateAnswer[]
  shelf: ShelfAnswer
  places: { place: string; storageC?: number }[]
  wish: StockAnswer[]
  kitchen: KitchenAnswer
  recipes: (Recipe & { version: number })[]
  saveRecipe: Recipe & { version: number }
  pastRecipes: PastRecipe[]
  removeRecipe: { removed: boolean }
  household: HouseholdAnswer
  saveHousehold: HouseholdAnswer
  machines: MachineAnswer[]
  saveMachine: MachineAnswer
  machine: MachinePageAnswer
  upkeep: MachineAnswer
  tools: ToolAnswer[]
  saveTool: ToolAnswer
  hygrometers: HygrometerAnswer[]
  saveHygrometer: HygrometerAnswer
  alarms: AlarmsAnswer
  saveAlarms: AlarmsAnswer
  tryAlarm: { sent: boolean }
  devices: DeviceAnswer[]
  saveDevice: DeviceAnswer
  readings: ReadingSeries[]
  takeReadings: ReadingsAnswer
  plan: PlanAnswer
  planYear: PlanYearAnswer
  planCheck: PlanCheckAnswer
  takePlan: PlanAnswer
  dropPlan: PlanAnswer
  planBook: PlanBookAnswer
  savePlanBook: PlanBookAnswer
  weather: PlanBookAnswer
  forecast: Forecast
  forecastWays: Alternative[]
  forecastBoughtIn: BoughtIn
  foods: FoodSummary[]
  saveFood: FoodPageAnswer
  foodPictures: PictureAnswer[]
  food: FoodPageAnswer
  foodHours: FoodHoursAnswer
  removeFood: { removed: boolean }
  saveCard: FoodPageAnswer
  foodParts: FoodPartsAnswer
  schools: SchoolQuestion[]
  importFoods: ImportAnswer
  restore: Restored
  whoAmI: WhoAnswer
  enter: WhoAnswer
  pair: WhoAnswer
  leave: { left: boolean }
  home: HomeAnswer
  chooseHome: HomeAnswer
  setPassphrase: HomeAnswer
  makeCode: CodeAnswer
  changeHomeDevice: HomeAnswer
  removeHomeDevice: HomeAnswer
  /** `key` is shown this once: the server keeps its hash alone. */
  makeToken: { key: string; home: HomeAnswer }
  removeToken: HomeAnswer
}
