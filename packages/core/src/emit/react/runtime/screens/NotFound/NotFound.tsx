import { Link } from 'react-router';

export function NotFound() {
  return (
    <main>
      <h1>There is no such page</h1>
      <p>
        <Link to="/">Go to the start</Link>
      </p>
    </main>
  );
}
