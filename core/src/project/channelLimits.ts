/** More than this is no longer the loudspeaker's own: it is driven too hard, or broken. Noise counts too, so quiet sweeps do not tell. */
export const LIMIT_DB = { 'full range': -26, subwoofer: -20 } as const;
export const LOUD_ENOUGH_DB = 20;
/** Hum and rumble turn the early part of a sweep that stands no higher over the noise than this, dB: its polarity tells nothing. */
export const POLARITY_SNR_DB = { 'full range': 20, subwoofer: 30 } as const;
/** A polarity that is no surer than this cannot be told. */
export const UNCLEAR = 1.1;
