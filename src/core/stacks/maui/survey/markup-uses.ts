import { placebookUses } from '../../../code/placebook-uses.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { descendants } from '../../../formats/xml/query.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { TextDocument } from '../../../text/document.js';

/** Placements that markup names through the placebook, such as `{x:Static ads:Placebook.TideFooter}`. */
export function markupUses(
  path: string,
  document: TextDocument,
  root: XmlElement,
  editions: readonly SurveyEdition[],
  { title }: SurveyContext,
): Fact[] {
  const placements = Object.keys(title?.placements ?? {});
  return [...descendants(root)]
    .flatMap(({ attributes }) => attributes)
    .filter(({ value }) => value.includes('Placebook'))
    .flatMap(({ value, valueSpan }) => {
      const place = placeAt(path, document, valueSpan);
      const chain = [{ what: 'markup', value, place }];
      return placebookUses(value, placements).flatMap(({ placement }) =>
        editions.map(({ platform, module, variants }): Fact => ({
          kind: 'placement-use',
          network: null,
          placement,
          name: placement,
          platform,
          module,
          variants: variants.map(({ name }) => name),
          value,
          effective: true,
          place,
          chain,
        })),
      );
    });
}
