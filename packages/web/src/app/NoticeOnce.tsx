import { lazy, Suspense, useState } from 'react';

const FirstNotice = lazy(() => import('./FirstNotice.js').then((part) => ({ default: part.FirstNotice })));

const KEY = 'entretien-notice';

/** Shows the notice until somebody on this device has said that it is understood. */
export function NoticeOnce() {
  const [isRead, setRead] = useState(() => localStorage.getItem(KEY) !== null);
  if (isRead) return null;
  const onRead = () => {
    localStorage.setItem(KEY, 'read');
    setRead(true);
  };
  return (
    <Suspense fallback={null}>
      <FirstNotice onRead={onRead} />
    </Suspense>
  );
}
