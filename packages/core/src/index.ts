/** What Tovel computes, in the order data flows. */
export { type EmittedFile, type EmittedProject } from './emit/emitted.ts';
export { extractionOf, previewComponent } from './emit/form/components/extraction.ts';
export { holdsContent } from './emit/form/components/hollow.ts';
export { hasFrame } from './emit/form/layouts/layouts.ts';
export {
  ASSET_TYPES,
  type AssetRef,
  type Box,
  type Declarations,
  type Design,
  designLimits,
  designSchema,
  type Element,
  type ElementKind,
  type ElementSource,
  type ElementStyle,
  emptyDesign,
  type FontFace,
  type FoundRegion,
  type Notice,
  type NoticeLevel,
  type RegionKind,
  type Screen,
  type ScreenUse,
  type VectorNode,
} from './model/design.ts';

export type * from './model/app.ts';
export { appSchema, defaultSettings, emptyApp, isSafeCssValue, TABLE_NAMES, tables } from './model/app.ts';

export { screenOfOwn } from './model/app.ts';

export { elementOfInteraction, freeInteractionKey, GESTURES, isStep, pressTo } from './model/interaction.ts';

export {
  elementsByKey,
  variableNames,
  hostOf,
  isOverlay,
  isUsed,
  orderedScreens,
  overlayOf,
  plainDialog,
  type Project,
  screenName,
  screensByKey,
  textOf,
  useInWords,
  walkElements,
} from './model/project.ts';

export { containersOf, findElement, isWithin, parentsByKey, screenOf, screenWith } from './model/places.ts';

export { isExternalAddress, isPlainAddress } from './vocabulary/addresses.ts';

export { STYLED_PARTS } from './vocabulary/styled_parts.ts';
export { listItems } from './vocabulary/list_items.ts';
export { TAGS, writtenTag } from './vocabulary/tags.ts';

export { findProblem, type Problem, problemText } from './schema/problem.ts';

export { jsonSchemaOf, type JsonSchema } from './schema/json_schema.ts';

export type { Schema } from './schema/schema.ts';

export { grouped } from './json/grouped.ts';

export { equalJson, isRecord, stringifySorted } from './json/json.ts';

export { camelCase, kebabCase, pascalCase, sentenceCase, uniqueName } from './model/names.ts';

export {
  all,
  applyChange,
  type Change,
  collisions,
  invertChange,
  changeSchema,
  parseChange,
  putAdded,
  putVariable,
  putCollection,
  putBinding,
  putApi,
  putMustHold,
  putDetail,
  putForm,
  putHandWritten,
  putComponent,
  putDefault,
  putDismissed,
  putDisclosure,
  putDrawer,
  putEdit,
  putRefused,
  putLibrary,
  putLook,
  putToken,
  putInteraction,
  putJourney,
  putLayer,
  putLayout,
  putRedirect,
  putRegion,
  putScreen,
  putDelivery,
  putSetting,
  putState,
  putUse,
  putStill,
  putSynonym,
  setStart,
  touchedBy,
} from './change/change.ts';

export { changeBetween, keysBetween, screensTouched } from './change/between.ts';

export { type Before, rebased, valuesIn, valuesOf } from './change/rebase.ts';

export { type KeyMap, mapChange } from './change/map_keys.ts';

export {
  deviceOf,
  type EntryHead,
  type EntryRole,
  type HistoryEntry,
  type HistoryState,
  historyState,
  inTheWay,
  isOwnStep,
  type Reader,
  type StandingStep,
  standings,
} from './change/history.ts';

export { installedFiles, isInstalled } from './intake/installed.ts';
export { limits, megabytes } from './intake/limits.ts';

export {
  baseName,
  fileName,
  hashOf,
  type InputFile,
  isMovable,
  kindOfFile,
  likestEnd,
  textOfFile,
  typeOfFile,
  unpack,
  resolveReference,
} from './intake/files.ts';
export { standInPicture } from './intake/stand_in_picture.ts';

export {
  addToDesign,
  type IntakeOptions,
  type IntakeProgress,
  type ReadSoFar,
  type IntakeResult,
  readBatch,
} from './intake/batch.ts';

export type { IntakeHost, ShippedFace } from './intake/host.ts';

export { noticeCauses, type NoticeCause } from './intake/notice_causes.ts';

export type {
  Clip,
  Gradient,
  Paint,
  PaintedItem,
  PaintedLink,
  PaintedPage,
} from './intake/painted/painted_page.ts';

export { type FontName, fontNamed } from './intake/painted/font_names.ts';

