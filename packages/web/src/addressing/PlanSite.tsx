import { planSite } from '@visograph/core/addressing';
import { byName, isCloudPlace, formatPrefix, type Prefix } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Choice, Picker } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { Preview } from '../kit/panel/Preview.tsx';

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** The address plan of a new site from a template: a block in each VRF, and every prefix in it. */
export function PlanSite({ open, onOpenChange }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const { scopeId, select } = useWhereabouts();
  const templates = [...network.all('siteTemplate')].sort(byName);
  const sites = [...network.all('place')]
    .filter((place) => place.parentId === null && !isCloudPlace(network, place.id))
    .sort(byName);
  const bare = sites.filter((place) => network.countOf('prefixesByPlace', place.id) === 0);
  const [templateId, setTemplate] = useState<string | null>(templates[0]?.id ?? null);
  const [placeId, setPlace] = useState<string | null>(null);
  const [poolIds, setPools] = useState<Readonly<Record<string, string | null>>>({});
  const [length, setLength] = useState('');
  const template = network.get('siteTemplate', templateId);
  const place = network.get(
    'place',
    placeId ?? bare.find((one) => one.id === scopeId)?.id ?? bare[0]?.id ?? null,
  );
  const vrfs = [...network.all('vrf')].sort(byName);
  const poolsOf = (vrfId: string): Prefix[] =>
    network.find('prefixesByVrf', vrfId).filter((row) => row.role === 'pool' && !row.prefix.includes(':'));
  const pools = vrfs.flatMap((vrf) => network.get('prefix', poolIds[vrf.id] ?? null) ?? []);
  const wished = Number(length.replace('/', ''));
  const plan =
    template === null || place === null || pools.length === 0
      ? null
      : planSite(network, { template, place, pools, siteLength: length === '' ? null : wished });
  const why = plan === null ? null : !plan.ok ? plan.why : plan.attempt.ok ? null : plan.attempt.why;
  const attempt = plan?.ok === true && plan.attempt.ok ? plan.attempt : null;
  return (
    <ActPanel
      title="Plan a site from a template"
      open={open}
      onOpenChange={onOpenChange}
      note={
        templates.length === 0
          ? 'There is no template yet. Add one in Addresses, under Site templates.'
          : pools.length === 0
            ? 'Choose the pool of the region: the site gets a block of it, so that one route leads there.'
            : place === null
              ? 'Choose the site: every site has prefixes already.'
              : null
      }
      trouble={why}
      action={`Plan ${place?.name ?? 'the site'}`}
      onAct={
        attempt === null
          ? null
          : () => {
              const [first] = attempt.set.changes;
              if (!commit(attempt.set).ok) return false;
              if (first !== undefined) select({ kind: 'prefix', id: first.id });
              return true;
            }
      }
      fields={
        <>
          <Choice
            label="Template"
            width={150}
            value={templateId}
            options={templates.map((one) => ({ id: one.id, text: one.name }))}
            onChange={setTemplate}
          />
          <Picker
            label="Site"
            width={180}
            value={place?.id ?? null}
            options={sites.map((one) => ({
              id: one.id,
              text: one.name,
              detail: network.countOf('prefixesByPlace', one.id) > 0 ? 'has prefixes' : '',
            }))}
            onChange={setPlace}
          />
          {vrfs.map((vrf) => (
            <Picker
              key={vrf.id}
              label={`Region of VRF ${vrf.name}`}
              width={190}
              value={poolIds[vrf.id] ?? null}
              options={poolsOf(vrf.id).map((row) => ({
                id: row.id,
                text: row.prefix,
                detail: row.name ?? '',
              }))}
              onChange={(id) => setPools({ ...poolIds, [vrf.id]: id })}
            />
          ))}
          <Field label="Block" mono width={80} value={length} onChange={setLength} help="/19, or as usual" />
        </>
      }
    >
      {plan?.ok === true &&
        plan.blocks.map(({ pool, block, summary, parts, free }) => (
          <Preview key={pool.id}>
            <table aria-label={`Prefixes in ${formatPrefix(block)}`}>
              <thead>
                <tr>
                  <th scope="col">{`Block ${formatPrefix(block)}`}</th>
                  <th scope="col">Name</th>
                  <th scope="col">VLAN</th>
                </tr>
              </thead>
              <tbody>
                {parts.map(({ part, prefix, vlan }) => (
                  <tr key={part.name}>
                    <td className="mono">{formatPrefix(prefix)}</td>
                    <td>{part.name}</td>
                    <td className="mono">{vlan?.vid ?? ''}</td>
                  </tr>
                ))}
                <tr>
                  <td className="mono">{summary.map(formatPrefix).join(', ')}</td>
                  <td colSpan={2}>
                    {`${summary.length === 1 ? 'one route for the site' : `${summary.length} routes for the site`}; ${free.length === 0 ? 'nothing' : free.map(formatPrefix).slice(0, 3).join(', ')} stays free`}
                  </td>
                </tr>
              </tbody>
            </table>
          </Preview>
        ))}
    </ActPanel>
  );
}
