import type { APIRoute } from 'astro';

/** In place of the framework's own: it would fetch and change any picture for anybody. */
export const ALL: APIRoute = () => new Response('Not found.', { status: 404 });
export const prerender = false;
