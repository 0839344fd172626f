/** The only door to the core. */
export * from './model';
export {
	formatIssue,
	formatIssueWithCaret,
	nearestName,
	nearestWithin,
	positionAt,
	type Issue,
	type IssueCode
} from './issue';
export { CATALOGUE, TAG_NAMES, findTag } from './catalogue/catalogue';
export type { TagDefinition, TagFamily, TagKind, TagPlace } from './catalogue/types';
export { parseTemplate } from './template/parse';
export { compileTemplate } from './template/compile';
export { ownWords } from './template/ownWords';
export { renameSeparator } from './template/upgrade';
export { asksForField, renameFieldInTemplate, variablesOf } from './template/variables';
export { addSection, clipFirst, dropSiteName, withSite, withTitle, wrapGaps } from './findings/mends';
export { inTimeZone, isTimeZone, toIsoDate } from './template/dates';
export {
	inPieces,
	renameFieldInRule,
	renameFieldInType,
	ruleAsksFor,
	usesOfField,
	type FieldUse
} from './edits/fields';
export { renamePieceIn, renamePieceInRule } from './edits/pieces';
export { templateParts, type TemplatePart } from './template/parts';
export { checkTemplate, knownVariables, type KnownVariable, type TemplateContext } from './template/check';
export { explainTemplate } from './template/explain';
export { SIGNS, type Sign } from './template/signs';
export type { TemplateMend } from './template/mend';
export { callOffered, FILTERS, kindOfField } from './template/filters';
export type { FilterSpec, ValueKind } from './template/filters/spec';
export { pagesIn, type SitePages } from './resolve/others';
export { isMeant, piecesFor, wordsIn } from './resolve/words';
export { Resolver, type SiteModel } from './resolve/resolver';
export { isLocalAddress, normaliseBase, AddressBook, folderForm } from './resolve/address';
export { coverOf, isCutBy } from './pictures/areas';
export { cropBox, type CropBox } from './pictures/crop';
export {
	CUT_VERSION,
	MEDIA_PATH,
	MOST_BYTES,
	MOST_ZOOM,
	SHAPES,
	cutOf,
	cutSettingOf,
	keptCopyOf,
	measureCut,
	nameOfCut,
	readCutName,
	readersOfTag,
	sizeAsSent,
	type Cut
} from './pictures/shapes';
export {
	CANVAS,
	gradientLine,
	COLOUR_USES,
	colourOf,
	FONTS,
	nameOfRecipe,
	recipeOf,
	RECIPE_NAME,
	RECIPE_VERSION,
	USUAL_LOOK,
	wholeLook,
	type Box,
	type Colour,
	type Font,
	type Look,
	type PlacedPicture,
	type Recipe,
	type ShareLayout,
	type TextPart,
	type WrittenText
} from './pictures/layout';
export { STARTING_LAYOUTS } from './pictures/layouts';
export { fitText, isWrittenToTheLeft, LINE_HEIGHT, type FittedText, type Measure } from './pictures/fit';
export { iconsOf, MANIFEST_PATH, nameOfIcon, readIconName, webManifest, type IconFile } from './pictures/icons';
export { readingOfBody } from './resolve/builtIns';
export { BUILT_IN_PICTURES, LEAST_IN_BODY } from './resolve/pictures';
export { expectedOf, legalMediaType, legalValue, ROBOTS_DIRECTIVES } from './resolve/legal';
export type { Head, HeadTag } from './resolve/head';
export type { Outcome, SkippedSource, Trace, TraceStep, Withheld } from './resolve/trace';
export { toText } from './template/values';
export { pictureOfValue, textOfValue, type ChosenPicture, type Link, type TagValue } from './resolve/value';
export { findFormulas, isMadeBy } from './resolve/formulas';
export { foundPolicyFor } from './resolve/found';
export { countFrames, FRAME_LEAST, FRAME_SHARE, type FramedPage } from './resolve/frames';
export {
	headOfJson,
	headToJson,
	PageRenderer,
	renderHead,
	renderLines,
	renderTag,
	type HeadJson,
	type Markup
} from './render/render';
export { escapeText } from './render/escape';
export {
	canonicalLanguage,
	clipText,
	countGraphemes,
	isBlank,
	isLanguageTag,
	remembered,
	settleText
} from './text/text';
export { htmlToText, textOf } from './markup/plainText';
export { limitExtraMarkup } from './markup/extra';
export { looseTags } from './markup/looseTags';
export {
	editModel,
	editPage,
	joinReaches,
	measureReach,
	type AnyEdit,
	type Edit,
	type Reach,
	type ReachedPage
} from './edits/reach';
export { contentsInWords, LEAST_NAMES, type Contents } from './markup/contents';
export { readPage, type PageReading, readRefresh } from './markup/readPage';
export { injectHead, injectTop, managedBy } from './render/inject';
export {
	checkRule,
	fieldsOfAll,
	findInLayout,
	findInPieces,
	findInRules,
	loopThrough,
	mendOfTemplate,
	type RuleContext
} from './findings/rules';
export {
	describeFinding,
	describeMany,
	isSure,
	describeMend,
	finding,
	isError,
	weightOf,
	type Finding,
	type FindingCode,
	type Target,
	keyOfKind,
	type FindingKind
} from './findings/finding';
export { findInTag, findOnPage, type KnownOfPage } from './findings/pages';
export { isDrawn, lettersNotDrawn } from './pictures/letters';
export { findInShare } from './findings/share';
export { greyOf, LIGHT_CELLS, linear } from './pictures/light';
export { findInPicture, type JudgedPicture } from './findings/pictures';
export {
	describeBuiltIns,
	describeOutcome,
	describePassedOver,
	describeRule,
	describeSkipped,
	describeWithheld,
	nameOfLayer,
	valueAsText
} from './resolve/describe';
export { measureText } from './text/measure';
export { directivesFor, hidesFromSearch } from './markup/robots';
export { parseUrl } from './text/url';
export {
	cardInWords,
	cardOf,
	firstCut,
	isShownWhole,
	LEAST_SIDE,
	type Card,
	type CardPicture,
	type CardText,
	type MoreOfPage,
	type PictureSeen
} from './readers/card';
export { nameOfKind } from './findings/names';
export {
	reasonWords,
	type DriftWhy,
	type NoPage,
	type NoPicture,
	type NoPlace,
	type RobotsFailed
} from './readers/reasons';
export { brokenPins, pinnedValue, pinsOf } from './findings/pins';
export { nothingFound } from './readers/nothingFound';
export { reportOf } from './readers/report';
export { ALL_READERS, READERS, readsHeadAlone, type CardForm, type ReaderProfile } from './readers/profiles';
export {
	findHard,
	HARD_KINDS,
	missingOf,
	strangeness,
	type HardKind,
	type HardPage,
	type WorstPages
} from './findings/surveys';
export { STARTING_SETS, withStartingSet, type StartingSet } from './startingSets';
export { isXhtml } from './markup/xhtml';
export { languageChain } from './resolve/language';
export { checkBase, type BaseCheck } from './findings/checkBase';
export { sameJson, takenBack, withChanges, type Changes, type PictureEdit, type SettingsEdit } from './edits/settings';
export type { ProseCandidate } from './markup/prose';
export { isCaption } from './markup/prose';
export { lettersOf } from './text/text';
export { MATRIX_TAGS, TITLE_CUTS, WIDTH_STEP } from './findings/matrix';
export {
	ALONE,
	inArea,
	isWhole,
	mayDo,
	NOBODY,
	ownsAll,
	ownsAny,
	RIGHTS,
	roleAt,
	ROLES,
	rolesWith,
	SCOPES,
	type Actor,
	type PageArea,
	type Right,
	type Role,
	type Scope,
	type SiteRole
} from './people/rights';
export { proposeTemplate, type Proposal } from './edits/proposal';
export { countGivenWay, joinGivenWay, tryEdits, type GivenWay, type TriedPage, type TriedValue } from './edits/tries';
export { recordAddress, whyNoSource } from './live/dataSource';
export { ownOf } from './own';
export { hiddenIn, publicIn, type Hidden } from './public';
export { toTemplate, toWholeTemplate } from './template/quote';
export { replaceInText, replaceWords } from './template/replace';
export { AGAIN_IN_WORDS, FOR_EVER, habitsInWords, type Habits } from './readers/habits';
export { charsetIn, readServedHead, type ServedHead, type ServedTag } from './markup/served';

export { purposeOf } from './catalogue/catalogue';
export { kindOfReader } from './readers/profiles';
export { ALL_SPOKEN, LANGUAGES, type Spoken } from './words/languages';
export { labelled } from './words/labels';
export { otherWords, speakBy } from './words/speaking';
