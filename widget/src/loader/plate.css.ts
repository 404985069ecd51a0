/** The door at the edge of the page: pieces of joinery, not bubbles. `--s` is the size of text. */
export const plateCss = `
*{box-sizing:border-box}
.door{position:fixed;bottom:var(--b);right:var(--e);display:flex;flex-wrap:wrap;align-items:center;justify-content:flex-end;gap:10px;max-width:calc(100vw - 2*var(--e));pointer-events:none;
font:400 calc(14px*var(--s))/1.25 system-ui,sans-serif;color:var(--k)}
.left{right:auto;left:var(--e);flex-direction:row-reverse}
.door>*{pointer-events:auto}
button{font:inherit;color:inherit;cursor:pointer;margin:0;border:2px solid var(--k);background:var(--g)}
button:hover{background:var(--r)}
button:focus-visible{outline:3px solid var(--k);outline-offset:2px}
.plate{position:relative;display:flex;flex-direction:column;align-items:center;justify-content:center;gap:4px;width:calc(56px + 56px*var(--s));
min-height:112px;padding:10px 8px 8px;border-radius:4px;font-weight:600;text-align:center;overflow-wrap:anywhere}
svg{flex:none;width:44px;height:44px;fill:none;stroke:var(--k);stroke-width:1.5;stroke-linejoin:round;stroke-linecap:round}
img{flex:none;width:44px;height:44px;border-radius:4px}
.round{border-radius:50%}
.lit .glass{fill:var(--l)}
.more{display:block;margin-top:3px;font-weight:400;color:var(--d)}
.lintel .plate{flex-direction:row;width:auto;max-width:min(320px,80vw);min-height:60px;padding:6px 18px 6px 12px;gap:10px;text-align:start;border-width:2px 2px 6px}
.latch{right:0}.latch.left{left:0;right:auto}
.latch .plate{width:60px;min-height:148px;padding:12px 6px;border-inline-end:0;border-radius:4px 0 0 4px}
.latch.left .plate{border-radius:0 4px 4px 0}
.latch .plate>span:not(.count){writing-mode:vertical-rl;max-height:40vh}
.latch .more{margin:0 3px 0 0}
.count{position:absolute;top:-2px;right:-2px;min-width:28px;padding:2px 7px;border-radius:2px;background:var(--a);color:var(--o);text-align:center}
.count:empty,[hidden]{display:none!important}
.peek{display:flex;margin:0}
.peek button{min-height:48px;padding:8px 12px;text-align:start;border-radius:4px 0 0 4px}
.peek button+button{padding:0 14px;border-inline-start:0;border-radius:0 4px 4px 0}
iframe{position:fixed;right:var(--e);bottom:0;width:400px;height:min(640px,calc(100vh - 24px));
border:2px solid var(--k);border-bottom:0;border-radius:4px 4px 0 0;background:var(--g);color-scheme:light dark}
.left~iframe{right:auto;left:var(--e)}
@media(max-width:520px){.door~iframe{right:0;left:0;top:0;bottom:0;width:100%;height:100%;border:0;border-radius:0}}
`;
