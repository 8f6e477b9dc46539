import { hasChoice, projectionNatures, linkFacets, type LinkFacet } from '@visograph/core/model';
import { facetName, setLink, unfoldTags } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { Card } from '../../record/parts.tsx';

/** What the labels of one link tell on the sheet that is open, where that is not what the sheet says. */
export function OnSheetCard({
  kind,
  id,
  label,
}: {
  kind: 'cable' | 'circuit' | 'prefix';
  id: string;
  label: string;
}): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { sheet: sheetId } = useParams();
  const sheet = network.get('sheet', sheetId ?? null);
  if (sheet === null || !canEdit) return null;
  const link = network.find('sheetLinksBySubject', id).find((one) => one.sheetId === sheet.id);
  const shown: readonly LinkFacet[] = link?.show ?? linkFacets.filter((facet) => sheet.show.includes(facet));
  const set = (show: LinkFacet[] | null): void =>
    void commit(setLink(network, sheet, { kind, id, label }, { show }, 'Changed the labels of'));
  const touched =
    link !== undefined &&
    (link.show !== null ||
      link.aLabel !== null ||
      link.bLabel !== null ||
      link.middleLabel !== null ||
      link.bends.length > 0 ||
      link.straight);
  return (
    <Card title="On this sheet">
      {linkFacets
        .filter((facet) => projectionNatures[sheet.projection].shows.includes(facet))
        .map((facet) => (
          <Tick
            key={facet}
            isSelected={shown.includes(facet)}
            onChange={(on) => set(linkFacets.filter((one) => (one === facet ? on : shown.includes(one))))}
          >
            {`Label tells ${facetName(facet)}`}
          </Tick>
        ))}
      {hasChoice(sheet.projection, 'tagsOfLinks') && sheet.reading.unfolded !== true && (
        <Tick
          isSelected={sheet.reading.unfolded.includes(`tags:${id}`)}
          onChange={(open) => void commit(unfoldTags(sheet, id, open))}
        >
          Every VLAN number at its ends
        </Tick>
      )}
      <Tick
        isSelected={link?.straight === true}
        onChange={(straight) =>
          void commit(
            setLink(network, sheet, { kind, id, label }, { straight }, straight ? 'Straightened' : 'Let go'),
          )
        }
      >
        Straight line
      </Tick>
      {touched && (
        <Button
          onPress={() =>
            void commit(
              setLink(
                network,
                sheet,
                { kind, id, label },
                { show: null, aLabel: null, bLabel: null, middleLabel: null, bends: [], straight: false },
                'Put back',
              ),
            )
          }
        >
          As it draws itself
        </Button>
      )}
    </Card>
  );
}
