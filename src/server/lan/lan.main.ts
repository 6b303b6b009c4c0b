import path from 'node:path';
import { certificateFor, fingerprintOf, ownNames } from './certificate';
import { lanFront } from './front';
import { newPassphrase, SHORTEST_PASSPHRASE } from './passphrase';

/** Opens the application to other devices of the house: `PORT` is its own, `LAN_PORT` the one it is opened at. */
const { PORT = '3000', LAN_PORT = '3443', IDLE_WANDER_PASSPHRASE: chosen } = process.env;
const passphrase = chosen ?? newPassphrase();
if (passphrase.length < SHORTEST_PASSPHRASE) {
  console.error(`\nA passphrase has at least ${SHORTEST_PASSPHRASE} characters. Nothing was opened.\n`);
  process.exit(1);
}
const names = ownNames();
const certificate = await certificateFor(names, path.resolve('data', 'lan-certificate.json'));
const server = lanFront({ certificate, passphrase, port: Number(PORT), names });
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(`\nIdle Wander could not be opened to other devices: ${error.message}\n`);
  process.exit(1);
});
server.listen(Number(LAN_PORT), () => {
  const [first = ''] = names;
  console.log(`From another device in the house: https://${first}:${LAN_PORT}`);
  console.log(`The running take on a phone, with its pedal: https://${first}:${LAN_PORT}/stage`);
  console.log(`Passphrase: ${chosen ? 'the one in IDLE_WANDER_PASSPHRASE' : passphrase}`);
  console.log(
    `Its browser warns once, for the certificate was made here; its SHA-256 fingerprint ends in ${fingerprintOf(certificate)}.`,
  );
  console.log('Whoever knows the passphrase can hear, change and delete everything that is kept here.\n');
});
