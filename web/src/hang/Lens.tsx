import type { ReactNode } from "react";

const radius = 96;
export const lensTimes = 3;

/** Lens shows what lies under the pointer larger. */
export function Lens({ x, y, children }: { x: number; y: number; children: ReactNode }) {
  return (
    <g aria-hidden="true" pointerEvents="none" data-testid="lens">
      <clipPath id="lens">
        <circle cx={x} cy={y} r={radius} />
      </clipPath>
      <g clipPath="url(#lens)">
        <circle cx={x} cy={y} r={radius} fill="var(--mat)" />
        <g transform={`translate(${x} ${y}) scale(${lensTimes}) translate(${-x} ${-y})`}>{children}</g>
      </g>
      <circle cx={x} cy={y} r={radius} fill="none" stroke="var(--ink)" strokeWidth="3" />
      <circle cx={x} cy={y} r={radius + 2.5} fill="none" stroke="#fffdf6" strokeWidth="2" />
    </g>
  );
}
