// A kind of part, drawn small.
const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 } as const;

const ICONS: Record<string, React.ReactNode> = {
  pocket: (
    <>
      <path d="M5 5h30v30H5z" {...line} strokeDasharray="3 3" />
      <path d="M11 15h18v15H11z" {...line} />
      <path d="M20 15v15" {...line} strokeDasharray="2 2" />
    </>
  ),
  strap: (
    <>
      <path d="M5 22h30v13H5z" {...line} strokeDasharray="3 3" />
      <path d="M11 28V17C11 2 29 2 29 17v11" {...line} />
    </>
  ),
  tab: (
    <>
      <path d="M12 4v31" {...line} strokeDasharray="3 3" />
      <path d="M12 14h12M12 20h12" {...line} />
      <circle cx="28" cy="17" r="5.5" {...line} />
    </>
  ),
  zip: (
    <>
      <path d="M5 5h30v30H5z" {...line} strokeDasharray="3 3" />
      <path d="M5 16h30M5 20h30" {...line} />
      <path d="M9 16v4M14 16v4M19 16v4M24 16v4M29 16v4" {...line} />
    </>
  ),
  partition: (
    <>
      <path d="M5 10l8 -5h22v24l-8 6H5zM5 10h22v25M27 10l8 -5" {...line} strokeDasharray="3 3" />
      <path d="M9 8h22v20l-4 3" {...line} />
    </>
  ),
  decoration: (
    <>
      <circle cx="20" cy="20" r="14" {...line} strokeDasharray="3 3" />
      <path d="M20 28V16M20 20c-6 0 -6 -6 -6 -6c6 0 6 6 6 6c0 -6 6 -6 6 -6c0 6 -6 6 -6 6" {...line} />
    </>
  ),
  piece: (
    <>
      <path d="M7 9h26v22H7z" {...line} />
      <path d="M20 13v14M17 16l3 -3l3 3" {...line} />
    </>
  ),
  add: <path d="M20 9v22M9 20h22" {...line} />,
};

export function PartIcon({ kind }: { kind: string }) {
  return (
    <svg viewBox="0 0 40 40" width="38" height="38" aria-hidden="true" className="shrink-0">
      {ICONS[kind] ?? ICONS.piece}
    </svg>
  );
}