export type { Pixels, TextLine } from './intake/picture/pixels.ts';

export { findRegions } from './intake/picture/find_regions.ts';

export {
  type IconLibrary,
  LATEST,
  packageAddress,
  type PackageAddress,
  scriptedIconsIn,
  type ShippedSheet,
} from './intake/html/outside_packages.ts';
export { withScriptedIcons } from './intake/html/scripted_icons.ts';
export type { UtilityPlan } from './intake/html/utilities.ts';

export { iconClassCss, isIconFamily, type WebFont, webFontsIn } from './intake/html/web_fonts.ts';

export { mapBox, mapPoint, type Matrix, multiply } from './intake/svg/matrix.ts';

export { readSvg } from './intake/svg/read_svg.ts';

export { classesOf } from './intake/html/class_namespace.ts';
export { type PageFiles, PATH_ATTRIBUTE, type SafePage, sanitisePage } from './intake/html/sanitise.ts';

export {
  defaultPlan,
  type HiddenElement,
  type PageReading,
  type ReadElement,
  type ReadingPlan,
} from './intake/html/reading.ts';
export { PLACE_TAGS } from './intake/html/kept_places.ts';

export { roleDecisions, settle } from './layers/settle.ts';

export { ADDED_KINDS, addedControl, freeAddedKey } from './layers/added.ts';

export {
  closersOf,
  cutApart,
  cutOverlay,
  isCutApart,
  joinAgain,
  type PanelProposal,
  proposePanel,
  uncutOverlay,
} from './overlays/cut.ts';

export { drawerChange, openerProposals, undrawerChange } from './layers/drawer.ts';

export {
  always,
  type Edit,
  type EditCondition,
  editKey,
  editProblem,
  type EditState,
  parseEditKey,
} from './model/edit_key.ts';

export { conditionInWords, editsByElement } from './layers/edit.ts';

export { counterpartsOf, defaultTurn } from './counterparts/merge.ts';

export { matchElements } from './counterparts/match.ts';

export { hexOf, kindOfProperty, normalValue, tokenCss } from './tokens/values.ts';

export {
  hueName,
  mergedToken,
  type MergeProposal,
  proposeMerges,
  proposeTokens,
  type TokenProposal,
  type ValueUse,
  valueUses,
} from './tokens/find.ts';

export {
  type Aspect,
  ASPECTS,
  type Dress,
  dressesOf,
  type DressWish,
  lookValues,
} from './alternatives/dress.ts';
export { takeLook, lookChanges } from './alternatives/take.ts';
export { exportTokens, type ImportedTokens, importTokens } from './tokens/dtcg.ts';

export { findComponents, findLists } from './components/find.ts';
export type { ComponentProposal } from './components/proposal.ts';

export {
  ariaName,
  CHART_KINDS,
  INPUT_TYPES,
  type InputType as InputKind,
  isRole,
  type Role,
  type RoleDetail,
  roleFromAria,
  roleInWords,
  ROLES,
} from './roles/names.ts';

export type { RoleGuess } from './roles/guess.ts';
export { inferRoles, roleByTag } from './roles/infer.ts';

export {
  decideRole,
  elementsLike,
  openRoles,
  refusalOfRole,
  refuseRole,
  roleProposals,
  type RoleProposal,
  takeRoles,
  undecideRole,
} from './roles/decide.ts';

export { type Breakpoint, breakpointsOf } from './layout/breakpoints.ts';
export { overriddenAt, type Overriding } from './layout/overridden.ts';

export {
  type Arrangement,
  arrangementOf,
  type Flow,
  flowDeclarations,
  pinDeclarations,
  scrollDeclarations,
  type Sizing,
  sizingDeclarations,
} from './layout/arrangement.ts';

export { scoreRoles } from './roles/score.ts';

export { sightOf } from './roles/sight.ts';
export { type ActionProposal, type Deed, DEEDS, findActions } from './data/actions.ts';
export { type BindingProposal, findBindings } from './data/bindings.ts';
export { type CollectionPlace, type CollectionProposal, findCollections } from './data/collections.ts';
export type { ProposedField } from './data/fields.ts';
export { openCollections } from './data/open_collections.ts';
export { findForms, type FormProposal, type ProposedFormField } from './data/forms.ts';
export { FORM_PURPOSES, type FormPurpose } from './data/form_purpose.ts';
export { type DataProposals, proposeData } from './data/propose.ts';
export { type RootTheme, withRootTheme } from './intake/html/root_theme.ts';
export { withWrittenSheets } from './intake/html/written_sheets.ts';
export { deedNames } from './records/deeds.ts';
export { type BoundPart, boundParts, readBinding, withoutPart } from './expression/read_binding.ts';
export { listAt, rowsNames } from './records/shown_rows.ts';
export { drawnRecords, expressionNames, saidAtFirst } from './records/expression_names.ts';
export { makeBindings } from './data/make_bindings.ts';
export { showRecord } from './data/record_screens.ts';
export type { MadeBinding } from './data/record_screens.ts';
export type { Value } from './expression/expression.ts';

