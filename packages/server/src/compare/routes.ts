import { type Box, heardFindings, type SweptFault } from '@tovel/core';
import type { FastifyInstance } from 'fastify';
import { leftSignal, route } from '../http/route.ts';
import type { Services } from '../services.ts';

const told = ({ box, widths, ...fault }: SweptFault) => ({ ...fault, box: { ...box }, widths: [...widths] });

/** Whether what runs is what was drawn: comparing, sweeping over widths, the pictures of it, and how it went before. */
export function compareRoutes(app: FastifyInstance, { projects, comparing, comparisons }: Services): void {
  route(app, 'compare', async ({ params: { id }, body: { drawing, width, reference, version }, reply }) => {
    const { causes, problems, ...compared } = await comparing.compare(
      id,
      drawing,
      width,
      version ?? reference ?? 'source',
      leftSignal(reply),
    );
    return {
      ...compared,
      causes: causes.map(({ box, sets, ...cause }) => ({
        ...cause,
        box: { ...box },
        ...(sets ? { sets: { ...sets } } : {}),
      })),
      problems: [...problems],
    };
  });

  route(app, 'sweep', async ({ params: { id }, body: { screen }, reply }) => {
    const { faults, problems } = await comparing.sweep(id, screen, leftSignal(reply));
    return { screen, faults: faults.map(told), problems: [...problems] };
  });

  route(app, 'sweeps', async ({ params: { id } }) => {
    await projects.require(id);
    const swept = await comparisons.sweepsOf(id);
    return swept.map((one) => ({ ...one, faults: one.faults.map(told) }));
  });

  route(app, 'listen', async ({ params: { id }, body: { screen, width }, reply }) => {
    const { heard, ...shown } = await comparing.listen(id, screen, width, leftSignal(reply));
    const placed = <T extends { readonly box: Box }>(one: T) => ({ ...one, box: { ...one.box } });
    return {
      ...shown,
      findings: heardFindings(heard).map((finding) => ({ ...finding, places: finding.places.map(placed) })),
      stops: heard.stops.map(placed),
      headings: heard.headings.map(placed),
      landmarks: heard.landmarks.map(placed),
    };
  });

  route(app, 'comparisons', async ({ params: { id } }) => {
    await projects.require(id);
    return comparisons.of(id);
  });

  route(app, 'comparedPicture', async ({ params: { name }, reply }) =>
    reply
      .type('image/png')
      .header('cache-control', 'private, max-age=3600, immutable')
      .send(Buffer.from(comparing.picture(name))),
  );
}
