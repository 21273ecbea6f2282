// Money as the shop writes it: whole amounts, its own sign before or behind.
import type { Schemas } from '../../api/client';

/** An amount with the shop's currency, if it has told one. */
export function money(amount: number, shop: Schemas['ShopSettings'] | undefined): string {
  const figure = Math.round(amount).toLocaleString('en').replaceAll(',', ' ');
  const sign = shop?.currency?.trim();
  return sign ? `${figure} ${sign}` : figure;
}

/** What parts come to, told as the shop's figures are: what is asked for them, or what they cost the shop. */
export const inParts = (amount: number, shop: Schemas['ShopSettings'] | undefined): string =>
  `${money(amount, shop)} in parts${shop?.figures === 'cost' ? ', at cost' : ''}`;
