import { reservations, withPlan } from '@visograph/core/lens';
import { newId, type Problem } from '@visograph/core/model';
import type { Knex } from 'knex';
import { LineRow } from '../database/rows.ts';
import type { BuiltLine } from '../store/builtLine.ts';
import type { Author, Journal, LineOf } from '../store/journal.ts';
import { absentPlan, type PlanLines } from './planLines.ts';
import { KeptElsewhere, reserve } from './reserve.ts';

export interface PlanWish {
  name?: string | undefined;
  purpose?: string | null | undefined;
  thrownAway?: boolean | undefined;
}
export type PlanMade = { ok: true; plan: LineRow } | { ok: false; problems: Problem[] };

/** The plans of projects: begun, renamed, thrown away and brought back, each told in the plan's own line of history. */
export class Plans {
  constructor(
    private readonly knex: Knex,
    private readonly journal: Journal,
    private readonly built: BuiltLine,
    private readonly lines: PlanLines,
  ) {}

  /** All of a project, those thrown away too, in the order in which they were begun. */
  async list(projectId: string): Promise<LineRow[]> {
    return LineRow.query(this.knex).where({ projectId }).orderBy(['madeAt', 'id']);
  }

  async find({ projectId, line }: LineOf): Promise<LineRow> {
    const row = await LineRow.query(this.knex)
      .findById(line ?? '')
      .where({ projectId });
    if (row === undefined) throw absentPlan();
    return row;
  }

  async begin(
    projectId: string,
    author: Author,
    wish: { name: string; purpose: string | null },
  ): Promise<PlanMade> {
    const id = newId();
    const base = await this.built.read(projectId);
    return this.refusingNames(
      () => wish.name,
      id,
      () =>
        this.knex.transaction(async (transaction) => {
          const plan = { id, projectId, ...wish, revision: 1, madeBy: author.name };
          const made = await LineRow.query(transaction).insert(plan).returning('*');
          await this.note(transaction, made, author, 1, base.revision, `Began the plan ${wish.name}`);
          return made;
        }),
    );
  }

  async change(of: LineOf, author: Author, wish: PlanWish): Promise<PlanMade> {
    const base = await this.built.read(of.projectId);
    const entries = await this.journal.after(of, 0);
    let name = wish.name ?? '';
    const result = await this.refusingNames(
      () => name,
      of.line ?? '',
      () =>
        this.knex.transaction(async (transaction) => {
          const row = await LineRow.query(transaction)
            .findById(of.line ?? '')
            .where({ projectId: of.projectId })
            .forUpdate();
          if (row === undefined) throw absentPlan();
          name = wish.name ?? row.name;
          const throwing = wish.thrownAway === true && row.thrownAwayAt === null;
          const bringing = wish.thrownAway === false && row.thrownAwayAt !== null;
          if (bringing)
            await reserve(
              transaction,
              of,
              withPlan(base.network, entries).network,
              reservations(base.network, entries),
            );
          if (throwing) await transaction('reservation').delete().where({ lineId: row.id });
          const sentences = [
            name === row.name ? null : `Renamed the plan ${row.name} to ${name}`,
            wish.purpose === undefined || wish.purpose === row.purpose ? null : `Changed what ${name} is for`,
            throwing ? `Threw the plan ${name} away` : null,
            bringing ? `Brought the plan ${name} back` : null,
          ].filter((sentence) => sentence !== null);
          if (sentences.length === 0) return row;
          const revision = row.revision + 1;
          const changed = await LineRow.query(transaction).patchAndFetchById(row.id, {
            name,
            purpose: wish.purpose === undefined ? row.purpose : wish.purpose,
            revision,
            ...(throwing ? { thrownAwayAt: new Date(), thrownAwayBy: author.name } : {}),
            ...(bringing ? { thrownAwayAt: null, thrownAwayBy: null } : {}),
          });
          await this.note(transaction, row, author, revision, base.revision, sentences.join('. '));
          return changed;
        }),
    );
    await this.lines.notice(of);
    return result;
  }

  /** Nobody's step: what became of the plan itself is not taken back by undo. */
  private async note(
    transaction: Knex.Transaction,
    plan: LineRow,
    author: Author,
    revision: number,
    base: number,
    sentence: string,
  ): Promise<void> {
    const of = { projectId: plan.projectId, line: plan.id };
    const nobody = { id: null, name: author.name };
    const wish = { id: newId(), sentence };
    await this.journal.append(transaction, of, [{ author: nobody, wish, changes: [], revision, base }]);
  }

  private async refusingNames(
    nameOf: () => string,
    id: string,
    work: () => Promise<LineRow>,
  ): Promise<PlanMade> {
    try {
      return { ok: true, plan: await work() };
    } catch (error) {
      if (error instanceof KeptElsewhere) return { ok: false, problems: error.problems };
      const { constraint, nativeError } = error as {
        constraint?: string;
        nativeError?: { constraint?: string };
      };
      if ((constraint ?? nativeError?.constraint) !== 'line_name') throw error;
      const name = nameOf();
      const message = `There is already a plan with the name ${name}. Choose another name.`;
      return {
        ok: false,
        problems: [{ code: 'duplicate', kind: 'project', id, about: `plan ${name}`, field: 'name', message }],
      };
    }
  }
}
