import {
  freshLabels,
  labelsOf,
  labelSizes,
  labelSorts,
  notePrinted,
  type LabelSize,
  type LabelSort,
} from '@visograph/core/labels';
import { grouped, keysOf } from '@visograph/core/model';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { addressOf } from '../data/api.ts';
import { callJob } from '../data/jobs.ts';
import { useWhereabouts } from '../data/location.ts';
import { useProject } from '../data/project.tsx';
import { useMeantQuery, useShown } from '../data/shown.ts';
import { Choice } from '../kit/choice.tsx';
import { Field } from '../kit/controls.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { mono } from '../theme/mono.ts';

const Samples = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-start;
`;
const Sample = styled.div`
  flex: none;
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 4px;
  overflow: hidden;
  color: #16202e;
  background: #fff;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 2px;
  ${mono}
  font-size: 10px;
  line-height: 1.2;
  > i {
    flex: none;
    height: 100%;
    aspect-ratio: 1;
    background: repeating-conic-gradient(#16202e 0 25%, #fff 0 50%) 0 0 / 7px 7px;
  }
  > i.bars {
    align-self: flex-end;
    width: 50%;
    height: 34%;
    aspect-ratio: auto;
    background: repeating-linear-gradient(90deg, #16202e 0 2px, #fff 2px 4px, #16202e 4px 5px, #fff 5px 8px);
  }
  > span {
    min-width: 0;
    overflow: hidden;
  }
  b,
  em {
    display: block;
    font-style: normal;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  b {
    font-size: 12px;
  }
`;
const Wide = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
`;
const Unfit = styled.ul`
  margin: 0;
  padding-left: 18px;
  max-height: 110px;
  overflow: auto;
  color: ${({ theme }) => theme.warn};
  overflow-wrap: anywhere;
`;

const codes = { none: 'No code', qr: 'QR code, a link', code128: 'Code 128, the name' } as const;
type Code = keyof typeof codes;
const ownSize = 'own';

const measures: readonly [key: keyof Omit<LabelSize, 'page'> | 'pageWidth' | 'pageHeight', label: string][] =
  [
    ['pageWidth', 'Page width'],
    ['pageHeight', 'Page height'],
    ['width', 'Label width'],
    ['height', 'Label height'],
    ['columns', 'Columns'],
    ['rows', 'Rows'],
    ['left', 'From the left'],
    ['top', 'From the top'],
    ['gapAcross', 'Gap across'],
    ['gapDown', 'Gap down'],
  ];
const textsOf = ({ page, ...size }: LabelSize): Record<string, string> => ({
  pageWidth: String(page.width),
  pageHeight: String(page.height),
  ...Object.fromEntries(Object.entries(size).map(([key, value]) => [key, String(value)])),
});
const sizeFrom = (texts: Readonly<Record<string, string>>): object => {
  const number = (key: string): number => Number((texts[key] ?? '').replace(',', '.'));
  const { pageWidth: _width, pageHeight: _height, ...rest } = texts;
  return {
    page: { width: number('pageWidth'), height: number('pageHeight') },
    ...Object.fromEntries(Object.keys(rest).map((key) => [key, number(key)])),
  };
};
const standard = 'sheet-3x8';

/** Labels to print: of what, on which size, with which code; what they come to, what does not fit, and what was printed before. */
export function LabelsPanel({ onClose }: { onClose: () => void }): ReactNode {
  const { project, view, canEdit, commit, sync } = useProject();
  const network = useShown();
  const meant = useMeantQuery();
  const { scopeId } = useWhereabouts();
  const [of, setOf] = useState<LabelSort>('cables');
  const [size, setSize] = useState(standard);
  const [own, setOwn] = useState(() => {
    const known = labelSizes[standard];
    return known === undefined ? {} : textsOf(known.size);
  });
  const [code, setCode] = useState<Code>('qr');
  const [fresh, setFresh] = useState(true);
  const [noted, setNoted] = useState(true);
  const [skip, setSkip] = useState('0');
  const all = useMemo(() => labelsOf(network, of, scopeId), [network, of, scopeId]);
  const wanted = useMemo(() => (fresh ? freshLabels(network, all) : all), [network, all, fresh]);
  const query = {
    ...meant,
    of,
    code,
    origin: window.location.origin,
    scope: scopeId ?? undefined,
    skip: skip.trim() === '' ? '0' : skip.trim(),
    ...(fresh ? { fresh: '1' } : {}),
    ...(size === ownSize ? { measures: JSON.stringify(sizeFrom(own)) } : { size }),
  };
  const params = { project: project.id };
  const told = useQuery({
    queryKey: ['labels', project.id, view.revision, JSON.stringify(query)],
    queryFn: ({ signal }) => callJob('GET /projects/:project/labels', { params, query }, { signal }),
    enabled: wanted.length > 0,
    retry: false,
  });
  const known = labelSizes[size]?.size ?? null;
  const shape = known ?? { width: Number(own['width']) || 50, height: Number(own['height']) || 20 };
  const ratio = Math.min(190 / shape.width, 84 / shape.height);
  const fits = told.data === undefined ? null : told.data;
  const counted =
    wanted.length === 0
      ? all.length === 0
        ? 'There is nothing here to label.'
        : `All ${grouped(all.length)} are printed as they read now.`
      : fits === null
        ? told.isError
          ? null
          : 'Laying them out …'
        : `${grouped(fits.count)} ${fits.count === 1 ? 'label' : 'labels'} on ${grouped(fits.pages)} ${fits.pages === 1 ? 'page' : 'pages'}, in the order in which one walks past${fits.unfit === 0 ? '' : `; ${grouped(fits.unfit)} do not fit`}.`;
  /** One end of a cable may fit where the other does not. */
  const unfit = new Set(fits?.problems.map(({ id, side }) => `${id}${side ?? ''}`));
  const print = (): boolean => {
    window.location.assign(
      addressOf('GET /projects/:project/labels', { params, query: { ...query, format: 'pdf' } }),
    );
    if (!noted || !canEdit) return true;
    const printed = wanted.filter(({ id, side }) => !unfit.has(`${id}${side ?? ''}`));
    const attempt = notePrinted(view.network, printed, new Date().toISOString().slice(0, 10));
    if (attempt.ok) commit(attempt.set);
    else if (fresh) sync.announce({ tone: 'bad', text: attempt.why });
    return true;
  };
  return (
    <ActPanel
      title="Labels"
      wide
      open
      onOpenChange={(stays) => !stays && onClose()}
      note={counted}
      trouble={told.isError ? told.error.message : null}
      action="Save PDF"
      onAct={fits === null || fits.count === 0 ? null : print}
      fields={
        <Wide>
          <Choice<LabelSort>
            label="Of"
            width={150}
            value={of}
            options={keysOf<LabelSort>(labelSorts).map((id) => ({ id, text: labelSorts[id] }))}
            onChange={setOf}
          />
          <Choice
            label="Size"
            width={220}
            value={size}
            options={[
              ...Object.entries(labelSizes).map(([id, { title }]) => ({ id, text: title })),
              { id: ownSize, text: 'By own measures …' },
            ]}
            onChange={(next) => {
              const from = labelSizes[size];
              if (next === ownSize && from !== undefined) setOwn(textsOf(from.size));
              setSize(next);
            }}
          />
          <Choice<Code>
            label="Code"
            width={170}
            value={code}
            options={keysOf<Code>(codes).map((id) => ({ id, text: codes[id] }))}
            onChange={setCode}
          />
          <Field label="Used on the first page" width={140} mono value={skip} onChange={setSkip} />
          <Tick isSelected={fresh} onChange={setFresh}>
            Only new or changed ones
          </Tick>
          {canEdit && (
            <Tick isSelected={noted} onChange={setNoted}>
              Note them as printed
            </Tick>
          )}
        </Wide>
      }
    >
      {size === ownSize && (
        <Wide role="group" aria-label="Measures in millimetres">
          {measures.map(([key, label]) => (
            <Field
              key={key}
              label={label}
              width={88}
              mono
              value={own[key] ?? ''}
              onChange={(text) => setOwn({ ...own, [key]: text })}
            />
          ))}
          <Hint>millimetres; columns and rows counted</Hint>
        </Wide>
      )}
      <Samples role="list" aria-label="The first labels">
        {wanted.slice(0, 8).map((label) => (
          <Sample
            key={`${label.id}${label.side ?? ''}`}
            role="listitem"
            style={{ width: shape.width * ratio, height: shape.height * ratio }}
          >
            {code === 'qr' && <i aria-hidden="true" />}
            <span>
              {label.lines.map((line, at) => (at === 0 ? <b key={at}>{line}</b> : <em key={at}>{line}</em>))}
            </span>
            {code === 'code128' && <i className="bars" aria-hidden="true" />}
          </Sample>
        ))}
      </Samples>
      {fits !== null && fits.problems.length > 0 && (
        <Unfit aria-label="Labels that do not fit">
          {fits.problems.slice(0, 20).map(({ id, why }, at) => (
            <li key={`${id}${at}`}>{why}</li>
          ))}
        </Unfit>
      )}
    </ActPanel>
  );
}
