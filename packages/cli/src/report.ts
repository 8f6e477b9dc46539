/** `visograph report`: a built-in schedule, or one that is kept in the file. */
import { isDay } from '@visograph/core/check';
import { placePath, type Network } from '@visograph/core/model';
import {
  answerOf,
  answerTable,
  findReport,
  reports,
  scheduleNamed,
  schedulesOf,
  tableToCsv,
  toldAnswer,
} from '@visograph/core/report';
import { asJson, refuse, type Command, type Invocation } from './command.ts';

/** The place of a path such as "Kelder Quay/Harbour House"; undefined when there is none. */
export function scopeOf(network: Network, path: string | undefined): string | null | undefined {
  if (path === undefined) return null;
  for (const place of network.all('place')) {
    if (placePath(network, place.id).toLowerCase() === path.toLowerCase()) return place.id;
  }
  return undefined;
}

/** A schedule of the file as it answers today, or on the day that is named. What is wrong with its question is told beside it. */
function keptSchedule(invocation: Invocation, name: string, scopeId: string | null): number {
  const { network, values, out, err } = invocation;
  const schedule = scheduleNamed(network, name);
  if (schedule === null) {
    const names = schedulesOf(network).map((one) => one.name);
    const there = names.length === 0 ? 'It has none.' : `There are: ${names.join(', ')}.`;
    return refuse(invocation, '$.schedules', `There is no schedule “${name}” in the file. ${there}`);
  }
  const today = values.on ?? new Date().toISOString().slice(0, 10);
  if (!isDay(today)) return refuse(invocation, '$', `--on is ${today}, not a day such as 2027-03-01.`);
  const answer = answerOf(network, schedule, scopeId, today);
  if (answer === null)
    return refuse(
      invocation,
      '$.schedules',
      `${schedule.name} lists “${schedule.of}”, of which there is no built-in schedule.`,
    );
  for (const problem of answer.problems) err(`${problem}\n`);
  if (values.json === true || values.format === 'json') out(asJson({ ...toldAnswer(answer, schedule) }));
  else out(tableToCsv(answerTable(answer, schedule.numbered)));
  return answer.problems.length === 0 ? 0 : 1;
}

export const report: Command = (invocation) => {
  const { network, rest, values, out } = invocation;
  const scopeId = scopeOf(network, values.scope);
  if (scopeId === undefined)
    return refuse(invocation, '$.places', `There is no place ${values.scope ?? ''} in the file.`);
  if (values.format !== undefined && values.format !== 'csv' && values.format !== 'json')
    return refuse(invocation, '$', `There is no format ${values.format}. There are csv and json.`);
  if (values.schedule !== undefined) return keptSchedule(invocation, values.schedule, scopeId);
  const wanted = findReport(rest[0] ?? '');
  if (wanted === null)
    return refuse(
      invocation,
      '$',
      `There is no report “${rest[0] ?? ''}”. There are: ${reports.map((one) => one.key).join(', ')}.`,
    );
  const device = network.findOne('deviceByName', (values.device ?? '').toLowerCase());
  if (values.device !== undefined && device === null)
    return refuse(invocation, '$.devices', `There is no device ${values.device} in the file.`);
  if (device !== null && wanted.forDevice !== true)
    return refuse(
      invocation,
      '$',
      `The report ${wanted.key} is not made for one device. Leave out --device.`,
    );
  const table = wanted.make(network, scopeId, device === null ? {} : { device });
  if (values.json === true || values.format === 'json') {
    out(asJson({ columns: table.columns.map(({ key, label }) => ({ key, label })), rows: table.rows }));
  } else out(tableToCsv(table));
  return 0;
};
