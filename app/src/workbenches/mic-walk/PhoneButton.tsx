import { Button, Popover } from '@mantine/core';
import { QRCodeSVG } from 'qrcode.react';
import type { Followers } from './useFollowers';

/** Pairs a phone or tablet that follows the round and triggers it. */
export function PhoneButton({ followers }: { followers: Followers }) {
  const { code, link, addresses, problem, open, close } = followers;
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
              <output className="mono" aria-label="Pairing code" style={{ fontSize: 28, letterSpacing: 3 }}>
                {`${code.slice(0, 4)} ${code.slice(4)}`}
              </output>
              {addresses.length > 0 ? (
                <>
                  <span>Scan this with the phone, or open the address there and type the code.</span>
                  {addresses.map((a) => (
                    <figure key={a} className="phoneCode">
                      <QRCodeSVG
                        value={`${a}#${link}`}
                        size={132}
                        marginSize={3}
                        bgColor="#ffffff"
                        fgColor="#1b1f21"
                        title={`Link to ${a}`}
                      />
                      <figcaption className="mono">{a}</figcaption>
                    </figure>
                  ))}
                </>
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
