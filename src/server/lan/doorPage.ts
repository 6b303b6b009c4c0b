import { createHash } from 'node:crypto';

const STYLE = `
:root { color-scheme: light dark; --bg: #eef1ec; --ink: #14201e; --soft: #435350; --line: #566561; --now: #965500; --on: #f4f7f2 }
@media (prefers-color-scheme: dark) { :root { --bg: #12191b; --ink: #eef1ea; --soft: #a9b8b4; --line: #849692; --now: #f0b44c; --on: #12191b } }
body { margin: 0; background: var(--bg); color: var(--ink); font: 18px/28px system-ui, sans-serif }
main { max-width: 26rem; margin: 18vh auto 0; padding: 0 1.25rem }
h1 { font-size: 40px; line-height: 48px; margin: 0 0 .5rem; letter-spacing: -.01em }
p { margin: 0 0 1.25rem; color: var(--soft) }
p[role=alert] { color: var(--ink); font-weight: 600; border-left: 4px solid var(--now); padding-left: .75rem }
label { display: block; font-weight: 600; margin-bottom: .35rem }
input, button { font: inherit; box-sizing: border-box; width: 100%; min-height: 52px; border-radius: 6px; padding: 0 .9rem }
input { background: transparent; color: inherit; border: 1.5px solid var(--line); margin-bottom: .9rem }
button { border: 0; background: var(--now); color: var(--on); font-weight: 650; cursor: pointer }
:focus-visible { outline: 3px solid var(--now); outline-offset: 2px }
`;

/** The page's own style by its hash; nothing else may be loaded, and it goes nowhere but here. */
export const DOOR_POLICY = [
  "default-src 'none'",
  `style-src 'sha256-${createHash('sha256').update(STYLE).digest('base64')}'`,
  "form-action 'self'",
  "base-uri 'none'",
  "frame-ancestors 'none'",
].join('; ');

const SAID = {
  ask: '',
  wrong: '<p role="alert">That is not the passphrase. It is shown where Idle Wander was started.</p>',
  wait: '<p role="alert">Too many tries. Wait a minute, then try again.</p>',
};

/** What a device is asked before it may come in. */
export const doorPage = (said: keyof typeof SAID): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Idle Wander</title>
<style>${STYLE}</style>
</head>
<body>
<main>
<h1>Idle Wander</h1>
<p>Type the passphrase that is shown on the computer.</p>
${SAID[said]}
<form method="post" action="/door">
<label for="passphrase">Passphrase</label>
<input id="passphrase" name="passphrase" type="password" autocomplete="current-password" autocapitalize="off" spellcheck="false" required autofocus>
<button>Open</button>
</form>
</main>
</body>
</html>
`;
