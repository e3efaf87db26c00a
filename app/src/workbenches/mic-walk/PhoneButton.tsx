import { Button, Popover } from '@mantine/core';
import type { Followers } from './useFollowers';

/** Pairs a phone or tablet that follows the round and triggers it. */
export function PhoneButton({ followers }: { followers: Followers }) {
  const { code, addresses, problem, open, close } = followers;
  return (
    <Popover position="bottom-end" width={330} shadow="sm" withArrow>
      <Popover.Target>
        <Button size="compact-xs" variant={code ? 'light' : 'default'}>
          Phone
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <section aria-label="Follow on a phone" style={{ display: 'grid', gap: 8, fontSize: 13 }}>
          <b>Follow on a phone</b>
          {problem ? <span role="alert">{problem}</span> : null}
          {code ? (
            <>
              <span className="quiet">Pairing code</span>
              <output className="mono" aria-label="Pairing code" style={{ fontSize: 30, letterSpacing: 4 }}>
                {code}
              </output>
              {addresses.length > 0 ? (
                <span>
                  Open{' '}
                  {addresses.map((a, i) => (
                    <b key={a}>
                      {i > 0 ? ' or ' : ''}
                      {a}
                    </b>
                  ))}{' '}
                  on the phone.
                </span>
              ) : (
                <span>
                  This server listens to its own machine only. For a phone, start it with{' '}
                  <span className="mono">HOST=0.0.0.0 npm run demo</span>; on this machine, open{' '}
                  <a className="linkish" href="/follow" target="_blank" rel="noreferrer">
                    /follow
                  </a>
                  .
                </span>
              )}
              <Button size="compact-sm" variant="default" onClick={close}>
                End the pairing
              </Button>
            </>
          ) : (
            <>
              <span className="quiet">
                A second device in this network shows where to stand and when to hold still, and can take the
                next spot. It needs the code; without it, it sees nothing.
              </span>
              <Button size="compact-sm" onClick={() => void open()}>
                Get a pairing code
              </Button>
            </>
          )}
        </section>
      </Popover.Dropdown>
    </Popover>
  );
}
