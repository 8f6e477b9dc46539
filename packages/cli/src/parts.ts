/** `visograph parts` and `visograph labels`: what is bought, and what is stuck on. */
import { isDay, reviewOf } from '@visograph/core/check';
import { freshLabels, labelsOf, labelSorts, type LabelSort } from '@visograph/core/labels';
import { blankPartsList, isOneOf, keysOf, moneyText, type PartsList } from '@visograph/core/model';
import {
  partGroupings,
  partGroupsOf,
  partsOf,
  partsTable,
  toOrder,
  type PartGrouping,
} from '@visograph/core/purchase';
import { tableToCsv } from '@visograph/core/report';
import { asJson, refuse, type Command } from './command.ts';
import { scopeOf } from './report.ts';

/** A parts list of the file, or one of what is planned in a place; exit code 1 where something keeps it from being ordered. */
export const parts: Command = (invocation) => {
  const { network, values, out, err } = invocation;
  const scopeId = scopeOf(network, values.scope);
  if (scopeId === undefined)
    return refuse(invocation, '$.places', `There is no place ${values.scope ?? ''} in the file.`);
  const day = values.on ?? new Date().toISOString().slice(0, 10);
  if (!isDay(day)) return refuse(invocation, '$', `--on is ${day}, not a day such as 2027-03-01.`);
  const by = values.by ?? 'section';
  if (!isOneOf<PartGrouping>(partGroupings, by))
    return refuse(invocation, '$', `--by is ${by}, not one of ${partGroupings.join(', ')}.`);
  const named = [...network.all('partsList')];
  const kept = named.find(({ name }) => name.toLowerCase() === values.list?.toLowerCase());
  if (values.list !== undefined && kept === undefined)
    return refuse(
      invocation,
      '$.partsLists',
      `There is no parts list “${values.list}” in the file. ${named.length === 0 ? 'It has none.' : `There are: ${named.map(({ name }) => name).join(', ')}.`}`,
    );
  const list: PartsList = kept ?? { ...blankPartsList, id: '', name: 'What is planned', scopeId };
  const answer = partsOf(network, list, day);
  const concerns = toOrder(network, list, answer, day, reviewOf(network, day).open);
  if (values.json === true)
    out(
      asJson({
        list: list.name,
        currency: list.currency,
        totalMinor: answer.totalMinor,
        unpriced: answer.unpriced,
        groups: partGroupsOf(network, list, answer, by).map(({ title, totalMinor, rows }) => ({
          ...{ title, totalMinor, rows },
        })),
        concerns: concerns.map(({ severity, text }) => ({ severity, text })),
      }),
    );
  else {
    out(tableToCsv(partsTable(network, list, answer, by)));
    err(`${moneyText({ priceMinor: answer.totalMinor, currency: list.currency })}\n`);
    for (const { severity, text } of concerns) err(`${severity === 'bad' ? 'mend' : 'look'}: ${text}\n`);
  }
  return concerns.some(({ severity }) => severity === 'bad') ? 1 : 0;
};

/** The texts of labels, in the order in which one walks past. */
export const labels: Command = (invocation) => {
  const { network, rest, values, out } = invocation;
  const scopeId = scopeOf(network, values.scope);
  if (scopeId === undefined)
    return refuse(invocation, '$.places', `There is no place ${values.scope ?? ''} in the file.`);
  const sort = rest[0] ?? 'cables';
  if (!isOneOf(keysOf<LabelSort>(labelSorts), sort))
    return refuse(
      invocation,
      '$',
      `There are no labels of “${sort}”. There are: ${Object.keys(labelSorts).join(', ')}.`,
    );
  const all = labelsOf(network, sort, scopeId);
  const wanted = values.fresh === true ? freshLabels(network, all) : all;
  const most = Math.max(1, ...wanted.map(({ lines }) => lines.length));
  const columns = Array.from({ length: most }, (_, at) => ({ key: `l${at}`, label: `Line ${at + 1}` }));
  const rows = wanted.map(({ lines }) =>
    Object.fromEntries(columns.map(({ key }, at) => [key, lines[at] ?? null])),
  );
  if (values.json === true)
    out(asJson({ labels: wanted.map(({ kind, side, lines }) => ({ kind, side, lines })) }));
  else out(tableToCsv({ columns, rows, ids: wanted.map(({ id }) => id) }));
  return 0;
};
