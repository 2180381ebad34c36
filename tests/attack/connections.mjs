import { Agent, request } from 'node:http';
import { connect } from 'node:net';
import { pause } from '../support/drive.mjs';

const slowOnes = 200;

/** 200 connections that send a head in drops, and bodies without end: all are let go, and the rest is answered. */
export async function slowConnections({ settings, base, probe, tokens }) {
  const holes = [];
  const began = Date.now();
  const open = new Set();
  const sockets = Array.from({ length: slowOnes }, (_, at) => {
    const socket = connect(settings.port, '127.0.0.1');
    open.add(socket);
    socket.write(`GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-${at}: `);
    socket.on('close', () => open.delete(socket));
    socket.on('error', () => {});
    return socket;
  });
  probe.mark();
  while (open.size > 0 && Date.now() - began < 40_000) {
    for (const socket of open) socket.write('a', () => {});
    await pause(500);
  }
  const seconds = Math.round((Date.now() - began) / 1_000);
  const left = open.size;
  for (const socket of sockets) socket.destroy();
  if (left) holes.push(`${left} of ${slowOnes} heads in drops were still listened to after ${seconds} s`);
  const slowest = probe.since();
  if (slowest > 1_000) holes.push(`the rest waited ${Math.round(slowest)} ms meanwhile`);

  // A body that never ends, to what takes JSON, pictures, files, and to those who need nobody to be signed in.
  const places = [
    ['POST', '/api/v1/edits', 'application/json'],
    ['POST', '/api/v1/photos', 'image/jpeg'],
    ['POST', '/api/v1/imports', 'application/octet-stream'],
    ['POST', '/api/auth/sign-in/email', 'application/json'],
    ['POST', '/api/invited', 'application/json'],
    ['POST', '/api/setup', 'application/json'],
    ['POST', '/api/webhooks/nobody', 'application/json'],
  ];
  const agent = new Agent({ keepAlive: false });
  const mega = Buffer.alloc(1_000_000, 'a');
  let most = 0;
  for (const [method, path, type] of places) {
    const sent = await new Promise((resolve) => {
      let megabytes = 0;
      let ended = false;
      const end = () => {
        ended = true;
        resolve(megabytes);
      };
      const asked = request(
        `${base}${path}`,
        {
          method,
          agent,
          headers: {
            'content-type': type,
            authorization: `Bearer ${tokens.owner}`,
            origin: base,
            'transfer-encoding': 'chunked',
          },
        },
        (answer) => {
          answer.resume();
          if (answer.statusCode < 400 || answer.statusCode >= 500)
            holes.push(`${path} answered a body without end with ${answer.statusCode}`);
          asked.destroy();
          end();
        },
      );
      asked.on('error', end);
      const more = () => {
        if (ended) return;
        if (megabytes >= 700) {
          holes.push(`${path} took ${megabytes} MB and wanted more`);
          asked.destroy();
          return end();
        }
        megabytes++;
        if (asked.write(mega)) setImmediate(more);
        else asked.once('drain', more);
      };
      more();
    });
    most = Math.max(most, sent);
  }
  return {
    id: 'A6 slow connections and bodies without end',
    ok: holes.length === 0,
    text: `${slowOnes} heads in drops, all let go after ${seconds} s, the rest answered within ${Math.round(slowest)} ms; ${places.length} bodies without end, cut after ${most} MB at most, ${holes.length} holes`,
    holes,
  };
}
