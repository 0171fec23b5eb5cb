/**
 * Marks that move with the fuel, on one canvas over the drawing: only what is in view, and nothing at all while they are
 * held or motion is not wanted. The drawing under them stands still and is not painted again.
 */
import { type RefObject, useEffect, useMemo, useRef } from "react";
import styled from "styled-components";
import type { Placed } from "~/core/drawing/placed";
import type { LineUpVerdict } from "~/core/hydraulics/worst";
import type { Network } from "~/core/network/network";
import { type FlowMark, flowMarks, MARK_UNITS } from "./edges";

const Over = styled.canvas`
  position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none;
`;

const MARK_LENGTH = 5;

interface Props {
  network: Network;
  placed: Placed;
  verdict: LineUpVerdict | null;
  scale: number;
  /** What scrolls the drawing; the drawing's own picture is the first in it. */
  view: RefObject<HTMLElement | null>;
  isMoving: boolean;
}

export function FlowMarks({ network, placed, verdict, scale, view, isMoving }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const marks = useMemo(() => flowMarks(network, placed, verdict), [network, placed, verdict]);
  const ways = useRef<readonly (FlowMark & { path: Path2D })[]>([]);
  useEffect(() => {
    ways.current = marks.map((mark) => ({ ...mark, path: new Path2D(mark.d) }));
  }, [marks]);
  // What moves changes with each figure; where it is seen does not, and asking it has the page laid out.
  const isAny = marks.length > 0;
  useEffect(() => {
    const [over, scroller] = [canvas.current, view.current];
    const context = over?.getContext("2d");
    const quiet = window.matchMedia("(prefers-reduced-motion: reduce)");
    if (!over || !scroller || !context) return;
    const drawing = scroller.querySelector("svg");
    let at = { x: 0, y: 0, width: 0, height: 0 };
    let colour = "";
    let frame = 0;
    /** Where the drawing lies in what is seen of it: asked when that changes, not at each frame. */
    const look = () => {
      const seen = scroller.getBoundingClientRect();
      const whole = drawing?.getBoundingClientRect() ?? seen;
      at = {
        x: whole.left - seen.left,
        y: whole.top - seen.top,
        width: scroller.clientWidth,
        height: scroller.clientHeight,
      };
      const ratio = window.devicePixelRatio;
      over.width = Math.round(at.width * ratio);
      over.height = Math.round(at.height * ratio);
      over.style.width = `${at.width}px`;
      over.style.height = `${at.height}px`;
      colour = getComputedStyle(over).getPropertyValue("--raised");
    };
    const draw = (now: number) => {
      const ratio = window.devicePixelRatio;
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      context.clearRect(0, 0, at.width, at.height);
      context.setTransform(ratio * scale, 0, 0, ratio * scale, ratio * at.x, ratio * at.y);
      context.strokeStyle = colour;
      context.lineWidth = 1.8;
      context.setLineDash([MARK_LENGTH, MARK_UNITS - MARK_LENGTH]);
      for (const { path, speed, box } of ways.current) {
        const isSeen =
          box.right * scale + at.x > 0 &&
          box.left * scale + at.x < at.width &&
          box.bottom * scale + at.y > 0 &&
          box.top * scale + at.y < at.height;
        if (!isSeen) continue;
        context.lineDashOffset = -((now / 1000) * speed) % MARK_UNITS;
        context.stroke(path);
      }
      frame = requestAnimationFrame(draw);
    };
    const run = () => {
      cancelAnimationFrame(frame);
      look();
      if (isMoving && !quiet.matches && isAny) frame = requestAnimationFrame(draw);
    };
    run();
    const sized = new ResizeObserver(run);
    sized.observe(scroller);
    if (drawing) sized.observe(drawing);
    const scheme = new MutationObserver(look);
    scheme.observe(document.documentElement, { attributeFilter: ["data-theme"] });
    scroller.addEventListener("scroll", look, { passive: true });
    quiet.addEventListener("change", run);
    return () => {
      cancelAnimationFrame(frame);
      sized.disconnect();
      scheme.disconnect();
      scroller.removeEventListener("scroll", look);
      quiet.removeEventListener("change", run);
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, over.width, over.height);
    };
  }, [isAny, scale, view, isMoving]);
  return <Over ref={canvas} aria-hidden data-marks={isMoving ? marks.length : 0} />;
}
