// @vitest-environment happy-dom
// Focus goes into a view once it is there, and stays where the view put it.
import { afterEach, expect, it } from 'vitest';
import { focusView, followViews } from './focus';

const soon = () => new Promise((r) => setTimeout(r, 160));
afterEach(() => {
  document.body.innerHTML = '';
});

it('goes into the new view', async () => {
  document.body.innerHTML = '<button>Set</button><main id="old"></main>';
  document.querySelector('button')!.focus();
  focusView();
  await soon();
  expect(document.activeElement?.tagName).toBe('BUTTON');
  document.querySelector('main')!.outerHTML = '<main id="new"></main>';
  await soon();
  expect(document.activeElement?.id).toBe('new');
});

it('goes on from what it waited on', async () => {
  document.body.innerHTML = '<main id="old"></main>';
  focusView();
  document.body.innerHTML = '<main id="waits"></main>';
  await soon();
  expect(document.activeElement?.id).toBe('waits');
  document.body.innerHTML = '<main id="new"></main>';
  await soon();
  expect(document.activeElement?.id).toBe('new');
});

it('stays where the view put it, and in a dialog', async () => {
  document.body.innerHTML = '<main id="old"></main>';
  focusView();
  document.body.innerHTML = '<main id="new"><input></main>';
  document.querySelector('input')!.focus();
  await soon();
  expect(document.activeElement?.tagName).toBe('INPUT');
});

it('follows the router from path to path, not within one', async () => {
  document.body.innerHTML = '<main id="old"></main>';
  let tell: (s: any) => void = () => {};
  const router = {
    state: { location: { pathname: '/a' } },
    subscribe: (f: typeof tell) => ((tell = f), () => {}),
  };
  followViews(router);
  const now = (pathname: string, state = 'idle') => tell({ location: { pathname }, navigation: { state } });
  now('/a');
  document.body.innerHTML = '<main id="same"></main>';
  await soon();
  expect(document.activeElement?.id).not.toBe('same');
  now('/b', 'loading');
  now('/b');
  document.body.innerHTML = '<main id="b"></main>';
  await soon();
  expect(document.activeElement?.id).toBe('b');
});
