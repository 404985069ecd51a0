/** Text as it stands in a page. */
export const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** A page of the street's own: plain, and of one look. */
export const streetPage = (title: string, body: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title><link rel="icon" href="data:,">
<style>body{max-width:760px;margin:0 auto;padding:24px;font:17px/1.5 sans-serif;color:#22304A;background:#FBF6EC}
pre{white-space:pre-wrap;overflow-wrap:anywhere;background:#F1E8D8;padding:8px}
select,button,textarea{font:inherit;min-height:44px;max-width:100%}textarea{width:100%;min-height:110px;box-sizing:border-box}
input{max-width:100%;box-sizing:border-box}a{color:#22304A}iframe{width:100%;height:560px;border:1px solid #8a7a5c;background:#fff}
ul.mails{list-style:none;padding:0}ul.mails li{border-bottom:1px solid #DCCFB8;padding:10px 0}</style>
</head><body><main><h1>${escaped(title)}</h1>
${body}
</main></body></html>`;

/** A choice with one of its values chosen. */
export const choice = (
  name: string,
  options: Readonly<Record<string, string>>,
  chosen: string,
): string =>
  `<select name="${name}">${Object.entries(options)
    .map(
      ([value, label]) =>
        `<option value="${value}"${value === chosen ? ' selected' : ''}>${label}</option>`,
    )
    .join('')}</select>`;
