import { zoneFile, zoneNames, zoneSerial, hostsFile } from '@visograph/core/addressing';
import { judgeRun, traceRun, type Run, faultText } from '@visograph/core/cabling';
import {
  blankSheet,
  projections,
  findPort,
  newId,
  portTitle,
  projectionNatures,
  type Network,
  type Sheet,
} from '@visograph/core/model';
import { elevationScene } from '@visograph/core/racks';
import { colourings, sheetScene, isColourBy, shadingOf } from '@visograph/core/sheets';
import { measureText } from '@visograph/drawing';
import { diagramSvg, elevationSvg } from '@visograph/drawing/svg';
import { writeFile } from 'node:fs/promises';
import { embedFonts } from '@visograph/typeface';
import { check } from './check.ts';
import { asJson, refuse, type Command, type Invocation } from './command.ts';
import { labels, parts } from './parts.ts';
import { report, scopeOf } from './report.ts';

type HopJson =
  { port: string } | { cable: string; lengthM: number | null } | { circuit: string; lengthM: number | null };
interface RunJson {
  from: string;
  to: string | null;
  ends: Run['ends'];
  lengthM: number;
  hops: HopJson[];
  branches?: (RunJson & { after: number })[];
}

/** A run as the contract of `visograph run --json` has it; branches only where there are some. */
function runJson(network: Network, run: Run): RunJson {
  const hops = run.hops.map((hop): HopJson => {
    if ('port' in hop) return { port: portTitle(network, hop.port) };
    if ('circuit' in hop) {
      const circuit = network.get('circuit', hop.circuit);
      return { circuit: circuit?.number ?? '', lengthM: circuit?.lengthM ?? null };
    }
    const cable = network.get('cable', hop.cable);
    return { cable: cable?.label ?? '', lengthM: cable?.lengthM ?? null };
  });
  return {
    from: portTitle(network, run.from),
    to: portTitle(network, run.to) || null,
    ends: run.ends,
    lengthM: Math.round(run.lengthM * 1000) / 1000,
    hops,
    ...(run.branches.length === 0
      ? {}
      : { branches: run.branches.map(({ after, run: branch }) => ({ after, ...runJson(network, branch) })) }),
  };
}

const trace: Command = (invocation) => {
  const { network, rest, values, out } = invocation;
  const [end = ''] = rest;
  const colon = end.indexOf(':');
  if (colon < 1) return refuse(invocation, '$', `“${end}” is not a port: write DEVICE:PORT.`);
  const port = findPort(network, end.slice(0, colon), end.slice(colon + 1));
  if (port === null)
    return refuse(
      invocation,
      '$.devices',
      `There is no port ${end} in the file. Check the name of the device and of the port.`,
    );
  const run = traceRun(network, port.id);
  const judged = judgeRun(network, run);
  const result = {
    ...runJson(network, run),
    speedBps: judged.speedBps,
    lightLeftDb: judged.light === null ? null : Math.round(judged.light.marginDb * 100) / 100,
    faults: judged.faults.map((fault) => ({
      severity: fault.severity,
      message: faultText(network, fault),
    })),
  };
  const { hops } = result;
  if (values.json === true) out(asJson(result));
  else {
    for (const hop of hops)
      out(
        'port' in hop
          ? `${hop.port}\n`
          : `  │ ${'cable' in hop ? hop.cable : hop.circuit}${hop.lengthM === null ? '' : ` · ${hop.lengthM} m`}\n`,
      );
    const ends = {
      port: `Ends at ${result.to ?? ''}`,
      open: 'Ends open',
      loop: 'Comes back to itself: a loop',
    }[run.ends];
    out(
      `${ends}; ${result.lengthM} m${run.unknownLengths > 0 ? ` and ${run.unknownLengths} cables of unknown length` : ''}.\n`,
    );
    if (judged.light !== null) out(`Light left: ${judged.light.marginDb.toFixed(1)} dB.\n`);
    for (const { run: branch } of run.branches)
      out(`Branches to ${portTitle(network, branch.to ?? branch.from)}.\n`);
    for (const fault of judged.faults) out(`${fault.severity}  ${faultText(network, fault)}.\n`);
  }
  return run.ends === 'loop' ? 1 : 0;
};

