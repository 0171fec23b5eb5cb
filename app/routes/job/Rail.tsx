import { ClipboardCheck, Droplets, Gauge, List, PenTool, Ruler, Waypoints, Wrench } from "lucide-react";
import { useEffect, useMemo, useRef } from "react";
import { NavLink, useLocation } from "react-router";
import styled from "styled-components";
import { bledSoFar } from "~/core/air/bled";
import { entriesOf } from "~/core/book/entries";
import { lastLooks } from "~/core/book/looks";
import { placeOf } from "~/core/findings/index";
import { type Place, places } from "~/core/findings/rule";
import { ticked } from "~/core/order/progress";
import { hosesOf } from "~/core/plan/lying";
import { tradeIn } from "~/core/units/trade";
import { counted } from "~/messages/counted";
import { placeNames } from "~/messages/outcomes";
import { useJob } from "~/state/job";
import { GradeGlyph } from "~/ui/glyphs";

const Nav = styled.nav`
  grid-area: rail; border-right: 1.5px solid var(--hairline); background: var(--panel); overflow: auto;
  ol { list-style: none; margin: 0; padding: 4px 0; display: grid; }
  a { display: grid; grid-template-columns: 14px 1fr auto; column-gap: 7px; padding: 6px 8px 6px 10px; min-height: 50px; align-content: center; color: var(--ink); text-decoration: none; border-left: 4px solid transparent; font-stretch: 84%; }
  a b { font-weight: 550; font-size: 15px; } a i { font-style: normal; color: var(--soft); font-size: 13px; }
  a small { grid-column: 2 / 4; color: var(--soft); font-size: 12px; font-stretch: 68%; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  a svg.icon { display: none; }
  a[aria-current="page"] { border-left-color: var(--ink); background: var(--ground); b { font-weight: 700; } }
  @media (max-width: 1000px) {
    a { grid-template-columns: 1fr; place-items: center; padding: 4px; min-height: 48px; position: relative; }
    a b, a small, a i { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
    a svg.icon { display: block; }
    a .grade { position: absolute; top: 4px; right: 2px; }
  }
  @media (max-width: 600px) {
    border-right: 0; border-bottom: 1px solid var(--hairline); overflow-x: auto;
    height: 48px; scrollbar-width: none;
    ol { display: flex; padding: 0; }
    a { min-width: 48px; min-height: 47px; border-left: 0; border-bottom: 4px solid transparent; padding: 0 13px; white-space: nowrap; }
    a b { position: static; width: auto; height: auto; clip-path: none; font-size: 15px; }
    a svg.icon { display: none; }
    a { padding-top: 8px; }
    a .grade { top: 2px; right: 3px; svg { width: 11px; height: 11px; } }
    a[aria-current="page"] { border-bottom-color: var(--ink); }
  }
  @media print { display: none; }
`;

const icons: Record<Place, typeof Ruler> = {
  survey: Ruler,
  layout: Waypoints,
  prove: Gauge,
  fit: PenTool,
  parts: List,
  install: Wrench,
  bleed: Droplets,
  care: ClipboardCheck,
};

export function Rail() {
  const { job, plan, book, findings, lineUp } = useJob();
  const aboard = Object.values(plan.conditions.aboardM3).reduce((sum, m3) => sum + m3, 0);
  const [wet, steps] = useMemo(
    () => [
      [...lastLooks(book, plan.id).values()].filter(({ result }) => result === "wet").length,
      ticked(book, plan.id).length,
    ],
    [book, plan.id],
  );
  const bled = useMemo(
    () => (lineUp ? bledSoFar(book, plan.id, lineUp.id).size : 0),
    [book, plan.id, lineUp],
  );
  const status: Record<Place, string> = {
    survey: `${tradeIn(job.units).volume(aboard)} aboard`,
    layout: counted(plan.parts.length + job.consumers.length, "part"),
    prove: counted(plan.lineUps.length, "line-up"),
    fit: counted(hosesOf(plan).length, "run"),
    parts: counted(plan.parts.length, "part"),
    install:
      wet > 0 ? `${counted(wet, "joint")} wet` : steps > 0 ? `${counted(steps, "step")} done` : "not begun",
    bleed: bled === 0 ? "not bled" : `${counted(bled, "step")} done`,
    care: counted(entriesOf(book, "vacuum").length, "reading"),
  };
  const worst = (place: Place) =>
    findings
      .filter((finding) => !finding.setAside && placeOf(finding) === place)
      .map(({ grade }) => grade)[0];
  const nav = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // Where the places scroll, the one that is open is seen.
  useEffect(() => {
    const open = nav.current?.querySelector<HTMLElement>('[aria-current="page"]');
    if (nav.current && open)
      nav.current.scrollLeft = open.offsetLeft - nav.current.clientWidth / 2 + open.offsetWidth / 2;
  }, [pathname]);
  return (
    <Nav aria-label="Places" ref={nav}>
      <ol>
        {places.map((place, i) => {
          const Icon = icons[place];
          const grade = worst(place);
          return (
            <li key={place}>
              <NavLink to={`/job/${job.id}/${place}`} prefetch="intent">
                <i aria-hidden>{i + 1}</i>
                <Icon className="icon" size={20} aria-hidden />
                <b>{placeNames[place]}</b>
                <span className="grade">{grade && <GradeGlyph grade={grade} size={13} />}</span>
                <small>{status[place]}</small>
              </NavLink>
            </li>
          );
        })}
      </ol>
    </Nav>
  );
}
