import { type ComponentProps, useEffect, useRef, useState } from "react";
import styled from "styled-components";

/** Common parts of a place: the head with its question, and a sheet of paper for tables. */
export const PlaceHead = styled.header`
  display: flex; align-items: baseline; flex-wrap: wrap; gap: 4px 14px; padding: 12px 16px 8px;
  h2 { font-size: 20px; } p { margin: 0; color: var(--soft); flex: 1; min-width: 200px; }
`;
const Paper = styled.section`
  margin: 0 16px 16px; background: var(--raised); border: 1px solid var(--hairline); padding: 10px 12px; overflow-x: auto;
  h3 { margin-bottom: 6px; }
  @media print { border: 0; margin: 0 0 12px; padding: 0; background: none; }
`;
/** A sheet of paper. Where what stands on it is wider, it scrolls, and is then reached by keys. */
export function Sheet(props: ComponentProps<"section">) {
  const ref = useRef<HTMLElement>(null);
  const [scrolls, setScrolls] = useState(false);
  useEffect(() => {
    const paper = ref.current;
    if (!paper) return;
    const measure = () => setScrolls(paper.scrollWidth > paper.clientWidth);
    const observer = new ResizeObserver(measure);
    observer.observe(paper);
    for (const child of paper.children) observer.observe(child);
    return () => observer.disconnect();
  }, []);
  return <Paper ref={ref} {...(scrolls ? { tabIndex: 0 } : {})} {...props} />;
}
/** Head of a column of buttons: said, not shown. */
export const ActionsHead = ({ name = "What to do with it" }: { name?: string }) => (
  <th>
    <span className="sr">{name}</span>
  </th>
);
export const Caution = styled.p`
  border-left: 4px solid var(--danger); padding: 6px 10px; margin: 0 16px 12px; background: var(--raised); font-weight: 550;
  @media print { margin: 0 0 12px; }
`;