export {
  conditionsOf,
  derivedVariables,
  knownAnywhere,
  knownVariables,
  settingOf,
  valuesOfVariables,
} from './variables/variables.ts';
export { describeSetting } from './variables/settings.ts';
export { usesOfVariable, type VariableUse } from './variables/uses.ts';

export { type Completion, completionsAt } from './expression/completions.ts';
export {
  type ExpressionProblem,
  type KnownNames,
  parseExpression,
  type ParsedExpression,
} from './expression/language.ts';
export { type MadeForm, makeForms, sendable } from './data/make_forms.ts';
export { type MadeWork, makeWork, sortingHeads } from './data/make_work.ts';
export { takeCollection } from './data/take_collection.ts';
export { type ComingFrom, letComeFrom, proposeComingFrom } from './data/coming_from.ts';
export { typeOfValue, typeOfValues } from './data/value_types.ts';
export {
  collectionProposalId,
  canSay,
  sayInCollection,
  sayInRecord,
  withRecord,
  withoutRecord,
  tableOf,
  type TableProblem,
  soughtCollection,
  takenCollection,
  takeTable,
  withField,
} from './data/records.ts';
export { renameCollection, renameField, renameVariable } from './renaming/rename.ts';
export { referenceFor } from './records/known_fields.ts';
export { type DataRecord, type DataValue, recordsOf, titleField } from './records/records.ts';
export { csvOf, jsonOf, readTable } from './data/table_text.ts';
export type { ApiDescription, ApiOperation } from './described/description.ts';
export { keptApi, readApi } from './described/read_document.ts';
export { behindBy, spread } from './described/behind.ts';
export { isRecordSchema, recordSchema, takeSchema } from './data/record_schema.ts';
export { type CallProposal, makeCalls, proposeCalls } from './data/make_calls.ts';
export { documentOfExample } from './described/example.ts';
export type { ApiCredential } from './described/credentials.ts';
export { apiOf, comesFromApi, listsRecords } from './described/keep.ts';
export { type ApiMatch, matchApi } from './described/match.ts';
export {
  type Answer as StandInAnswer,
  createStandIn,
  type Mood,
  type Request as StandInRequest,
  type StandIn,
  type StandInPlan,
} from './standin/answer.ts';
export { standInPlan } from './standin/plan.ts';
export { explore, type Explored } from './states/explore.ts';
export { type StatePlan, statePlan } from './states/plan.ts';

export { isField, isPressable, roleOf } from './roles/role.ts';

export {
  freeRoute,
  hasAddress,
  nameProblem,
  routeFromName,
  routeProblem,
  type RouteRow,
  screenAtAddress,
  routeTable,
} from './routes/routes.ts';

export {
  fillRoute,
  normaliseRoute,
  parametersOf,
  requiredParametersOf,
  routeFormProblem,
  RouteMatcher,
} from './paths/pattern.ts';

export { isBelow, parentRoute, rerouted, reroutedProblem, routeBelow } from './routes/edit.ts';

export { labelOf, type Pressable, pressablesOf } from './links/pressable.ts';

export { authoredLinks } from './links/authored.ts';
export { type DisclosureProposal, findDisclosures, SAID_BY_PAGE } from './disclosures/find.ts';
export { alwaysShown, takeDisclosures } from './disclosures/take.ts';

export { type CopiedLink, copiedWiring, reciprocalLink, takeCopied } from './wire/copy.ts';

export { type RowField, rowFields, sharedPairs } from './links/shared.ts';

export { type TypedLine, typedWiring } from './wire/typed.ts';

export { linkDecisions, type LinkDecision, openLinks, refuseLink, takeLinks } from './wire/decide.ts';

export { type LinkProposal, proposeLinks } from './links/propose/propose.ts';

export { wordLikeness, wordsIn } from './links/propose/words.ts';

export {
  addressIn,
  describeArrival,
  describeGesture,
  describeTarget,
  describeWhen,
  matchText,
  type TargetChoice,
  targetChoices,
  typedProblem,
} from './links/target.ts';

