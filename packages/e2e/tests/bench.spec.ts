import type { Page } from '@playwright/test';
import { expect, test } from './fixtures.js';

const answer = (page: Page) => page.getByRole('status').first();

async function chooseCompressor(page: Page, tag: string): Promise<void> {
  await page.getByLabel('Unit', { exact: true }).fill(tag);
  await page.getByRole('option', { name: new RegExp(`^${tag}`) }).click();
}

/** Follows the way from what was saved to the unit's own page. */
async function seeOnCompressor(page: Page, tag: string, text: RegExp): Promise<void> {
  await page.getByRole('link', { name: `See it on ${tag}` }).click();
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
  await expect(page.getByRole('list', { name: /^Measurements of/ })).toContainText(text);
}

test('pump-up: typed and read back, from a unit, refused when upside down, saved and found', async ({
  page,
  office,
}, info) => {
  const tag = `PUMP-${info.project.name}`;
  await office.addCompressor(tag, { fadLpm: 400, receiverL: 270, cutInBar: 6, cutOutBar: 8 });
  await page.goto('/bench');
  await expect(page).toHaveURL(/\/bench\/pump-up/);
  // By hand: 270 L from 6 to 8 bar are 535 L of free air, with Z.
  await page.getByLabel('Volume, piping included').fill('270 L');
  await page.getByLabel('From', { exact: true }).fill('8');
  await page.getByLabel('To', { exact: true }).fill('6');
  await page.getByLabel('Time', { exact: true }).fill('60');
  await expect(page.getByRole('alert')).toContainText('The last pressure must be higher than the first');
  await page.getByLabel('From', { exact: true }).fill('6 bar');
  await page.getByLabel('To', { exact: true }).fill('116 psi');
  await expect(answer(page)).toContainText(/Delivers 53\d L\/min/);
  await page.reload();
  await expect(page.getByLabel('To', { exact: true })).toHaveValue('116 psi');
  await expect(answer(page)).toContainText(/Delivers 53\d L\/min/);
  for (const name of ['Volume, piping included', 'From', 'To'])
    await page.getByLabel(name, { exact: true }).fill('');
  await chooseCompressor(page, tag);
  await page.getByLabel('Time', { exact: true }).fill('95');
  await expect(answer(page)).toContainText(/Delivers 33\d L\/min, 8[45] % of the data plate/);
  await expect(
    page.getByRole('img', { name: /Pressure over time: timed 95 s, by the plate 80 s/ }),
  ).toBeVisible();
  await page.getByLabel('Time', { exact: true }).fill('0');
  await expect(page.getByRole('alert')).toContainText('0 s? It lies between 0.1 s');
  await page.getByLabel('Time', { exact: true }).fill('95');
  await page.getByRole('button', { name: `Save to ${tag}` }).click();
  await seeOnCompressor(page, tag, /Delivers 33\d L\/min, 8[45] % of the data plate/);
});

test.describe('with a clock of its own', () => {
  test.use({ ownContext: true });

  test('the watch goes on through a reload and gives its seconds', async ({ page }) => {
    await page.goto('/bench/pump-up?way=leak-down&volumeL=500&fromBar=8&toBar=7&fadLpm=690');
    await page.getByRole('button', { name: 'Start the watch' }).click();
    await page.clock.runFor(42_000);
    await expect(page.getByRole('button', { name: 'Stop the watch' })).toContainText(/[45]\d\.\d/);
    await page.reload();
    await page.clock.runFor(78_500);
    await page.getByRole('button', { name: 'Stop the watch' }).click();
    const seconds = Number(await page.getByLabel('Time', { exact: true }).inputValue());
    expect(seconds).toBeGreaterThanOrEqual(120.5);
    // The faked clock goes on by itself, too; by hand 500·(9.013/0.9977 − 8.013/0.9981)/1.01325 = 495 L.
    const flow = Number(/([\d.]+) L\/min leak away/.exec((await answer(page).textContent())!)![1]);
    expect(Math.abs((flow * seconds) / 60 / 495 - 1)).toBeLessThan(0.01);
    await expect(page.getByText('It costs in a year')).toBeVisible();
  });
});

