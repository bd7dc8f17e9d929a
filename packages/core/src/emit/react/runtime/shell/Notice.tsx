import { useSyncExternalStore } from 'react';
import { notices } from './notices';
import './notice.css';

/** What is said over whatever screen is there; what did not work is said at once. */
export function Notice() {
  const notice = useSyncExternalStore(notices.subscribe, notices.now);
  const line = notice && (
    <p>
      {notice.text}{' '}
      <button type="button" onClick={notices.forget}>
        Close
      </button>
    </p>
  );
  return (
    <div className="notice">
      <div role="alert">{notice?.isProblem && line}</div>
      <div role="status">{!notice?.isProblem && line}</div>
    </div>
  );
}
