import { reports, schedulesOf } from '@visograph/core/report';
import { useMemo, useState, type ReactNode } from 'react';
import { useShown } from '../data/shown.ts';
import { Filter } from '../kit/Filter.tsx';
import { SideList } from '../kit/list/SideList.tsx';

/** What the address calls the charts, in place of a schedule. */
export const chartsKey = 'charts';

/** Schedules to go to: those of the project by name, then those that are always there. */
export function ScheduleList({
  chosen,
  onOpen,
}: {
  chosen: string;
  onOpen: (schedule: string) => void;
}): ReactNode {
  const network = useShown();
  const [text, setText] = useState('');
  const own = useMemo(() => schedulesOf(network), [network]);
  const fits = (title: string): boolean => title.toLowerCase().includes(text.trim().toLowerCase());
  const ofProject = own.filter(({ name }) => fits(name));
  const builtIn = reports.filter(({ title }) => fits(title));
  const nothing = ofProject.length + builtIn.length === 0;
  return (
    <SideList
      label="Schedules"
      chosen={chosen}
      onOpen={onOpen}
      groups={[
        {
          title: 'Of this project',
          items: ofProject.map(({ id, name }) => ({ id, text: name, detail: name })),
          ...(own.length === 0 ? { none: 'None is kept yet. Ask one otherwise, and keep it.' } : {}),
        },
        ...(fits('Charts')
          ? [
              {
                title: 'In bars',
                items: [{ id: chartsKey, text: 'Charts', detail: 'Ports, units, age, addresses' }],
              },
            ]
          : []),
        {
          title: 'Always there',
          items: builtIn.map(({ key, title, what }) => ({ id: key, text: title, detail: what })),
          ...(nothing ? { none: 'No schedule is called so.' } : {}),
        },
      ]}
    >
      <Filter label="Find a schedule" value={text} onChange={setText} />
    </SideList>
  );
}
