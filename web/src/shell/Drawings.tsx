// Drawings of the page behind the dialog, each to keep as SVG or PNG.
import { useState } from 'react';
import { drawingsOn, savePng, saveSvg } from '../figures/out';
import { ChipButton } from '../ui/Press';

export function Drawings() {
  const [list] = useState(() => {
    const page = document.querySelector('main');
    return page ? drawingsOn(page) : [];
  });
  const [fault, setFault] = useState('');
  if (!list.length) return null;
  return (
    <section aria-label="Drawings on this page" data-testid="drawings" style={{ marginTop: 22 }}>
      <h3>Drawings on this page</h3>
      {fault && <p role="alert">{fault}</p>}
      <ul className="deeds">
        {list.map((d, i) => (
          // Two may be called alike.
          // oxlint-disable-next-line react/no-array-index-key
          <li key={d.name + i}>
            <span style={{ flex: 1 }}>{d.name.length > 70 ? `${d.name.slice(0, 68)}…` : d.name}</span>
            <ChipButton onClick={() => saveSvg(d)}>SVG</ChipButton>
            <ChipButton onClick={() => savePng(d).catch((e: Error) => setFault(e.message))}>PNG</ChipButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
