import { button, enter, fill, press, renderPage } from '../../testing/render-page.js';
import { ReasonDialog } from './ReasonDialog.js';

function dialog(given: string[], closed: string[] = []) {
  return (
    <ReasonDialog
      title="Leave CJ-1 for another day"
      usual={['Part missing', 'No time left']}
      submit="Leave it"
      onReason={(reason) => Promise.resolve(void given.push(reason))}
      onClose={() => void closed.push('closed')}
    />
  );
}

test('a usual reason is given with one touch', async () => {
  const [given, closed]: [string[], string[]] = [[], []];
  await renderPage(dialog(given, closed));
  await press('Part missing');
  expect([given, closed]).toEqual([['Part missing'], ['closed']]);
});

test('one’s own words count, blanks do not', async () => {
  const given: string[] = [];
  await renderPage(dialog(given));
  expect(button('Leave it').disabled).toBe(true);
  await fill('Or in your own words', '   ');
  expect(button('Leave it').disabled).toBe(true);
  await enter('Leave it');
  expect(given).toEqual([]);
  await fill('Or in your own words', ' The hall is locked ');
  await enter('Leave it');
  expect(given).toEqual(['The hall is locked']);
});