test('leaks: by times, by a hole, and their cost', async ({ page, office }, info) => {
  const tag = `LEAK-${info.project.name}`;
  await office.addCompressor(tag, { fadLpm: 1000 });
  await page.goto('/bench/leaks');
  await page.getByRole('button', { name: 'size of a hole' }).click();
  await page.getByLabel('Width of the hole').fill('1/4');
  await expect(page.getByRole('alert')).toContainText('is no unit of length');
  await page.getByLabel('Width of the hole').fill('0.25 in');
  await page.getByLabel('Pressure before it').fill('100 psi');
  await page.getByRole('button', { name: 'as in the tables' }).click();
  // The table has 104 cfm: 2,945 L/min.
  await expect(page.getByRole('definition').first()).toContainText(/2,9\d\d/);
  await page.getByLabel('Pressure before it').fill('0.2');
  await expect(page.getByRole('alert')).toContainText('the hole does not choke');
  await page.getByRole('button', { name: 'load and unload times' }).click();
  await chooseCompressor(page, tag);
  await page.getByLabel('Loaded for', { exact: true }).fill('30');
  await page.getByLabel('Unloaded for').fill('90');
  // A quarter of 1,000 L/min: 0.25·6.5·8,760·0.25 = 3,559 a year.
  await expect(answer(page)).toContainText('Working 25 % of the time');
  await expect(answer(page)).toContainText('€3,559 a year');
  await expect(
    page.getByRole('img', { name: /Cost of a year over the share that leaks: €3,559 at 25 %/ }),
  ).toBeVisible();
  await page.getByLabel('Price of energy').fill('dear');
  await expect(page.getByRole('alert')).toContainText('“dear” is not a figure');
  await expect(answer(page)).not.toContainText('€');
  await page.getByLabel('Price of energy').fill('50');
  await expect(answer(page)).toContainText('€7,118 a year');
  await page.getByRole('button', { name: `Save to ${tag}` }).click();
  await seeOnCompressor(page, tag, /Working 25 % of the time/);
});

test(
  'ladder: what it should be, then which stage lets gas back',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const tag = `LADD-${info.project.name}`;
    await office.addCompressor(tag, { family: 'high-pressure', stages: 3, workingPressureBar: 300 });
    await page.goto('/bench/ladder');
    await page.getByLabel('Stages', { exact: true }).fill('6');
    await expect(page.getByRole('alert')).toContainText('It lies between 1');
    await page.getByLabel('Stages', { exact: true }).fill('2');
    await page.getByLabel('Built for').fill('7');
    await page.getByLabel('Intake air', { exact: true }).fill('212');
    await expect(page.getByRole('alert')).toContainText('Was it read in °F?');
    await page.getByLabel('Intake air', { exact: true }).fill('20');
    // r = √(8.013/1.013) = 2.81; after stage 1 2.85 bar absolute, 1.84 by the gauge.
    await expect(answer(page)).toContainText('This is what the stages should show.');
    await expect(
      page.getByRole('img', { name: /after stage 1 1\.8[34] bar|stage 1 1\.8[34] bar/ }),
    ).toBeVisible();
    for (const name of ['Stages', 'Built for']) await page.getByLabel(name, { exact: true }).fill('');
    await chooseCompressor(page, tag);
    const figures = {
      'After stage 1': '5.9',
      'After stage 2': '60',
      'After stage 3': '300',
      'Outlet 3': '195',
    };
    for (const [name, figure] of Object.entries(figures))
      await page.getByLabel(name, { exact: true }).fill(figure);
    await expect(answer(page)).toContainText('The valves of stage 3 let gas back');
    await expect(page.getByText('Suction valve, stage 3')).toBeVisible();
    await page.getByLabel('After stage 2', { exact: true }).fill('4');
    await expect(page.getByRole('alert')).toContainText('Are two gauges mixed up?');
    await page.getByLabel('After stage 2', { exact: true }).fill('60');
    await page.getByRole('button', { name: `Save to ${tag}` }).click();
    await seeOnCompressor(page, tag, /The valves of stage 3 let gas back/);
  },
);