async function drawing(invocation: Invocation): Promise<string | number> {
  const { network, values } = invocation;
  if (values.projection === 'elevation') {
    const rack = network.findOne('rackByName', (values.rack ?? '').toLowerCase());
    if (rack === null)
      return refuse(
        invocation,
        '$.racks',
        `There is no rack “${values.rack ?? ''}” in the file. Name one with --rack.`,
      );
    const colour = values.colour ?? 'role';
    if (!isColourBy(colour))
      return refuse(
        invocation,
        '$',
        `There is no colouring ${colour}. There are ${colourings.join(', ')} and own:FIELD.`,
      );
    const today = new Date().toISOString().slice(0, 10);
    const shading =
      colour === 'role'
        ? null
        : shadingOf(network, network.find('devicesByRack', rack.id), colour, { today });
    return embedFonts(elevationSvg(elevationScene(network, rack, shading === null ? {} : { shading })));
  }
  const projection = projections.find((one) => one === (values.projection ?? 'cabling'));
  if (projection === undefined) {
    return refuse(
      invocation,
      '$',
      `There is no projection ${values.projection ?? ''}. There are ${projections.join(', ')} and elevation.`,
    );
  }
  const scopeId = scopeOf(network, values.scope);
  if (scopeId === undefined)
    return refuse(invocation, '$.places', `There is no place ${values.scope ?? ''} in the file.`);
  const named = [...network.all('sheet')].find(
    (sheet) => sheet.name.toLowerCase() === values.sheet?.toLowerCase(),
  );
  if (values.sheet !== undefined && named === undefined)
    return refuse(invocation, '$.sheets', `There is no sheet “${values.sheet}” in the file.`);
  const name = `${network.get('place', scopeId)?.name ?? 'All sites'} · ${projection}`;
  const sheet: Sheet = named ?? {
    ...blankSheet,
    id: newId(),
    name,
    projection,
    scopeId,
    show: [...projectionNatures[projection].usual],
  };
  const today = new Date().toISOString().slice(0, 10);
  return embedFonts(
    diagramSvg(
      sheetScene(network, sheet, { measure: measureText, today, stamp: { revision: 0, date: today } }),
    ),
  );
}

const draw: Command = async (invocation) => {
  const { values, out } = invocation;
  const svg = await drawing(invocation);
  if (typeof svg === 'number') return svg;
  if (values.out === undefined) {
    out(svg);
    return 0;
  }
  try {
    await writeFile(values.out, svg);
  } catch (error) {
    return refuse(
      invocation,
      '$',
      `${values.out} cannot be written: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  if (values.json === true) out(asJson({ out: values.out, bytes: Buffer.byteLength(svg) }));
  return 0;
};

/** A zone file by its name, or the names of all zones there are. */
const zone: Command = (invocation) => {
  const { network, rest, values, out } = invocation;
  const names = zoneNames(network);
  const [name] = rest;
  if (name === undefined) {
    out(values.json === true ? asJson({ zones: names }) : names.map((one) => `${one}\n`).join(''));
    return 0;
  }
  const text = zoneFile(network, name, zoneSerial(Date.now()));
  if (text === null)
    return refuse(
      invocation,
      '$.devices',
      `No address has a name in the zone ${name}. There are: ${names.join(', ')}.`,
    );
  out(values.json === true ? asJson({ zone: name, text }) : text);
  return 0;
};

const hosts: Command = ({ network, values, out }) => {
  const text = hostsFile(network);
  out(values.json === true ? asJson({ text }) : text);
  return 0;
};

/** Every command there is; a new one is a function and one line here. */
export const commands: Record<string, Command | undefined> = {
  check,
  run: trace,
  report,
  parts,
  labels,
  draw,
  zone,
  hosts,
};