export { interactionProblem, missingParameters, targetProblem, unsaidParameters } from './links/problem.ts';

export { componentAround, type Wired, wiringOf } from './links/wiring.ts';

export {
  type Counts,
  type ElementState,
  type GraphLink,
  graphOf,
  isDeadEnd,
  leadsTo,
  type ScreenGraph,
  type Standing,
  type WiredState,
} from './graph/graph.ts';

export type { Way } from './graph/reach.ts';

export {
  drawLines,
  type LineGroup,
  lineGroups,
  type LinesDrawing,
  type LinesInput,
  linesInput,
  type Station,
  type Track,
} from './graph/lines.ts';

export { analysisOf, gatesTo, type GraphAnalysis, shortestWay } from './graph/analysis.ts';

export { type Cause, causesOf } from './findings/causes.ts';

export type { Finding, FindingLevel, FindingStation } from './findings/finding.ts';

export {
  findingsOf,
  inOrder,
  isAtLeast,
  LEVELS,
  letStand,
  ruleKinds,
  standingFindings,
  stationOf,
} from './findings/rules.ts';
export { mustHoldInWords, stateFindings, stateFindingsOf } from './findings/state_rules.ts';

export { comparedFindings, type KeptScore, type KeptSweep } from './findings/compared_rules.ts';
export { findingsAsSarif, findingsAsText } from './findings/report.ts';

export { reset } from './vocabulary/reset.ts';

export { baseCss } from './emit/styles/base_css.ts';

export { openLinkDecisions } from './graph/decisions.ts';
export { graphFiles } from './emit/graph/graph_file.ts';

export { printHtml, windowHeightOf } from './emit/html/print_html.ts';

export { EmissionPlan, emitScreenOf } from './emit/form/plan.ts';

export { type EmissionProgress, seldom } from './emit/progress.ts';

export { emitReact, emitReactInSteps } from './emit/react/emit_react.ts';
export {
  type EmittedComponent,
  type Extraction,
  type WholeComponent,
} from './emit/form/components/extract.ts';
export { type EmittedList } from './emit/form/components/lists.ts';

export { type Prop, type Template } from './emit/form/components/template.ts';

export { type CodeFigures, figuresOf } from './emit/figures.ts';
export { withWhatItNeeds } from './emit/needed.ts';
export { isTarget, type TargetName, targetOf, targets } from './emit/targets.ts';

export { type Decided, decidedAbout } from './iterate/decided.ts';

export {
  type Ask,
  type IterationPlan,
  comesAgain,
  looksWhole,
  planIteration,
  type ScreenStanding,
  type ScreenStep,
} from './iterate/plan.ts';

export {
  composeKeys,
  invertKeys,
  keyMapOf,
  type KeyMapping,
  sameKeys,
  speaksOfGone,
} from './change/key_mapping.ts';

export { decideBoth, letGoOf, moveDecided, putOn } from './iterate/resolve.ts';

export { type Answer, answered, type Answers, answersSchema, proposedAnswer } from './iterate/answers.ts';

export {
  type IterationReport,
  type ReportedAsk,
  type ReportedCandidate,
  type ReportedGone,
  type ReportedKept,
  type ReportedScreen,
  reportOf,
  type Tally,
} from './iterate/report.ts';

export { testedAddress } from './emit/tested/links.ts';

export { escapeText } from './emit/quoting.ts';

export {
  elementSeen,
  type Seen,
  seenAs,
  type ShownElement,
  shownElements,
  spoken,
} from './emit/shown_elements.ts';

export { deliveredCode } from './delivery/delivered_code.ts';
export { type CodeChange, codeChanges } from './delivery/code_changes.ts';
export { generatedCode } from './delivery/generated_code.ts';
export { decideHandWritten, type CodeRead, readCode } from './delivery/hand_written.ts';
export type { HandWrittenPart } from './emit/emitted.ts';

export { FLOW_SHEET, printFlow } from './flow/print_flow.ts';

export { completeFlow, type FlowCompletion } from './flow/complete_flow.ts';

export { type FlowProblem, type ReadFlow, readFlow } from './flow/read_flow.ts';
export type { CodeBase } from './delivery/existing.ts';
export { type DeliveryFolder, type IntoPlan, plannerInto } from './delivery/into.ts';
export { isInside, recordOf } from './delivery/manifest.ts';
export { placeOfElement } from './delivery/place_of_element.ts';
export { type CodeOffer, takeOffers } from './delivery/read_back.ts';
export type { DeliveryAsk, DeliveryPlan, Fate, PlannedFile } from './delivery/plan.ts';
export type { Merged, MergeConflict, MergeSide } from './merge/conflict.ts';
export { type MergedFile, mergeFile, type Versions } from './merge/merge_file.ts';
export { mergeLines } from './merge/merge_lines.ts';

