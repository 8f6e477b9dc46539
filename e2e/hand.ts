/** What a person does on a sheet with a mouse, counted. */
import type { Page } from '@playwright/test';
import { expect, plate, quiet, saved } from './application.ts';

export const models = (page: Page) => page.getByRole('complementary', { name: 'Models' });
export const board = (page: Page) => page.locator('[data-sheet]');

/** What a person does, counted: presses, drags, texts typed. */
export class Hand {
  actions = 0;
  constructor(private readonly page: Page) {}

  async spot(across: number, down: number): Promise<{ x: number; y: number }> {
    const box = await board(this.page).boundingBox();
    if (box === null) throw new Error('no sheet');
    return { x: box.x + box.width * across, y: box.y + box.height * down };
  }
  /** Free ground at the lower right of the sheet. */
  async corner(): Promise<[number, number]> {
    const { x, y } = await this.spot(0.9, 0.93);
    return [x, y];
  }
  async does(act: () => Promise<unknown>): Promise<void> {
    this.actions++;
    await act();
  }
  async press(name: string | RegExp): Promise<void> {
    await this.does(() => this.page.getByRole('button', { name }).first().click());
  }
  /** Takes a model in hand. */
  async take(name: string): Promise<void> {
    await this.does(() =>
      models(this.page)
        .getByRole('button', { name: new RegExp(`^[A-Z]{2} ${name}$`) })
        .first()
        .click(),
    );
  }
  async stamp(across: number, down: number): Promise<void> {
    const { x, y } = await this.spot(across, down);
    await this.does(() => this.page.mouse.click(x, y));
    await saved(this.page);
    await quiet(this.page);
  }
  /** Chooses what lies between two plates, with a frame drawn around them. */
  async around(first: string, last: string): Promise<void> {
    const [one, other] = [
      await plate(this.page, first).boundingBox(),
      await plate(this.page, last).boundingBox(),
    ];
    if (one === null || other === null) throw new Error(`${first} to ${last}`);
    await this.does(async () => {
      await this.page.keyboard.down('Shift');
      await this.page.mouse.move(one.x - 12, one.y - 12);
      await this.page.mouse.down();
      await this.page.mouse.move(other.x + other.width + 12, other.y + other.height + 12, { steps: 4 });
      await this.page.mouse.up();
      await this.page.keyboard.up('Shift');
    });
    await quiet(this.page);
  }
  /** Pulls a line out of the row of ports of a plate to a point or another plate. */
  async pull(from: string, to: string | { across: number; down: number }): Promise<void> {
    // Another sheet may still be on its way.
    await expect(plate(this.page, from)).toBeVisible();
    const start = await plate(this.page, from).boundingBox();
    if (start === null) throw new Error(from);
    await this.page.mouse.move(start.x + start.width / 2, start.y + start.height - 3);
    const row = this.page.locator(`[data-pull="${from}"] p`);
    await expect(row).toBeVisible();
    const grip = await row.boundingBox();
    const end =
      typeof to === 'string'
        ? await plate(this.page, to).boundingBox()
        : { ...(await this.spot(to.across, to.down)), width: 0, height: 0 };
    if (grip === null || end === null) throw new Error(`${from} to ${String(to)}`);
    await this.does(async () => {
      await this.page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
      await this.page.mouse.down();
      await this.page.mouse.move(end.x + end.width / 2, end.y + end.height / 2, { steps: 4 });
      await this.page.mouse.up();
    });
    // An open list of what can stand at the end hides all else from its roles.
    if (typeof to === 'string') await saved(this.page);
    await quiet(this.page);
  }
}

export const panel = (page: Page) => page.getByRole('group', { name: 'The line just pulled' });

/** Types a topology into the panel beside the sheet, takes it over and closes the panel. */
export async function typed(page: Page, text: string): Promise<void> {
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('textbox', { name: 'Topology, one link a line' }).fill(text);
  await page.getByRole('button', { name: /^Take/ }).click();
  await saved(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: 'Topology, one link a line' })).toHaveCount(0);
  await quiet(page);
}
