/**
 * What the server answers, for workers, which have no more of it than its address.
 * @throws Error with what the server says of it.
 */
export async function fetched<T>(path: string): Promise<T> {
  const response = await fetch(path);
  const answer = (await response.json().catch(() => null)) as (T & { readonly message?: string }) | null;
  if (response.ok && answer) return answer;
  throw new Error(answer?.message ?? `The server answered ${response.status}.`);
}