export { asInCode, scopedSheet } from './emit/styles/class_names.ts';

export { type PageOf, pageOf } from './emit/page_of.ts';

export { type ComparedScreen, Comparison } from './differences/comparison.ts';

export { Round, type RoundScreen } from './iterate/round.ts';

export { type Effects, effectsOf } from './iterate/effects.ts';

export { type Difference, differencesOf, pairsByKey } from './differences/elements.ts';

export {
  type Became,
  type GraphDifference,
  graphDifferences,
  type ProjectDifference,
  projectDifferences,
} from './differences/projects.ts';

export type { IterationRecord, SetAside, TableEntry } from './model/app.ts';

export { describeDecided, describeEntries } from './iterate/describe.ts';

export { type AppliedIteration, applyIteration } from './iterate/apply.ts';

export { type DesignMatch, matchDesigns } from './match/design.ts';

export { type ElementPair } from './match/elements.ts';

export { type ScreenKinship, type ScreenPair } from './match/screens.ts';

export { partedAtFirst } from './project/part_first.ts';

export { FirstScreens } from './iterate/first_screens.ts';

export { type LayoutProposal, proposeLayouts, surelyShared } from './layouts/propose.ts';

export { fillPlanned, planFor, planScreen } from './project/plan_screen.ts';

export {
  checkJourney,
  type JourneyCheck,
  type NextStep,
  nextSteps,
  pressStep,
  Walk,
} from './journeys/walk.ts';

export { enteredElement, pressedElement, printJourneyTests } from './emit/journey_tests.ts';

export { takeIn } from './project/take_in.ts';

export {
  ArchiveError,
  packProject,
  packZip,
  parseApp,
  parseDesign,
  type ProjectArchive,
  unpackProject,
} from './project/archive.ts';

export { asWrittenNow } from './project/older.ts';

export * from './api/schemas.ts';
export { errorStatus, type ErrorCode, errors } from './api/errors.ts';

export { type Cost, type Operation, type OperationName, operations } from './api/operations.ts';

export { type DocumentName, documentSchema, documentSchemas } from './api/document_schema.ts';

export { openApi } from './api/open_api.ts';

export { LOOKS, MISSING_PICTURE, type RenderedElement, type Rendering } from './compare/rendering.ts';
export { compareDrawn, type Drawn, type DrawnComparison } from './compare/compare.ts';
export type { DifferenceCause, DifferenceKind } from './compare/causes.ts';
export {
  addressOfScreen,
  asDrawn,
  causeOptions,
  COMPARED_WIDTHS,
  type View,
  viewsOf,
} from './compare/views.ts';
export { fontCss } from './emit/styles/font_css.ts';
export {
  causeInWords,
  type ComparedView,
  comparisonAsSarif,
  comparisonAsText,
  type SweptScreen,
  type HeardView,
} from './compare/report.ts';
export {
  FAULT_KINDS,
  type FaultKind,
  SWEPT_WIDTHS,
  type SweptFault,
  sweptFaults,
  type WidthFault,
  widthFaults,
  widthsInWords,
} from './compare/width_faults.ts';
export { contrastBetween, leastContrast } from './compare/contrast.ts';
export { type Attention, attentionOn, shareOn } from './compare/attention.ts';
export {
  HEARD_WEIGHTS,
  type HeardContrast,
  type HeardFinding,
  heardFindings,
  type HeardHeading,
  type HeardLandmark,
  type HeardPage,
  type HeardPlace,
  type HeardRule,
  type HeardStop,
  type HeardWeight,
  isGrave,
} from './compare/heard.ts';
export { type SourceFile } from './library/modules.ts';
export { suits } from './emit/form/components/theirs.ts';
export { isLibraryFile, libraryKey, readLibrary, type ReadLibrary } from './library/read_library.ts';
export {
  proposed as proposedTheirs,
  proposeTheirs,
  SURE_THEIRS,
  type TheirProposal,
} from './library/propose_theirs.ts';
export { drawnStatesOf, takeState } from './drawn_states/take.ts';
export { alternativesOf, keepAlternative, makeAlternatives, wiredWithout } from './alternatives/drawn.ts';
