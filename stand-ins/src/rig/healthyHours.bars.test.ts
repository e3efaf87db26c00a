import { it } from 'vitest';
import { expectHealthy } from './roundForTest.js';

it.each(Array.from({ length: 20 }, (_, i) => i + 1))(
  'seed %i: every channel of a healthy hour is called right',
  expectHealthy,
);
