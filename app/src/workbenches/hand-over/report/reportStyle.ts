/** The report's own style: it stands alone, on screen and on paper. */
export const STYLE = `
:root{--card:#fff;--sand:#f4f1ea;--line:#bbb;--line-soft:#e4e4e4;--ink:#22292b;--soft:#566061;--kelp:#1f7a74;--kelp-soft:#d5e6e3;--buoy:#b04d17;--buoy-soft:#f6e1d3;--stone:#e4ded2;--stone-ink:#3a4446;--on-kelp:#fff}
.drawing{width:620px;max-width:100%}
body{font:14px/1.45 'Atkinson Hyperlegible Next',sans-serif;color:#22292b;max-width:900px;margin:24px auto;padding:0 20px;background:#fff}
h1{font-size:26px;margin:0}h2{font-size:18px;margin:26px 0 8px;border-bottom:1px solid #999;padding-bottom:3px}
table{border-collapse:collapse;width:100%;font-size:12.5px;margin:6px 0}th,td{text-align:left;vertical-align:top;padding:3px 7px;border-bottom:1px solid #ddd}
th{font-weight:600}figure{margin:12px 0;break-inside:avoid}figure svg{width:100%;height:auto}.small{font-size:12px;color:#566061}
section{break-inside:auto}tr{break-inside:avoid}
.sign{display:grid;grid-template-columns:auto 1fr auto 1fr;gap:12px;margin-top:60px;align-items:end}.sign div{border-bottom:1px solid #22292b;height:40px}
@media print{body{margin:0;max-width:none}h2{break-after:avoid}}`;