test('condensate and cartridge: now, over the year in a worker, and weighed', async ({
  page,
  office,
}, info) => {
  const tag = `WATR-${info.project.name}`;
  await office.addCompressor(tag, {
    family: 'high-pressure',
    stages: 3,
    workingPressureBar: 225,
    fadLpm: 200,
  });
  await page.goto('/bench/water');
  await chooseCompressor(page, tag);
  await page.getByLabel('Intake air', { exact: true }).fill('20');
  await page.getByLabel('Humidity of it').fill('170');
  await expect(page.getByRole('alert')).toContainText('It lies between 0 % and 100 %');
  await page.getByLabel('Humidity of it').fill('70');
  await page.getByLabel('Air in it').fill('30');
  await page.getByLabel('The separator holds').fill('150');
  await page.getByLabel('The cartridge holds').fill('150');
  // By hand: 143 ml an hour, 31 minutes between drains, 46 to 47 hours.
  await expect(answer(page)).toContainText(/14[23] ml of condensate per hour; a cartridge lasts (49|50) h/);
  await expect(answer(page)).toContainText('Drain at least every 31 min');
  await page.getByLabel('Warmest month, mean').fill('18');
  await page.getByLabel('Coldest month, mean').fill('-2');
  await page.getByLabel('It runs in a week').fill('10');
  await page.getByRole('button', { name: 'Calculate the year' }).click();
  await expect(
    page.getByRole('img', { name: /Water and cartridge by month: Jan \d+ ml\/h, \d+ h/ }),
  ).toBeVisible();
  await expect(page.getByText('Cartridges in a year')).toBeVisible();
  await page.getByLabel('It runs in a week').fill('20');
  await expect(page.getByText('Something changed since: calculate it again.')).toBeVisible();
  await page.getByLabel('It weighs').fill('1190');
  await page.getByLabel('Dry, as printed').fill('1000');
  await page.getByLabel('Saturated, as printed').fill('900');
  await expect(page.getByRole('alert')).toContainText('Saturated it weighs more than dry');
  await page.getByLabel('Saturated, as printed').fill('1200');
  await expect(page.getByRole('status', { name: 'Verdict: keep an eye on it' })).toContainText(
    '95 % of the water it can hold is in it',
  );
  await page.getByRole('button', { name: `Save to ${tag}` }).click();
  await seeOnCompressor(page, tag, /95 % of the water it can hold is in it/);
});

