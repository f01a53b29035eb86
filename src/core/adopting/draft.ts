import { listed } from '../checks/scope.js';
import { platformLabels } from '../words/platform-labels.js';
import { factDetail } from '../facts/show.js';
import { entryAt, valueAt } from '../text/own-values.js';
import type { Profile } from '../network/model.js';
import type { Platform, Stage } from '../words/words.js';
import { recogniser } from '../network/recognise.js';
import { writeRoster } from '../roster/document.js';
import { Title } from '../roster/model.js';
import type { Fact, Survey, SurveyEdition } from '../facts/model.js';
import { settingsFrom } from '../languages/common/fields.js';
import { type Evidence, type OpenPoint, type TitleDraft, type Draft, only } from './model.js';
import { foundUnits, guessStage } from './units.js';
import { draftPlacements, slug, capital } from './draft-placements.js';

/**
 * Drafts a title from what trees already carry: editions with identifiers, variants with the stages that
 * their names tell, app IDs, and placements named from constants, resources and classes, paired across
 * platforms by name and format. Nothing is invented: what says too little is listed as open.
 */
export function draftTitle(
  surveys: readonly Survey[],
  profiles: readonly Profile[],
  wanted: { id?: string | undefined; name?: string | undefined },
): TitleDraft {
  const evidence: Evidence[] = [];
  const open: OpenPoint[] = [];
  const chosen = chooseEditions(surveys, evidence, open);
  const stages = new Map<string, Stage | null>();
  for (const edition of chosen)
    for (const variant of edition.variants)
      stages.set(key(edition.platform, edition.module, variant.name), guessStage(variant));
  const stageOf = (platform: Platform, module: string, variant: string) =>
    stages.get(key(platform, module, variant)) ?? null;
  const draft: Draft = {
    editions: Object.fromEntries(
      chosen.flatMap(({ platform, identifier }) => (identifier === null ? [] : [[platform, { identifier }]])),
    ),
    stages: draftStages(chosen, evidence, open),
    networks: {},
    placements: {},
  };
  draftEnrolments({ surveys, profiles, chosen, stageOf, draft, evidence, open });
  draftPlacements(
    foundUnits(
      surveys.map((survey) => only(survey, chosen)),
      profiles,
      stageOf,
    ),
    { draft, evidence, open },
  );
  takeSettings(
    draft,
    surveys.flatMap(({ facts }) => facts),
    evidence,
  );
  const [first] = chosen;
  const guess = (first?.identifier ?? surveys[0]?.tree ?? 'title').split('.').at(-1) ?? 'title';
  const id = wanted.id ?? slug(guess);
  const label = labelOf(surveys, chosen, evidence);
  const title = Title.parse({ name: wanted.name ?? label ?? capital(guess), ...draft });
  const document = writeRoster({ syndexa: 1, titles: { [id]: title } });
  return { id, title, document, evidence, open };
}

/** The name under which people see the app, of a variant that ships where one says it. */
function labelOf(
  surveys: readonly Survey[],
  chosen: readonly SurveyEdition[],
  evidence: Evidence[],
): string | undefined {
  const labels = surveys
    .flatMap((survey) => only(survey, chosen).facts)
    .filter(({ kind }) => kind === 'app-label');
  const ships = ({ platform, module, variants }: Fact) =>
    chosen.some(
      (edition) =>
        edition.platform === platform &&
        edition.module === module &&
        edition.variants.some((one) => variants.includes(one.name) && guessStage(one) === 'production'),
    );
  const found = labels.find(ships) ?? labels[0];
  const value = found?.value.trim().slice(0, 60);
  if (!found || !value) return undefined;
  evidence.push({
    field: 'name',
    value,
    confidence: 'likely',
    why: 'The app has this label.',
    place: found.place,
  });
  return value;
}

/** The settings that a placebook of an earlier record gives the placements. */
function takeSettings(draft: Draft, facts: readonly Fact[], evidence: Evidence[]): void {
  for (const fact of facts) {
    const placement =
      fact.kind === 'placement-settings' ? valueAt(draft.placements, fact.name ?? '') : undefined;
    if (!placement || fact.kind !== 'placement-settings' || Object.keys(placement.settings).length > 0)
      continue;
    placement.settings = settingsFrom(fact.fields);
    if (Object.keys(placement.settings).length === 0) continue;
    evidence.push({
      field: `placements.${fact.name ?? ''}.settings`,
      value: fact.value,
      confidence: 'certain',
      why: 'The placebook gives them.',
      place: fact.place,
    });
  }
}

function key(platform: Platform, module: string, variant: string): string {
  return `${platform} ${module} ${variant}`;
}

