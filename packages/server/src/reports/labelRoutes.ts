import { scopeTitle } from '@visograph/core/cabling';
import {
  freshLabels,
  labelsOf,
  labelSizes,
  labelSizeSchema,
  labelSorts,
  thingLink,
  type LabelSize,
  type LabelSort,
} from '@visograph/core/labels';
import { isOneOf, keysOf } from '@visograph/core/model';
import { notFound, Refusal } from '../http/problem.ts';
import { fileAnswer, type JobCall, type JobHandlers } from '../http/route.ts';
import { labelPdf, type CodeForm } from './labelPdf.ts';

type Call = JobCall<'GET /projects/:project/labels'>;

const notUnderstood = (detail: string): Refusal => new Refusal(400, 'The request is not understood', detail);

const codeForms: readonly CodeForm[] = ['none', 'qr', 'code128'];
/** So many labels are laid out at once. */
const mostLabels = 20_000;

function sizeOf(call: Call): LabelSize {
  const own = call.query('measures');
  const key = call.query('size') ?? '';
  if (own === null) {
    const known = labelSizes[key]?.size;
    if (known === undefined)
      throw notUnderstood(
        `There is no label size “${key}”. There are: ${Object.keys(labelSizes).join(', ')}; or give measures.`,
      );
    return known;
  }
  let given: unknown;
  try {
    given = JSON.parse(own);
  } catch {
    throw notUnderstood('measures is not JSON.');
  }
  const read = labelSizeSchema.safeParse(given);
  if (!read.success) throw notUnderstood(`measures: ${read.error.issues[0]?.message ?? 'cannot be read'}.`);
  return read.data;
}

function originOf(text: string | null, code: CodeForm): string {
  if (text !== null && /^https?:\/\/[a-z0-9.:[\]-]{1,200}$/i.test(text)) return text;
  if (code !== 'qr') return '';
  throw notUnderstood('origin is missing: codes lead there, as in https://net.marrow.example.');
}

/** Labels of a project, as pages to print, or as what they come to. */
export const labelHandlers = {
  'GET /projects/:project/labels': async (call) => {
    const { network } = await call.network();
    const sort = call.query('of') ?? 'cables';
    if (!isOneOf(keysOf<LabelSort>(labelSorts), sort))
      throw notUnderstood(
        `There are no labels of “${sort}”. There are: ${Object.keys(labelSorts).join(', ')}.`,
      );
    const code = call.query('code') ?? 'none';
    if (!isOneOf(codeForms, code))
      throw notUnderstood(`There is no code “${code}”. There are: ${codeForms.join(', ')}.`);
    const size = sizeOf(call);
    const origin = originOf(call.query('origin'), code);
    const scope = call.query('scope');
    const scopeId = scope === '' ? null : scope;
    if (scopeId !== null && network.get('place', scopeId) === null) throw notFound(`The place ${scopeId}`);
    const each = size.columns * size.rows;
    const skip = Number(call.query('skip') ?? 0);
    if (!Number.isInteger(skip) || skip < 0 || skip >= each)
      throw notUnderstood(
        `skip is ${call.query('skip') ?? ''}: a page has ${each} labels, of which 0 to ${each - 1} can be used already.`,
      );
    const all = labelsOf(network, sort, scopeId);
    const wanted = call.query('fresh') === '1' ? freshLabels(network, all) : all;
    if (wanted.length > mostLabels)
      throw new Refusal(
        422,
        'Too many labels',
        `These are ${wanted.length} labels; at most ${mostLabels} are printed at once. Choose a narrower place.`,
      );
    const linked = wanted.map((label) => ({
      ...label,
      link: code === 'qr' ? thingLink(origin, call.projectId, label.id) : '',
    }));
    const title = `${labelSorts[sort]} - ${scopeTitle(network, scopeId)}`;
    const { bytes, pages, problems } = await labelPdf(title, linked, size, code, skip);
    if (call.query('format') === 'pdf') return fileAnswer(`Labels, ${title}.pdf`, 'application/pdf', bytes);
    return {
      count: wanted.length - problems.length,
      pages: wanted.length === problems.length ? 0 : pages,
      unfit: problems.length,
      problems: problems.map(({ label: { kind, id, side }, why }) => ({ kind, id, side, why })),
    };
  },
} satisfies Partial<JobHandlers>;
