import type { Picture } from "../api/types.gen";

/** InHand shows, over the work in the vise, where the strands in hand are to go and the numbers of the places. */
export function InHand({ picture }: { picture: Picture }) {
  const { ways = [], discs, bump, thick = 300 } = picture;
  return (
    <g aria-hidden="true" pointerEvents="none">
      {ways.length > 0 && (
        <marker
          id="arrow"
          viewBox="0 0 10 10"
          refX="3"
          refY="5"
          markerWidth={thick * 0.75}
          markerHeight={thick * 0.75}
          markerUnits="userSpaceOnUse"
          orient="auto"
        >
          <path d="M0 0L10 5L0 10z" className="fill-(--moving)" />
        </marker>
      )}
      {ways.map((way) => (
        <path
          key={way}
          d={way}
          fill="none"
          stroke="#fffdf6"
          strokeOpacity="0.62"
          strokeWidth={thick * 0.8}
          strokeLinecap="round"
          data-testid="way"
        />
      ))}
      {ways.map((way) => (
        <path
          key={way}
          d={way}
          fill="none"
          stroke="var(--moving)"
          strokeWidth={thick * 0.13}
          strokeDasharray={`${thick * 0.36} ${thick * 0.24}`}
          markerEnd="url(#arrow)"
        />
      ))}
      {bump && (
        <g data-testid="bump">
          <circle cx={bump.x} cy={bump.y} r={thick * 0.95} fill="none" stroke="#fffdf6" strokeWidth={thick * 0.34} />
          <circle
            cx={bump.x}
            cy={bump.y}
            r={thick * 0.95}
            fill="none"
            stroke="var(--moving)"
            strokeWidth={thick * 0.17}
          />
        </g>
      )}
      {discs?.map((d) => (
        <g key={d.place} data-place={d.place}>
          <circle cx={d.x} cy={d.y} r={thick * 0.42} fill="#fffdf6" stroke="#17242a" strokeWidth={thick * 0.06} />
          <text
            x={d.x}
            y={d.y + thick * 0.19}
            fontSize={thick * (d.place > 9 ? 0.46 : 0.54)}
            fontWeight="700"
            textAnchor="middle"
            fill="#17242a"
          >
            {d.place}
          </text>
        </g>
      ))}
    </g>
  );
}
