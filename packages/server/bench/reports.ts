/** Part of npm run bench: schedules over a network of 10,000 devices and 100,000 cables. */
import { checkNetwork, reviewOf } from '@visograph/core/check';
import { editRow } from '@visograph/core/commands';
import { applyChanges } from '@visograph/core/change';
import { labelsOf, labelSizes, thingLink } from '@visograph/core/labels';
import { blankPartsList, Network, type Question } from '@visograph/core/model';
import { partsOf } from '@visograph/core/purchase';
import { answerOf, answerTable, rowCells } from '@visograph/core/report';
import { labelPdf } from '../src/reports/labelPdf.ts';
import { tableToXlsx } from '../src/spreadsheets/tableXlsx.ts';
import { percentile, Report, time } from './figures.ts';
import { generate } from './generate.ts';

const report = new Report();
const today = '2026-11-30';
const data = generate(10_000, 100_000);
const build = (): Network => Network.of(data);
const ask = (of: string, keys: readonly string[], fields: Partial<Question> = {}): Question => ({
  of,
  scopeId: null,
  columns: keys.map((key) => ({ key, title: null, width: null, total: null })),
  filters: [],
  groups: [],
  order: [],
  numbered: true,
  blankRepeats: true,
  notes: null,
  ...fields,
});
const answered = (network: Network, question: Question) => {
  const answer = answerOf(network, question, null, today);
  if (answer === null) throw new Error(question.of);
  return answer;
};
const cableKeys = ['label', 'type', 'lengthM', 'aDevice', 'aPort', 'bDevice', 'bPort'];

{
  const network = build();
  const plain = ask('cables', cableKeys);
  const [first, firstMs] = await time(() => {
    const answer = answered(network, plain);
    return Array.from({ length: 40 }, (_, at) => rowCells(answer, at, true));
  });
  if (first.length !== 40) throw new Error('no rows');
  report.note(`schedule of ${data.cable.length.toLocaleString('en')} cables: first rows`, firstMs, 'ms', 400);
  const grouped = ask('cables', cableKeys, {
    columns: cableKeys.map((key) => ({
      ...{ key, title: null, width: null },
      total: key === 'lengthM' ? ('sum' as const) : null,
    })),
    groups: ['type', 'aDevice'].slice(0, 1),
    order: [{ key: 'lengthM', descending: true }],
  });
  const [sums, groupedMs] = await time(() => answered(network, grouped));
  report.note('  grouped, summed and ordered', groupedMs / 1000, 's', 1.5);
  const byName = ask('cables', cableKeys, {
    order: [
      { key: 'aDevice', descending: false },
      { key: 'label', descending: true },
    ],
  });
  report.note(
    '  ordered by two columns of names',
    (await time(() => answered(network, byName)))[1] / 1000,
    's',
    1.5,
  );
  const [file, fileMs] = await time(() => tableToXlsx('Cables', answerTable(sums, true)));
  report.note(`  as XLSX (${Math.round(file.length / 1e5) / 10} MB)`, fileMs / 1000, 's', null);
}
{
  const network = build();
  const ports = ask('ports', ['device', 'name', 'where', 'connector', 'cable', 'far']);
  const [, portsMs] = await time(() => answered(network, ports));
  report.note(`port map of ${data.port.length.toLocaleString('en')} ports: first rows`, portsMs, 'ms', null);
}
{
  const network = build();
  const [, allMs] = await time(() => reviewOf(network, today));
  report.note(
    `all checks of ${data.device.length.toLocaleString('en')} devices, on a network of which nothing was asked before`,
    allMs / 1000,
    's',
    3,
  );
  const [found, toldMs] = await time(() => checkNetwork(network, today));
  report.note(`  told in words, in order: ${found.length.toLocaleString('en')} findings`, toldMs, 'ms', null);
  const times: number[] = [];
  let now = network;
  for (const device of data.device.slice(0, 60)) {
    const { changes } = editRow(now, 'device', device, { serial: `S-${device.name}` });
    const applied = applyChanges(now, changes);
    if (!applied.ok) throw new Error('edit');
    now = applied.network;
    times.push((await time(() => reviewOf(now, today)))[1]);
  }
  report.note('  judged again after a single edit (p95 of 60)', percentile(times, 0.95), 'ms', 100);
}
{
  const network = build();
  const list = { ...blankPartsList, id: '', name: 'all', counts: 'both' as const };
  const [answer, partsMs] = await time(() => partsOf(network, list, today));
  report.note(
    `parts list of ${data.device.length.toLocaleString('en')} devices: ${answer.lines.length} lines`,
    partsMs / 1000,
    's',
    1,
  );
  const [, againMs] = await time(() => partsOf(network, { ...list, counts: 'planned' }, today));
  report.note('  counted otherwise, again', againMs / 1000, 's', null);
}
{
  const network = build();
  const [labels, listedMs] = await time(() => labelsOf(network, 'cables', null).slice(0, 5000));
  report.note('labels of all cables, in the order of the walk', listedMs / 1000, 's', null);
  const size = labelSizes['sheet-3x8']?.size;
  if (size === undefined) throw new Error('size');
  const project = '01920000-0000-7000-8000-000000000000';
  const linked = labels.map((label) => ({
    ...label,
    link: thingLink('https://net.marrow.example', project, label.id),
  }));
  const [file, printedMs] = await time(() => labelPdf('Labels', linked, size, 'qr', 0));
  report.note(
    `  ${labels.length.toLocaleString('en')} labels with QR codes as PDF (${Math.round(file.bytes.length / 1e5) / 10} MB)`,
    printedMs / 1000,
    's',
    5,
  );
}
report.finish();
