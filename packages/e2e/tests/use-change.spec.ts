import { daysAgo, expect, openCompressor, test } from './fixtures.js';

test('a machine used five times as much: on Today, on its hours, and in why', async ({
  page,
  office,
}, info) => {
  const tag = `MORE-${info.project.name}`;
  const id = await office.addCompressor(tag, {
    family: 'screw',
    drive: 'direct',
    commissionedOn: daysAgo(420).slice(0, 10),
  });
  // One hour a day for a year, then five.
  for (let ago = 406; ago >= 0; ago -= 14) {
    const hours = ago > 56 ? 406 - ago : 350 + (56 - ago) * 5;
    await office.readHours(id, ago === 0 ? 0.02 : ago, hours);
  }
  await page.goto('/');
  const warning = page.getByRole('link', { name: new RegExp(tag) }).filter({ hasText: 'Used five times' });
  await expect(warning).toContainText(/since about \d+ \w+ 20\d\d: .+ about \d+ \w+ 20\d\d, not /);
  await warning.click();
  await expect(page.getByRole('list', { name: 'What the forecast rests on' })).toContainText(
    /Used five times as much since about .+: 5 h a day, 1 h before/,
  );
  await expect(page.getByRole('img', { name: /Used five times as much since about/ })).toBeVisible();
  await openCompressor(page, id, tag);
  await page.goto(`/units/${id}?station=oil-filter`);
  await page.getByRole('button', { name: 'Why: New oil filter' }).click();
  await expect(page.getByRole('dialog')).toContainText('its hours are calculated with what it runs now');
});
