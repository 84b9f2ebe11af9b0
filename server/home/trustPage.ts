/** What the plain listener shows: the way to the page with TLS, and what a phone needs to trust it. Without a script, without the logbook. */
export function trustPage({ address }: { address: string }): string {
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Dulse at home</title>
<style>
body { font: 1.05rem/1.5 system-ui, sans-serif; max-width: 36rem; margin: 0 auto; padding: 1.2rem; background: #f4f0e8; color: #27211e; }
h1 { font-size: 1.5rem; margin: 0 0 .4rem; }
li { margin: 0 0 1rem; }
a.button { display: inline-block; background: #7d3b2c; color: #fff; padding: .8rem 1.1rem; border-radius: 8px; text-decoration: none; font-weight: 650; }
.quiet { color: #5f564f; }
</style>
</head>
<body>
<h1>Dulse at home</h1>
<p>Once on each phone or tablet. It is then told for good that this server is the household’s own.</p>
<ol>
<li><a class="button" href="/dulse-at-home.crt">Get the household’s certificate</a></li>
<li>Before you trust it, look at its fingerprint (SHA-256), which the device shows among its details: it must be the one on the page <em>Home network</em> of the computer that Dulse runs on.</li>
<li>Trust it. Some devices ask at once what it is for: choose web sites, or “CA certificate”. Others keep it as a profile: install that under <em>General, VPN and device management</em>, then switch it on under <em>General, About, Certificate trust</em>. Others again have it under <em>Security, Encryption and credentials, Install a certificate</em>. A browser on a computer has it under <em>Privacy and security, Certificates, Authorities</em>.</li>
<li><a class="button" href="${address}">Go to Dulse</a></li>
</ol>
<p class="quiet">The certificate can vouch for names and addresses of a home only, not for sites of the world. Take it off again in the same place.</p>
</body>
</html>
`
}