test('cylinders: the best order, and those that must not be filled', async ({ page, office }, info) => {
  const tag = `CYLS-${info.project.name}`;
  await office.addCompressor(tag, {
    family: 'high-pressure',
    stages: 3,
    workingPressureBar: 300,
    fadLpm: 250,
  });
  await page.goto('/bench/cylinders?banks=50*200~50*310&cylinders=12*40*300*2020-05-31');
  await chooseCompressor(page, tag);
  await expect(answer(page)).toContainText('Its test ran out on 2020-05-31. Do not fill it.');
  await expect(page.getByRole('button', { name: 'Find the best order' })).toBeDisabled();
  await page.getByLabel('tested until').fill('2036-05-31');
  await page.getByLabel('Working pressure, bar').fill('200');
  await expect(answer(page)).toContainText('It is rated for 200 bar, the fill is 300 bar. Do not fill it.');
  await page.getByLabel('Working pressure, bar').fill('300');
  await page.getByRole('button', { name: 'Add a cylinder' }).click();
  await page.getByLabel('Now in it, bar').last().fill('150');
  await page.getByRole('button', { name: 'Find the best order' }).click();
  await expect(answer(page)).toContainText(/The banks fill \d of 2|The banks fill all 2/);
  await expect(page.getByRole('list', { name: 'Order of filling' }).getByRole('listitem')).toHaveCount(2);
  await expect(page.getByRole('img', { name: /Before and after: bank 1 200 to \d+ bar/ })).toBeVisible();
  await page.getByLabel('Cylinder just filled').fill('55');
  await expect(page.getByText('300 bar hot settles at')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Now in it, bar').last()).toHaveValue('150');
  await page.getByRole('button', { name: `Save to ${tag}` }).click();
  await seeOnCompressor(page, tag, /In date until 2036-05-31 and rated for 300 bar/);
});

test('a long search is broken off', async ({ page }) => {
  const banks = Array.from({ length: 16 }, (_, index) => `50*${120 + index * 10}`).join('~');
  const cylinders = Array.from({ length: 40 }, (_, index) => `12*${20 + index * 3}*300*2099-01-31`).join('~');
  await page.goto(`/bench/cylinders?fillBar=300&banks=${banks}&cylinders=${cylinders}`);
  await page.getByRole('button', { name: 'Find the best order' }).click();
  await expect(page.getByRole('progressbar', { name: 'Looking for the best order' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop looking' }).click();
  await expect(page.getByRole('button', { name: 'Find the best order' })).toBeEnabled();
  await expect(page.getByRole('progressbar')).toBeHidden();
});

test('own air or bought: what a fill costs, and from how many on the own set is worth it', async ({
  page,
}) => {
  await page.goto('/bench/own-air');
  await page.getByRole('button', { name: 'Show an example' }).click();
  await expect(answer(page)).toContainText(/A fill costs €[\d.]+ on the own set, €6\.00 elsewhere/);
  await expect(answer(page)).toContainText(/From \d+ fills a year on the own set is cheaper/);
  await page.getByLabel('A fill elsewhere costs').fill('0.1');
  await expect(answer(page)).toContainText('never pays for itself');
  await page.getByLabel('To', { exact: true }).fill('20 bar');
  await expect(page.getByText('It holds that much already.')).toBeVisible();
});

test('convert: any quantity, with what is mixed up with it, onto the data plate', async ({
  page,
  office,
}, info) => {
  const tag = `CONV-${info.project.name}`;
  await office.addCompressor(tag);
  await page.goto('/bench/convert');
  await page.getByLabel('Figure with its unit').fill('10 cfm');
  await expect(page.getByRole('alert').first()).toContainText('is no unit of pressure');
  await page.getByLabel('Figure with its unit').fill('-2 bar');
  await expect(page.getByRole('alert').first()).toContainText('less than a vacuum');
  await page.getByLabel('Figure with its unit').fill('300 bar');
  await expect(page.getByRole('definition').nth(1)).toContainText('4,351');
  await expect(page.getByText(/301\.01 bar absolute|301 bar absolute/)).toBeVisible();
  await page.getByLabel('Quantity').click();
  await page.getByRole('option', { name: 'flow' }).click();
  await page.getByLabel('Figure with its unit').fill('12 cfm');
  await expect(answer(page)).toContainText('12 cfm are 339.8 L/min.');
  await expect(page.getByText(/Is it displacement or free air delivered\?/)).toBeVisible();
  await chooseCompressor(page, tag);
  await page.getByLabel(`On the plate of ${tag} it is`).click();
  await page.getByRole('option', { name: 'Free air delivered' }).click();
  await page.getByRole('button', { name: `Save to ${tag}` }).click();
  await expect(page.getByText('Saved to its data plate.')).toBeVisible();
  await page.goto(`/units`);
  await page.getByRole('link', { name: tag }).first().click();
  await expect(page.getByText('340L/min')).toBeVisible();
});

test.describe('when the answer is lost', () => {
  test.use({ expectedErrors: { matching: [/ERR_FAILED/] } });

  test('what is saved again from a bench is recorded once', async ({ page, office }, info) => {
    const tag = `ONCE-${info.project.name}`;
    const id = await office.addCompressor(tag, { family: 'screw', fadLpm: 1000 });
    await page.goto(`/bench/leaks?unit=${id}&onSeconds=30&offSeconds=90`);
    // The server has it, and the page never hears of it.
    await page.route('**/measurements', async (route) => {
      await route.fetch();
      await route.abort('failed');
    });
    await page.getByRole('button', { name: `Save to ${tag}` }).click();
    await expect(page.getByText('The server does not answer')).toBeVisible();
    await page.unroute('**/measurements');
    await page.getByRole('button', { name: `Save to ${tag}` }).click();
    await page.getByRole('link', { name: `See it on ${tag}` }).click();
    await expect(page.getByRole('list', { name: /^Measurements of/ }).getByRole('listitem')).toHaveCount(1);
  });
});

test('a bench that is none leads to the first', async ({ page }) => {
  await page.goto('/bench/crystal-ball');
  await expect(page).toHaveURL(/\/bench\/pump-up/);
});

test('the benches speak the units that the person reads in; what was typed keeps its meaning', async ({
  page,
}) => {
  await page.goto('/bench/pump-up?volumeL=270');
  await page.getByLabel('From', { exact: true }).fill('6');
  await page.getByLabel('To', { exact: true }).fill('8');
  await page.getByLabel('Time', { exact: true }).fill('60');
  await expect(answer(page)).toContainText(/Delivers 53\d L\/min/);
  await page.getByRole('button', { name: /working/ }).click();
  for (const name of ['psi', 'cfm', '°F']) await page.getByRole('button', { name, exact: true }).click();
  await page.keyboard.press('Escape');
  // 535 L/min are 18.9 cfm; the 6 bar are still 6 bar.
  await expect(answer(page)).toContainText(/Delivers 18\.\d cfm/);
  await expect(page.getByLabel('From', { exact: true })).toHaveValue('6 bar');
  await page.getByLabel('From', { exact: true }).fill('87');
  await page.reload();
  await expect(page.getByLabel('From', { exact: true })).toHaveValue('87');
  await expect(answer(page)).toContainText(/Delivers 18\.\d cfm/);

  await page.goto('/bench/leaks?way=hole');
  await page.getByLabel('Width of the hole').fill('0.25 in');
  await page.getByLabel('Pressure before it').fill('100');
  await page.getByRole('button', { name: 'as in the tables' }).click();
  await expect(page.getByRole('definition').first()).toContainText(/10[34]cfm/);

  await page.goto('/bench/ladder?stages=2');
  await page.getByLabel('Built for').fill('100');
  await page.getByLabel('Intake air', { exact: true }).fill('68');
  // r = √(114.7/14.7) = 2.79: 41.06 psi absolute after stage 1, 26.4 by the gauge.
  await expect(page.getByRole('img', { name: /stage 1 26\.\d psi \d+ °F/ })).toBeVisible();

  await page.goto('/bench/water?humidity=70');
  await page.getByLabel('Intake air', { exact: true }).fill('68');
  await page.getByLabel('Free air delivered').fill('7.0630');
  await page.getByLabel('Pressure of the last separator').fill('3263');
  await page.getByLabel('Air in it').fill('86');
  await expect(answer(page)).toContainText(/14[23] ml of condensate per hour/);

  await page.goto('/bench/cylinders?banks=50*200&cylinders=12*40*300*2099-05-31');
  await page.getByLabel('Fill to').fill('4351');
  await page.getByLabel('Cylinder just filled').fill('131');
  await expect(page.getByText('300 bar hot settles at')).toBeVisible();

  await page.goto('/bench/convert?kind=pressure');
  await page.getByLabel('Figure with its unit').fill('145');
  await expect(answer(page)).toContainText('145 psi are 10 bar.');
});

test('an empty bench shows what it does on an example, says that it is one, and is empty again', async ({
  page,
}) => {
  const answers: Readonly<Record<string, RegExp>> = {
    'pump-up': /\d/,
    leaks: /\d/,
    ladder: /This is what the stages should show/,
    water: /\d/,
    cylinders: /Find the best order/,
  };
  for (const [bench, text] of Object.entries(answers)) {
    await page.goto(`/bench/${bench}`);
    const answer = page.getByRole('main').getByRole('status').first();
    await page.getByRole('button', { name: 'Show an example' }).click();
    await expect(page.getByRole('note')).toContainText('An example: the figures are invented.');
    await expect(answer, bench).toContainText(text);
    await expect(page.getByText(/^Still needed/), bench).toBeHidden();
    await page.getByRole('button', { name: 'Clear it' }).click();
    await expect(page.getByRole('note')).toBeHidden();
    await expect(page.getByRole('button', { name: 'Show an example' })).toBeVisible();
    await expect(page).toHaveURL(new RegExp(`/bench/${bench}$`));
  }
});
