import { type ReactNode, useLayoutEffect, useRef } from "react";
import { Tabs as AriaTabs, Tab, TabList } from "react-aria-components";
import styled from "styled-components";

const Strip = styled(TabList)`
  display: flex; flex-wrap: wrap; gap: 0 1px; border-bottom: 1.5px solid var(--hairline);
  @media print { display: none; }
`;
const Top = styled.div`
  display: flex; flex-wrap: wrap; align-items: flex-end; gap: 0 14px;
  > :last-child { flex: 1; }
`;
const One = styled(Tab)`
  padding: 5px 6px; min-height: 32px; display: flex; align-items: center; gap: 5px; cursor: pointer; white-space: nowrap; font-stretch: 82%; font-size: 14.5px;
  border-bottom: 3px solid transparent; color: var(--soft); outline: none;
  @media (pointer: coarse) { min-height: 44px; }
  &[data-selected] { border-bottom-color: var(--ink); color: var(--ink); font-weight: 650; }
  &[data-focus-visible] { outline: 2px solid var(--act); outline-offset: -2px; }
`;
/** Strip and panel are one thing wherever they are laid out. */
const Whole = styled.div`
  min-width: 0;
`;
const Body = styled.div`
  outline: none; padding-top: 10px; min-width: 0;
  &:focus-visible { outline: 2px solid var(--act); outline-offset: 2px; }
`;

interface TabItem<K extends string> {
  id: K;
  name: string;
  /** Behind the name, such as a grade's glyph. */
  mark?: ReactNode;
  body: () => ReactNode;
}

/** Tabs of which only the chosen one is built. */
export function Tabs<K extends string>({
  label,
  tabs,
  chosen,
  onChoose,
  head,
}: {
  label: string;
  /** Stands in one row with the tabs. */
  head?: ReactNode;
  tabs: readonly TabItem<K>[];
  chosen: K;
  onChoose: (id: K) => void;
}) {
  const strip = useRef<HTMLDivElement>(null);
  const panel = useRef<HTMLDivElement>(null);
  // A panel of its own: the library's walks all that stands in it after each render, as often as a slider moves. Ids are
  // the library's, read from the tab whenever it has them anew.
  useLayoutEffect(() => {
    const tabList = strip.current;
    if (!tabList) return;
    const name = () => {
      const tab = tabList.querySelector('[role="tab"][aria-selected="true"]');
      const id = tab?.getAttribute("aria-controls");
      if (!tab || !id || !panel.current) return;
      panel.current.id = id;
      panel.current.setAttribute("aria-labelledby", tab.id);
    };
    name();
    const observer = new MutationObserver(name);
    observer.observe(tabList, {
      subtree: true,
      childList: true,
      attributeFilter: ["aria-controls", "aria-selected", "id"],
    });
    return () => observer.disconnect();
  }, [chosen]);
  return (
    <Whole>
      <AriaTabs selectedKey={chosen} onSelectionChange={(key) => onChoose(String(key) as K)}>
        <Top>
          {head}
          <Strip ref={strip} aria-label={label}>
            {tabs.map(({ id, name, mark }) => (
              <One key={id} id={id}>
                {name}
                {mark}
              </One>
            ))}
          </Strip>
        </Top>
      </AriaTabs>
      <Body key={chosen} ref={panel} role="tabpanel" tabIndex={0}>
        {tabs.find(({ id }) => id === chosen)?.body()}
      </Body>
    </Whole>
  );
}