/** One application per platform; further ones are listed, for a title has one edition of each. */
function chooseEditions(
  surveys: readonly Survey[],
  evidence: Evidence[],
  open: OpenPoint[],
): SurveyEdition[] {
  const chosen = new Map<Platform, SurveyEdition>();
  for (const edition of surveys.flatMap(({ editions }) => editions).map(shipping)) {
    const { platform, module, identifier, home } = edition;
    if (identifier === null) {
      open.push({
        what: `The ${platformLabels[platform]} application ${module}`,
        why: 'Its identifier cannot be read.',
        place: home,
      });
    } else if (chosen.has(platform)) {
      const why = `A title has one edition per platform, and ${chosen.get(platform)?.identifier ?? ''} was found first. Adopt it as a separate title.`;
      open.push({ what: `The ${platformLabels[platform]} application ${identifier}`, why, place: home });
    } else {
      chosen.set(platform, edition);
      const fact = surveys
        .flatMap(({ facts }) => facts)
        .find(
          (one) =>
            one.kind === 'identifier' &&
            one.platform === platform &&
            one.module === module &&
            one.value === identifier,
        );
      evidence.push({
        field: `editions.${platform}.identifier`,
        value: identifier,
        confidence: 'certain',
        why: `The build of ${module} has this identifier.`,
        place: fact?.place ?? home,
      });
    }
  }
  return [...chosen.values()];
}

/** An edition under the identifier of a variant that ships, by the names of its variants. */
function shipping(edition: SurveyEdition): SurveyEdition {
  const variant = edition.variants.find(
    (one) => guessStage(one) === 'production' && valueAt(edition.identifiers, one.name) !== undefined,
  );
  return {
    ...edition,
    identifier: (variant && valueAt(edition.identifiers, variant.name)) ?? edition.identifier,
  };
}

function draftStages(
  chosen: readonly SurveyEdition[],
  evidence: Evidence[],
  open: OpenPoint[],
): Title['stages'] {
  const stages: Record<Stage, Set<string>> = { test: new Set(), production: new Set() };
  for (const { platform, variants, home } of chosen) {
    for (const variant of variants) {
      const stage = guessStage(variant);
      if (stage === null) {
        open.push({
          what: `The ${platformLabels[platform]} variant ${variant.name}`,
          why: 'Its name does not show a stage; add it under stages.',
          place: home,
        });
        continue;
      }
      // A build type or configuration serves for all its variants, unless a flavour turns some of them.
      const alone = variants
        .filter(({ type }) => type === variant.type)
        .every((other) => guessStage(other) === stage);
      const name = (alone ? variant.type : variant.name).toLowerCase();
      if (stages[stage].has(name)) continue;
      stages[stage].add(name);
      evidence.push({
        field: `stages.${stage}`,
        value: name,
        confidence: 'likely',
        why: `The ${platformLabels[platform]} variant ${variant.name} has this name.`,
        place: null,
      });
    }
  }
  return { test: [...stages.test], production: [...stages.production] };
}

interface EnrolmentContext {
  surveys: readonly Survey[];
  profiles: readonly Profile[];
  chosen: readonly SurveyEdition[];
  stageOf: (platform: Platform, module: string, variant: string) => Stage | null;
  draft: Draft;
  evidence: Evidence[];
  open: OpenPoint[];
}

/** App IDs per platform and stage; a network with an SDK but without an app ID is enrolled without an ID. */
function draftEnrolments({
  surveys,
  profiles,
  chosen,
  stageOf,
  draft,
  evidence,
  open,
}: EnrolmentContext): void {
  const { recognise } = recogniser(profiles);
  const facts = surveys.flatMap((survey) => only(survey, chosen).facts);
  for (const fact of facts) {
    if (fact.kind === 'dependency' && fact.network) {
      const enrolment = entryAt(draft.networks, fact.network, () => ({}));
      enrolment[fact.platform] ??= {};
    }
    if (fact.kind !== 'app-id' || !fact.network) continue;
    const reading = recognise(fact.value, fact.network ?? undefined).find(
      (one) => one.network === fact.network && one.kind === 'app',
    );
    const stage = fact.variants.map((variant) => stageOf(fact.platform, fact.module, variant));
    const wanted: Stage | null = stage.includes('production')
      ? 'production'
      : stage.includes('test')
        ? 'test'
        : null;
    const whose = `The app ID ${fact.value} of ${fact.network}`;
    if (!reading)
      open.push({ what: whose, why: 'It does not look like an app ID of its network.', place: fact.place });
    else if (reading.platform !== undefined && reading.platform !== fact.platform)
      open.push({
        what: whose,
        why: `It belongs to ${platformLabels[reading.platform]}, but is in the build for ${platformLabels[fact.platform]}.`,
        place: fact.place,
      });
    else if ((reading.sample ?? []).length > 0) continue;
    else if (wanted === null)
      open.push({ what: whose, why: 'The variants that contain it have no stage.', place: fact.place });
    else {
      const enrolment = (entryAt(draft.networks, fact.network, () => ({}))[fact.platform] ??= {});
      const known = enrolment[wanted]?.app;
      if (known !== undefined && known !== fact.value) {
        open.push({ what: whose, why: `${known} was found first for the same stage.`, place: fact.place });
        continue;
      }
      enrolment[wanted] = { app: fact.value };
      evidence.push({
        field: `networks.${fact.network}.${fact.platform}.${wanted}.app`,
        value: fact.value,
        confidence: 'certain',
        why: `${listed(fact.variants)} ${fact.variants.length === 1 ? 'has' : 'have'} it ${factDetail(fact) ?? 'in the build'}.`,
        place: fact.place,
      });
    }
  }
}
