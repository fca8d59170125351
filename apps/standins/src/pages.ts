/** What the pages of all stand-ins look like. */

export const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

const STYLE = `body{font:15px/1.5 system-ui,sans-serif;background:#f7f6f1;color:#17251d;margin:0}main{max-width:46rem;margin:0 auto;padding:1.5rem}
h1{font-size:1.3rem}article,form{background:#fff;border:1px solid #dedcd2;border-radius:6px;padding:.9rem 1.1rem;margin:0 0 .8rem}
h2{font-size:1rem;margin:0 0 .3rem}p{margin:.4rem 0}.to{color:#5a655e;margin:0}a{color:#1e5b43}label{display:block;margin:0 0 .7rem}
img,video{max-width:100%;max-height:24rem;display:block;margin:.5rem 0}input,textarea,select{font:inherit;display:block;width:100%;box-sizing:border-box;padding:.4rem .5rem;border:1px solid #8a948d;border-radius:4px;background:inherit;color:inherit}
button{font:inherit;padding:.45rem 1rem;border:0;border-radius:4px;background:#1e5b43;color:#fff}
@media(prefers-color-scheme:dark){body{background:#101914;color:#e9ece6}article,form{background:#18241d;border-color:#33433a}a{color:#9fd0b7}.to{color:#a9b5ad}
button{background:#9fd0b7;color:#101914}}`;

/** A page with that title; the content is made of escaped words. */
export const page = (title: string, content: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title>
<link rel="icon" href="data:,"><style>${STYLE}</style></head><body><main><h1>${title}</h1>${content}</main></body></html>`;
