import { useSyncExternalStore } from 'react';
import { notices } from '../api/notices';
import './notice.css';

/** What did not work, said over whatever screen is there. */
export function Notice() {
  const text = useSyncExternalStore(notices.subscribe, notices.now);
  return (
    <div role="alert" className="notice">
      {text && (
        <p>
          {text}{' '}
          <button type="button" onClick={notices.forget}>
            Close
          </button>
        </p>
      )}
    </div>
  );
}
