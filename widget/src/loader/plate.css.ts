/** The plate at the edge of the page: an upright piece of joinery, not a bubble. */
export const plateCss = `
:host{all:initial}
*{box-sizing:border-box}
.plate{position:fixed;right:20px;bottom:20px;z-index:2147483000;display:flex;flex-direction:column;align-items:center;
gap:4px;width:112px;min-height:112px;padding:10px 8px 8px;margin:0;border:2px solid #22304a;border-radius:4px;
background:#fbf6ec;color:#22304a;font:600 14px/1.2 system-ui,sans-serif;text-align:center;overflow-wrap:anywhere;cursor:pointer}
.plate:hover{background:#f1e8d8}
.plate:focus-visible{outline:3px solid #22304a;outline-offset:2px}
svg{flex:none;width:44px;height:44px;fill:none;stroke:#22304a;stroke-width:1.5;stroke-linejoin:round;stroke-linecap:round}
.lit .glass{fill:#f2b134}
.more{display:block;margin-top:3px;font-weight:400;font-size:13px;color:#55606f}
.count{position:absolute;top:-2px;right:-2px;min-width:28px;padding:2px 7px;border-radius:2px;background:#22304a;color:#fbf6ec;text-align:center;font-size:14px}
.count:empty{display:none}
iframe{position:fixed;z-index:2147483001;right:20px;bottom:0;width:400px;height:min(640px,calc(100vh - 24px));
border:2px solid #22304a;border-bottom:0;border-radius:4px 4px 0 0;background:#fbf6ec;color-scheme:light dark}
iframe[hidden]{display:none}
@media(max-width:520px){iframe{right:0;left:0;top:0;bottom:0;width:100%;height:100%;border:0;border-radius:0}}
@media(prefers-color-scheme:dark){.plate{background:#141c2b;color:#e9e1d0;border-color:#e9e1d0}.plate:hover{background:#1e2839}
.plate:focus-visible{outline-color:#e9e1d0}svg{stroke:#e9e1d0}.lit .glass{fill:#ffc857}.more{color:#a9b1bf}
.count{background:#e9e1d0;color:#141c2b}iframe{border-color:#e9e1d0;background:#141c2b}}
`.replaceAll('\n', '');
