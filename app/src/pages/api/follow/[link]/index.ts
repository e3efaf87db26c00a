import type { APIRoute } from 'astro';
import Joi from 'joi';
import { answer, guarded, jsonBody } from '../../../../server/answers';
import { followedRounds, stateSchema } from '../../../../server/rounds';

/** How far the round is, for whoever is paired with it. */
export const GET: APIRoute = ({ params }) =>
  guarded(() => answer({ state: followedRounds.look(params['link'] ?? '') }));

/** The tab that measures tells how far it is, and is told what was asked for. */
export const PUT: APIRoute = ({ params, request }) =>
  guarded(async () => {
    const { key, state } = await jsonBody(request, stateSchema, 200_000);
    return answer({ commands: followedRounds.publish(params['link'] ?? '', key, state) });
  });

const keySchema: Joi.Schema<{ key: string }> = Joi.object({ key: Joi.string().max(64) });

export const DELETE: APIRoute = ({ params, request }) =>
  guarded(async () => {
    followedRounds.end(params['link'] ?? '', (await jsonBody(request, keySchema)).key);
    return answer({});
  });
